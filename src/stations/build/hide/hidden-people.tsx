'use client';
import { hiddenIn, veilReaches, type Hidden } from '@/core/model/hidden';
import type { Moment, Take } from '@/core/model/records';
import type { Material } from '@/core/recipes/material';
import { setHidden, showAgain } from '@/store/commands/veils';
import { useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Part } from '../../station';
import type { Hiding } from './use-hiding';

const parts = [
  { value: 'face', text: 'face' },
  { value: 'body', text: 'whole body' },
] as const;

/** Who is hidden in the takes of a moment, and the way to hide one more. */
export function HiddenPeople({
  moment,
  takes,
  hiding,
}: {
  moment: Moment;
  takes: Material['takes'];
  hiding: Hiding;
}) {
  const used = new Map(
    Object.values(takes).flatMap((chosen) => (chosen ? [[chosen.take.id, chosen.take] as const] : [])),
  );
  const all = [...used.values()].flatMap((take) =>
    hiddenIn(take).map(({ id, hidden }, index, { length }) => ({
      take,
      id,
      hidden,
      name: length > 1 ? `${take.name}, person ${index + 1}` : take.name,
    })),
  );
  const { wanted, looking, said } = hiding;
  return (
    <Part title="Who must not be known">
      <p className="text-[12px] text-ink2">
        {wanted
          ? 'Tap their face on the picture. They are followed through the take, and hidden in every moment that shows it.'
          : 'Hide whoever did not agree to be shown.'}
      </p>
      <p role="status" className={looking || said ? 'mt-1 text-[12px]' : 'sr-only'}>
        {looking ? 'Looking for the face …' : said}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        <button
          type="button"
          className="knob"
          aria-pressed={wanted?.is === 'anew'}
          disabled={used.size === 0}
          onClick={() => hiding.want(wanted?.is === 'anew' ? null : { is: 'anew' })}
        >
          {all.length > 0 ? 'Hide somebody else' : 'Hide somebody'}
        </button>
      </div>
      {all.map((one) => (
        <HiddenOne key={one.id} moment={moment} hiding={hiding} {...one} />
      ))}
      {(wanted || all.length > 0) && (
        <p className="mt-2 text-[12px] text-ink2">
          Clothes, gait and voice still tell who somebody is. Whether they have to agree follows from the law
          where you film and where you show it. The takes themselves stay as they were filmed, here and in
          what you carry over.
        </p>
      )}
    </Part>
  );
}

function HiddenOne({
  moment,
  take,
  id,
  hidden,
  name,
  hiding,
}: {
  moment: Moment;
  take: Take;
  id: string;
  hidden: Hidden;
  name: string;
  hiding: Hiding;
}) {
  const { store, attempt } = useServices();
  const { wanted } = hiding;
  const isTapped = wanted?.is === 'again' && wanted.id === id;
  const set = (fields: Parameters<typeof setHidden>[4]) =>
    attempt(() => setHidden(store, moment.project, take.id, id, fields));
  return (
    <div data-hidden={id} className="mt-2 border-t border-line pt-2">
      <p className="font-serif text-[15px] leading-[1.7]">
        In {name}: their{' '}
        <LiveChoice
          label={`What is hidden in ${name}`}
          value={hidden.covers}
          options={parts}
          onChange={(covers) => set({ covers: covers === 'body' ? 'body' : 'face' })}
        />
        {', with a head '}
        <LiveNumber
          label={`Width of the head that is hidden in ${name}`}
          value={200 * hidden.reach}
          step={0.2}
          min={200 * veilReaches.least}
          max={200 * veilReaches.most}
          show={(value) => `${value.toFixed(1)} %`}
          onChange={(value) => set({ reach: Math.round(value * 50) / 10_000 })}
        />{' '}
        of the picture wide, tapped on{' '}
        {hidden.taps.length === 1 ? 'one picture' : `${hidden.taps.length} pictures`}.
      </p>
      <div className="mt-1 flex flex-wrap gap-1.5">
        <button
          type="button"
          className="knob"
          aria-pressed={isTapped}
          aria-label={`Tap again: ${name}`}
          onClick={() => hiding.want(isTapped ? null : { is: 'again', take: take.id, id })}
        >
          Tap again
        </button>
        <button
          type="button"
          className="knob"
          aria-label={`Show them again: ${name}`}
          onClick={() => {
            if (isTapped) hiding.want(null);
            void attempt(() => showAgain(store, moment.project, take.id, id));
          }}
        >
          Show them again
        </button>
      </div>
    </div>
  );
}
