'use client';
import { ChevronDown, Keyboard, Moon, Redo2, Undo2 } from 'lucide-react';
import { memo, Suspense, useState } from 'react';
import { longestName } from '@/core/model/base';
import { setProject } from '@/store/commands/projects';
import { useData, useServices } from '@/ui/bench-context';
import { IconButton } from '@/ui/icon-button';
import { ProjectMenu, RemovedProjects, RemoveProject } from './screens';
import { focused } from '@/ui/focused';
import { Longest } from '@/ui/longest';

/** The name of the project, undo and redo, and what belongs to no station. */
export const ProjectBar = memo(function ProjectBar({
  projects,
  onUndo,
  onRedo,
  onTheme,
  onKeys,
  onNew,
  onDemo,
}: {
  projects: { id: string; name: string }[];
  onUndo: () => void;
  onRedo: () => void;
  onTheme: () => void;
  onKeys: () => void;
  onNew: () => void;
  onDemo: () => void;
}) {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const [naming, setNaming] = useState<string | null>(null);
  const [asking, setAsking] = useState<'remove' | 'removed' | null>(null);
  /** null until the menu is first wanted */
  const [menu, setMenu] = useState<boolean | null>(null);
  const closed = () => setAsking(null);
  const { project } = snapshot;
  const buttons = [
    { text: 'Undo (Ctrl+Z)', icon: Undo2, run: onUndo },
    { text: 'Redo (Ctrl+Y)', icon: Redo2, run: onRedo },
    { text: 'Day or night (N)', icon: Moon, run: onTheme },
    { text: 'Everything that can be done (Ctrl+K)', icon: Keyboard, run: onKeys },
  ];
  const rename = () => {
    const name = naming?.trim();
    setNaming(null);
    if (name) void attempt(() => setProject(store, project.id, { name }));
  };
  const title = (
    <button
      type="button"
      aria-haspopup="menu"
      onClick={menu === null ? () => setMenu(true) : undefined}
      className="flex min-w-0 items-center gap-1 px-1 py-1 font-serif text-[14px] font-medium hover:bg-sunk pointer-coarse:min-h-11"
    >
      <span className="truncate">{project.name}</span>
      <ChevronDown size={14} aria-hidden />
    </button>
  );
  return (
    <div className="flex h-9 flex-none items-center gap-1 border-b border-line bg-raised px-3 phone:h-12 low:h-11">
      {naming === null ? (
        <Suspense fallback={title}>
          {menu !== null ? (
            <ProjectMenu
              projects={projects}
              open={menu}
              setOpen={setMenu}
              onRename={() => setNaming(project.name)}
              onCopy={() =>
                attempt(async () => {
                  const { copyProject } = await import('@/store/copy-project');
                  go({ project: await copyProject(store, project.id), moment: null });
                })
              }
              onRemove={() => setAsking('remove')}
              onRemoved={() => setAsking('removed')}
              onNew={onNew}
              onDemo={onDemo}
            >
              {title}
            </ProjectMenu>
          ) : (
            title
          )}
        </Suspense>
      ) : (
        <>
          <input
            ref={focused}
            aria-label="Name of the project"
            className="border-b-2 border-woad bg-transparent px-1 font-serif text-[14px] outline-none"
            maxLength={longestName}
            value={naming}
            onChange={(event) => setNaming(event.target.value)}
            onBlur={rename}
            onKeyDown={(event) => {
              if (event.key === 'Enter') rename();
              if (event.key === 'Escape') setNaming(null);
            }}
          />
          {naming.length >= longestName && <Longest most={longestName} />}
        </>
      )}
      <span className="flex-1" />
      {buttons.map(({ text, icon, run }) => (
        <IconButton key={text} text={text} icon={icon} onPress={run} />
      ))}
      <RemoveProject open={asking === 'remove'} onClose={closed} />
      <RemovedProjects open={asking === 'removed'} onClose={closed} />
    </div>
  );
});
