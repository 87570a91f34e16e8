'use client';
import { AlertDialog } from 'radix-ui';
import { shotsOnlyFor } from '@/core/plan/shots';
import { removeMoment } from '@/store/commands/moments';
import { useBench } from '@/ui/bench-context';

/** Says which shots go with a moment and which stay, before it is removed. */
export function RemoveMoment({ moment: id, onClose }: { moment: string | null; onClose: () => void }) {
  const { snapshot, store, attempt, go, plan } = useBench();
  const moment = snapshot.moments.find((one) => one.id === id);
  const shots = plan.schedule.slots.map(({ shot }) => shot);
  const going = moment ? shotsOnlyFor(shots, moment.id) : [];
  const staying = shots.filter((shot) => moment && shot.moments.includes(moment.id) && !going.includes(shot));
  return (
    <AlertDialog.Root open={Boolean(moment)} onOpenChange={(open) => !open && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="fixed left-1/2 top-[14vh] z-50 flex max-h-[76vh] w-[min(480px,94vw)] -translate-x-1/2 flex-col border border-line bg-raised p-5 shadow-xl">
          <AlertDialog.Title className="text-[18px]">Remove {moment?.name}?</AlertDialog.Title>
          <AlertDialog.Description className="my-2 text-ink2">
            {going.length === 0
              ? 'No shot goes with it.'
              : `${going.length === 1 ? 'One shot goes' : `${going.length} shots go`} with it, because nothing else needs ${going.length === 1 ? 'it' : 'them'}:`}
          </AlertDialog.Description>
          <ul className="min-h-0 list-none overflow-auto" data-testid="going">
            {going.map((shot) => (
              <li key={shot.id} className="border-b border-dotted border-line py-1">
                {shot.title}
              </li>
            ))}
          </ul>
          {staying.length > 0 && (
            <p className="mt-2 text-ink2" data-testid="staying">
              Other moments keep: {staying.map(({ title }) => title).join(', ')}.
            </p>
          )}
          <div className="mt-4 flex justify-end gap-2">
            <AlertDialog.Cancel className="knob">Keep it</AlertDialog.Cancel>
            <AlertDialog.Action
              className="knob main"
              autoFocus
              onClick={() =>
                moment &&
                attempt(async () => {
                  await removeMoment(store, snapshot.project.id, moment.id);
                  go({ moment: null });
                })
              }
            >
              Remove
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
