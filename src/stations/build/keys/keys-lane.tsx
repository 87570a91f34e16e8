'use client';
import { useState } from 'react';
import type { Placing } from '@/core/hand/edit';
import { handValues, valuesOf, wholeHandheld, wholeLayer } from '@/core/hand/schema';
import type { Moment } from '@/core/model/records';
import { setMoment } from '@/store/commands/moments';
import { swayAsFilmed } from '@/workers/filmed-hand';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import type { RibbonLayout } from '@/ui/ribbon/layout';
import { KeyCurve } from './key-curve';
import { KeySentence } from './key-sentence';
import type { HandKeysHere } from './use-hand-keys';

/** Whose hand a picture sways in, beside those that filmed a take. */
const [madeUp, asFilmed] = ['made-up', 'as-filmed'];

const looks = [
  { value: 'value', text: 'its value' },
  { value: 'speed', text: 'its speed' },
];
export type Look = 'value' | 'speed';

/** The moment's own fabric for keys that are set by hand: what is moved, its curve over the beats, and one key in words. */
export function KeysLane({
  moment,
  hand,
  placing,
  layout,
  frame,
}: {
  moment: Moment;
  hand: HandKeysHere;
  placing: Placing;
  layout: RibbonLayout;
  frame: number;
}) {
  const { store, attempt } = useServices();
  const [look, setLook] = useState<Look>('value');
  const { strength, pace, seed, filmed } = wholeHandheld(moment.handheld);
  const takes = useData((data) => data.snapshot.takes);
  const sway = (label: string, field: string, value: number) =>
    attempt(() => setMoment(store, moment.project, moment.id, label, { [`handheld.${field}`]: value }));
  return (
    <section
      aria-label="Keys by hand"
      className="border-b border-line bg-raised phone:order-1"
      data-testid="keys"
    >
      <p className="px-5 pt-2 font-serif text-[15px] leading-[1.7] phone:px-3">
        By hand{' '}
        <LiveChoice
          label="What is moved by hand"
          value={hand.layer}
          options={hand.layers.map(({ id, title }) => ({ value: id, text: title }))}
          onChange={hand.setLayer}
        />
        {' changes its '}
        <LiveChoice
          label="What of it changes"
          value={hand.value}
          options={valuesOf(hand.layer).map((name) => ({ value: name, text: handValues[name].title }))}
          onChange={hand.setValue}
        />
        ; the curve shows{' '}
        <LiveChoice
          label="What the curve shows"
          value={look}
          options={looks}
          onChange={(next) => setLook(next as Look)}
        />
        {hand.layer === wholeLayer && (
          <>
            . Held in a hand it sways by{' '}
            <LiveNumber
              label="Sway of a hand"
              value={strength}
              step={0.1}
              min={0}
              max={10}
              show={(value) => (value === 0 ? 'nothing' : `${value} % of the width`)}
              onChange={(value) => sway('Sway of a hand', 'strength', Math.round(value * 10) / 10)}
            />
            {', '}
            <LiveChoice
              label="Whose hand"
              value={filmed ? asFilmed : madeUp}
              options={[
                { value: madeUp, text: 'as a hand might' },
                ...(filmed ? [{ value: asFilmed, text: `as measured in ${filmed.name}` }] : []),
                ...takes.map(({ id, name }) => ({ value: id, text: `as in ${name}` })),
              ]}
              onChange={(hand) => {
                const take = takes.find(({ id }) => id === hand);
                if (take) void attempt(() => swayAsFilmed(store, moment, take));
                else if (hand === madeUp)
                  void attempt(() =>
                    setMoment(store, moment.project, moment.id, 'Sway as a hand might', {
                      'handheld.filmed': null,
                    }),
                  );
              }}
            />
            {strength > 0 && !filmed && (
              <>
                , about{' '}
                <LiveNumber
                  label="Sways a second"
                  value={pace}
                  step={0.1}
                  min={0.1}
                  max={5}
                  show={(value) => `${value}`}
                  onChange={(value) => sway('Pace of the hand', 'pace', Math.round(value * 10) / 10)}
                />{' '}
                times a second, hand{' '}
                <LiveNumber
                  label="Which hand"
                  value={seed}
                  step={1}
                  min={1}
                  max={999}
                  show={(value) => `${value}`}
                  onChange={(value) => sway('Another hand', 'seed', Math.round(value))}
                />
              </>
            )}
          </>
        )}
        .
      </p>
      <KeyCurve hand={hand} placing={placing} layout={layout} frame={frame} look={look} />
      <div className="flex flex-wrap items-baseline gap-2 px-5 pb-2 phone:px-3">
        <button type="button" className="knob" onClick={() => void hand.add()}>
          Set a key here
        </button>
        <button
          type="button"
          className="knob"
          aria-pressed={hand.drawing}
          onClick={() => hand.setDrawing(!hand.drawing)}
        >
          Draw its way
        </button>
        {hand.drawing && (
          <span className="text-[12px] text-ink2">
            Draw on the picture where it goes from this frame to {hand.wayEnds.title}, the next instant of the
            moment.
          </span>
        )}
        <KeySentence hand={hand} placing={placing} />
      </div>
    </section>
  );
}
