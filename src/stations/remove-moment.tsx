'use client';
import { shotsOnlyFor } from '@/core/plan/shots';
import { removeMoment } from '@/store/commands/moments';
import { useData, useServices } from '@/ui/bench-context';
import { Confirm } from '@/ui/confirm';

/** Says which shots go with a moment and which stay, before it is removed. */
export function RemoveMoment({
  open,
  moment: id,
  onClose,
}: {
  open: boolean;
  moment: string | null;
  onClose: () => void;
}) {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const moment = snapshot.moments.find((one) => one.id === id);
  const shots = plan.schedule.slots.map(({ shot }) => shot);
  const going = moment ? shotsOnlyFor(shots, moment.id) : [];
  const staying = shots.filter((shot) => moment && shot.moments.includes(moment.id) && !going.includes(shot));
  return (
    <Confirm
      open={open && Boolean(moment)}
      title={`Remove ${moment?.name}?`}
      text={
        going.length === 0
          ? 'No shot goes with it.'
          : `${going.length === 1 ? 'One shot goes' : `${going.length} shots go`} with it, because nothing else needs ${going.length === 1 ? 'it' : 'them'}:`
      }
      keep="Keep it"
      act="Remove"
      onAct={() =>
        moment &&
        attempt(async () => {
          await removeMoment(store, snapshot.project.id, moment.id);
          go({ moment: null });
        })
      }
      onClose={onClose}
    >
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
    </Confirm>
  );
}
