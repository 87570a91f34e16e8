'use client';
import {
  changedIn,
  lookNames,
  lookQuantities,
  tones,
  wholeLook,
  type LookQuantity,
  type Tone,
} from '@/core/look/schema';
import type { Moment } from '@/core/model/records';
import { setMoment } from '@/store/commands/moments';
import { useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Part } from '../station';

const whens = [
  { value: 'always', text: 'All of the time' },
  { value: 'hit', text: 'As a hit on the landing' },
] as const;
const toneOptions = (Object.keys(tones) as Tone[]).map((value) => ({ value, text: value }));

/** How all of a moment looks, in a sentence. */
export function MomentLook({ moment }: { moment: Moment }) {
  const { store, attempt } = useServices();
  const look = wholeLook(moment.look);
  const set = (fields: Record<string, unknown>) =>
    attempt(() =>
      setMoment(
        store,
        moment.project,
        moment.id,
        'Change the look',
        Object.fromEntries(Object.entries(fields).map(([name, value]) => [`look.${name}`, value])),
      ),
    );
  const number = (name: LookQuantity) => {
    const { title, unit, min, max, step } = lookQuantities[name];
    return (
      <LiveNumber
        label={title}
        value={look[name]}
        step={step}
        min={min}
        max={max}
        show={(value) => `${Math.round(value)}${unit === '°' ? '' : ' '}${unit}`}
        onChange={(value) => set({ [name]: Math.round(value) })}
      />
    );
  };
  const changed = changedIn(moment.look);
  return (
    <Part title="How it looks">
      <p className="font-serif text-[15px] leading-[1.7]">
        <LiveChoice
          label="When the look is there"
          value={look.when}
          options={whens}
          onChange={(when) => set({ when })}
        />
        {look.when === 'hit' && (
          <>
            {' '}
            that dies away over{' '}
            <LiveNumber
              label="Frames in which the hit dies away"
              value={look.dies}
              step={1}
              min={1}
              max={240}
              show={(value) => `${Math.round(value)} frames`}
              onChange={(value) => set({ dies: Math.round(value) })}
            />
          </>
        )}
        , its colours are {number('brightness')} bright, {number('saturation')} saturated and turned by{' '}
        {number('hue')}, {number('tone')} of the way to{' '}
        <LiveChoice
          label="Colour of the tone"
          value={look.toneOf}
          options={toneOptions}
          onChange={(toneOf) => set({ toneOf })}
        />{' '}
        and {number('negative')} of the way to their negative. What is bright glows by {number('glow')}, the
        corners are darker by {number('corners')}, red and blue lie {number('fringe')} apart. It is soft by{' '}
        {number('blur')}, by squares of {number('square')}, along a line of {number('sweep')} at{' '}
        {number('along')}, and by {number('zoom')} towards the middle. Its lines are bent by {number('bend')},
        it waves by {number('wave')}, and {number('grain')} of grain lie over it.
      </p>
      {changed.length > 0 && (
        <button
          type="button"
          className="knob mt-1.5"
          onClick={() =>
            void set(Object.fromEntries(lookNames.map((name) => [name, lookQuantities[name].plain])))
          }
        >
          Leave it as filmed
        </button>
      )}
    </Part>
  );
}
