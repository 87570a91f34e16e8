'use client';
import { DropdownMenu } from 'radix-ui';
import type { ReactNode } from 'react';
import { useData, useServices } from '@/ui/bench-context';

const item = 'cursor-pointer px-3 py-1.5 outline-none data-[highlighted]:bg-sunk pointer-coarse:py-3';

type ProjectMenuProps = {
  projects: { id: string; name: string }[];
  open: boolean;
  setOpen: (open: boolean) => void;
  /** what can be done with the open project */
  onRename: () => void;
  onCopy: () => void;
  onRemove: () => void;
  /** what belongs to no project */
  onRemoved: () => void;
  onNew: () => void;
  onDemo: () => void;
  /** the button that it hangs from */
  children: ReactNode;
};

/** The projects on this device, and what can be done with them. */
export function ProjectMenu({ projects, open, setOpen, children, ...on }: ProjectMenuProps) {
  const { go } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  const acts = [
    [
      { text: 'Rename this project', run: on.onRename },
      { text: 'Copy this project', run: on.onCopy },
      { text: 'Remove this project …', run: on.onRemove },
      { text: 'Removed projects …', run: on.onRemoved },
      { text: 'Space: what takes room', run: () => go({ station: 'space' }) },
    ],
    [
      { text: 'Start a project of your own', run: on.onNew },
      { text: 'Open the demo afresh', run: on.onDemo },
    ],
  ];
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger asChild>{children}</DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          align="start"
          className="z-50 max-h-[80vh] min-w-56 overflow-auto border border-line bg-raised p-1 shadow-lg"
        >
          {projects.map((one) => (
            <DropdownMenu.Item
              key={one.id}
              className={item}
              onSelect={() => go({ project: one.id, moment: null })}
            >
              {one.name}
              {one.id === projectId ? ' · open' : ''}
            </DropdownMenu.Item>
          ))}
          {acts.map((group) => (
            <DropdownMenu.Group key={group[0].text} className="mt-1 border-t border-line pt-1">
              {group.map(({ text, run }) => (
                <DropdownMenu.Item key={text} className={item} onSelect={run}>
                  {text}
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
