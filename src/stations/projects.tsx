'use client';
import { Dialog } from 'radix-ui';
import { useLiveQuery } from 'dexie-react-hooks';
import { removeProject, restoreProject } from '@/store/commands/projects';
import { emptyProject, removedProjects, type RemovedProject } from '@/store/empty';
import { useData, useServices } from '@/ui/bench-context';
import { Confirm } from '@/ui/confirm';
import { sayBytes } from '@/ui/say-bytes';
import { sayRemoved, WaitingLine } from '@/ui/waiting-line';
import { tidyRenders } from '@/workers/tidy';

const frame =
  'fixed left-1/2 top-[14vh] z-50 flex max-h-[76vh] w-[min(520px,94vw)] -translate-x-1/2 flex-col border border-line bg-raised p-5 shadow-xl';
const veil = 'fixed inset-0 z-40 bg-black/40';

const takesOf = (count: number) => (count === 1 ? '1 take' : `${count} takes`);

/** Says what happens to a project before it is removed. */
export function RemoveProject({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { project, takes } = snapshot;
  return (
    <Confirm
      open={open}
      title={`Remove ${project.name}?`}
      text={`It waits under “Removed projects”, with ${takesOf(takes.length)} and everything else in it, until you bring it back or delete it for good. Undo does not bring it back.`}
      keep="Keep it"
      act="Remove"
      onAct={() => attempt(() => removeProject(store, project.id))}
      onClose={onClose}
    />
  );
}

/** A project that was removed and waits. */
export function RemovedLine({ removed, onBack }: { removed: RemovedProject; onBack: () => void }) {
  const { store, attempt, go } = useServices();
  const { id, name, takes, bytes, removed: when } = removed;
  return (
    <WaitingLine
      name={name}
      about={`${bytes > 0 ? `${takesOf(takes)} · ${sayBytes(bytes)}` : 'nothing in it'} · ${sayRemoved(when)}`}
      onBack={() =>
        attempt(async () => {
          await restoreProject(store, id);
          go({ project: id, moment: null });
          onBack();
        })
      }
      onDelete={() =>
        attempt(async () => {
          await emptyProject(store, id);
          await tidyRenders(store);
        })
      }
    />
  );
}

/** Projects that were removed and wait to be brought back or deleted for good. */
export function RemovedProjects({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { store } = useServices();
  const removed = useLiveQuery(() => (open ? removedProjects(store) : []), [store, open]) ?? [];
  return (
    <Dialog.Root open={open} onOpenChange={(stays) => !stays && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className={veil} />
        <Dialog.Content className={frame} aria-describedby={undefined}>
          <Dialog.Title className="text-[18px]">Removed projects</Dialog.Title>
          <ul className="my-2 min-h-0 list-none overflow-auto" data-testid="removed">
            {removed.map((one) => (
              <RemovedLine key={one.id} removed={one} onBack={onClose} />
            ))}
            {removed.length === 0 && <li className="py-2 text-ink2">Nothing waits here.</li>}
          </ul>
          <Dialog.Close className="knob self-end">Close</Dialog.Close>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
