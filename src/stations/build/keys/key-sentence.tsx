'use client';
import { countKeyBy, moveKeyTo, type Placing } from '@/core/hand/edit';
import { handValues, type HandKey, type KeyUnit } from '@/core/hand/schema';
import { gentle, linear, type Bezier } from '@/core/motion/easing';
import { curveOf, influencesOf } from '@/core/motion/influence';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import type { HandKeysHere } from './use-hand-keys';

const ways = {
  hold: { text: 'stands until the next', ease: 'hold' },
  even: { text: 'moves evenly', ease: linear },
  eased: { text: 'eases', ease: gentle },
  free: { text: 'follows a free curve', ease: null },
} as const;
type Way = keyof typeof ways;

const same = (one: Bezier, other: Bezier) => one.every((value, at) => value === other[at]);
const wayOf = (ease: HandKey['ease']): Way => {
  if (ease === 'hold') return 'hold';
  return same(ease, linear) ? 'even' : same(ease, gentle) ? 'eased' : 'free';
};
/** What a curve begins as when it is set free: one that is seen to be another. */
const freed: Bezier = [0.4, 0, 0.2, 1];

const units: { value: KeyUnit; text: string }[] = [
  { value: 'frames', text: 'frames' },
  { value: 'beats', text: 'beats' },
  { value: 'seconds', text: 'seconds' },
];
const step = { frames: 1, beats: 0.25, seconds: 0.04 };
const three = (value: number) => String(Math.round(value * 1000) / 1000);

/** The chosen key in a sentence. */
export function KeySentence({ hand, placing }: { hand: HandKeysHere; placing: Placing }) {
  const { current, value, change, remove } = hand;
  if (!current)
    return (
      <span className="text-[12px] text-ink2">
        {hand.placed.length > 0
          ? 'Choose a key on the curve, or step to one.'
          : 'No keys yet. Step to a frame and set one, or drag the picture.'}
      </span>
    );
  const { index, ease } = current;
  const { unit, min, max, step: notch } = handValues[value];
  const way = wayOf(ease);
  return (
    <p className="font-serif text-[15px] leading-[1.7]" data-testid="key">
      On frame{' '}
      <LiveNumber
        label="Frame of the key"
        value={current.frame}
        step={1}
        show={(at) => String(at)}
        onChange={(at) => change(index, (key) => moveKeyTo(key, Math.round(at), placing))}
      />
      {', '}
      <LiveNumber
        label="How far from the instant"
        value={current.by}
        step={step[current.unit]}
        show={three}
        onChange={(by) => change(index, (key) => ({ ...key, by }))}
      />{' '}
      <LiveChoice
        label="Unit of the key"
        value={current.unit}
        options={units}
        onChange={(next) => change(index, (key) => countKeyBy(key, { unit: next as KeyUnit }, placing))}
      />
      {' from “'}
      <LiveChoice
        label="Instant of the key"
        value={current.from}
        options={placing.anchors.map(({ name, title }) => ({ value: name, text: title.toLowerCase() }))}
        onChange={(from) => change(index, (key) => countKeyBy(key, { from }, placing))}
      />
      {'”, it is '}
      <LiveNumber
        label="Value of the key"
        value={current.value}
        step={notch}
        min={min}
        max={max}
        show={(said) => `${three(said)}${unit === '°' ? '' : ' '}${unit}`}
        onChange={(said) => change(index, (key) => ({ ...key, value: said }))}
      />
      {', then '}
      <LiveChoice
        label="How it goes on"
        value={way}
        options={Object.entries(ways).map(([name, { text }]) => ({ value: name, text }))}
        onChange={(next) =>
          change(index, (key) => {
            const { ease: chosen } = ways[next as Way];
            return {
              ...key,
              ease: chosen === 'hold' ? 'hold' : ([...(chosen ?? freed)] as const),
            } as HandKey;
          })
        }
      />
      {ease !== 'hold' && way === 'free' && (
        <FreeCurve
          curve={ease}
          onChange={(next) =>
            change(index, (key) => ({ ...key, ease: [...next] as [number, number, number, number] }))
          }
        />
      )}
      .{' '}
      <button type="button" className="knob" onClick={() => void remove(index)}>
        Take it out
      </button>
    </p>
  );
}

/** A curve by its influences in per cent and by the speeds at its ends, 1 being even. */
function FreeCurve({ curve, onChange }: { curve: Bezier; onChange: (curve: Bezier) => void }) {
  const said = influencesOf(curve);
  const end = (which: 'leaves' | 'arrives', text: string) => {
    const { share, speed } = said[which];
    const set = (part: object) => onChange(curveOf({ ...said, [which]: { share, speed, ...part } }));
    return (
      <>
        {text} over{' '}
        <LiveNumber
          label={`It ${which} over`}
          value={Math.round(share * 100)}
          step={1}
          min={1}
          max={100}
          show={(value) => `${value} %`}
          onChange={(value) => set({ share: value / 100 })}
        />{' '}
        at{' '}
        <LiveNumber
          label={`It ${which} at`}
          value={Math.round(speed * 100) / 100}
          step={0.05}
          min={-10}
          max={10}
          show={(value) => `${value} ×`}
          onChange={(value) => set({ speed: value })}
        />
      </>
    );
  };
  return (
    <>
      {': '}
      {end('leaves', 'it leaves')} and {end('arrives', 'arrives')}
    </>
  );
}
