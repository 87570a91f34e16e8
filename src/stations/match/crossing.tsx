'use client';
import { memo } from 'react';
import type { Take } from '@/core/model/records';
import type { PairWeights, RankedPair } from '@/core/footage/pairs';
import type { Pair } from './pair-side';
import { Poster } from './swatch';

const allBars = [
  { key: 'lock', name: 'camera', dye: 'var(--verdigris)' },
  { key: 'light', name: 'light', dye: 'var(--saffron)' },
  { key: 'seam', name: 'join', dye: 'var(--woad)' },
  { key: 'overlap', name: 'apart', dye: 'var(--lichen)' },
  { key: 'contact', name: 'near', dye: 'var(--cochineal)' },
  { key: 'pose', name: 'pose', dye: 'var(--madder)' },
  { key: 'eyes', name: 'eyes', dye: 'var(--weld)' },
] as const;

/** By how much the second take is shifted for the best of a pair; '' where it need not be. */
export const sayShift = ({ offset }: RankedPair): string =>
  offset === 0 ? '' : `${Math.abs(offset).toFixed(1)} s ${offset > 0 ? 'later' : 'earlier'}`;
const shifted = (pair: RankedPair): string => (pair.offset === 0 ? '' : `best ${sayShift(pair)}`);

/** One crossing of the board: a bar for each part and the score. Press to see it, twice to use it. A board has hundreds: each is drawn anew only for what changes in it. */
export const Crossing = memo(function Crossing({
  first,
  second,
  firstPoster,
  secondPoster,
  score,
  by,
  chosen,
  onChoose,
  onUse,
}: {
  first: Take;
  second: Take;
  /** a picture of each take: the left half of the one is shown beside the right half of the other */
  firstPoster: Blob | null;
  secondPoster: Blob | null;
  score: RankedPair | null;
  /** the parts of its score that are shown */
  by: readonly (keyof PairWeights)[];
  chosen: boolean;
  onChoose: (pair: Pair) => void;
  onUse: (pair: Pair) => void;
}) {
  const name = `${first.name} with ${second.name}`;
  const bars = allBars.filter(({ key }) => by.includes(key));
  const said = score
    ? [
        `${name}: ${Math.round(score.score * 100)} of 100`,
        bars.map((bar) => `${bar.name} ${Math.round(score.parts[bar.key] * 100)}`).join(', '),
        shifted(score),
      ]
        .filter(Boolean)
        .join('; ')
    : `${name}: not compared yet`;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      title={said}
      data-pair={name}
      onClick={() => onChoose({ first, second })}
      onDoubleClick={() => onUse({ first, second })}
      className={`flex min-h-[64px] flex-col justify-between gap-1.5 bg-raised px-2.5 py-2 text-left ${chosen ? 'outline-[2.5px] outline-ink' : 'outline outline-1 outline-line'}`}
    >
      <span className="sr-only">{name}: </span>
      <span className="relative block aspect-video w-full overflow-hidden bg-stage">
        {[firstPoster, secondPoster].map(
          (blob, side) =>
            blob && (
              <span
                key={side}
                className="absolute inset-0"
                style={{ clipPath: side === 0 ? 'inset(0 50% 0 0)' : 'inset(0 0 0 50%)' }}
              >
                <Poster blob={blob} alt="" />
              </span>
            ),
        )}
      </span>
      <span className="flex w-full flex-col gap-1">
        {bars.map((bar) => (
          <span key={bar.key} className="flex items-center gap-1.5">
            <span className="w-11 text-[10px] leading-none text-ink2">{bar.name}</span>
            <span className="sr-only">
              {score ? Math.round(score.parts[bar.key] * 100) : 'not compared yet'},{' '}
            </span>
            <span
              className="h-[5px]"
              style={{ width: `${(score?.parts[bar.key] ?? 0) * 65}%`, background: bar.dye }}
            />
          </span>
        ))}
      </span>
      <span className="num !text-[15px]">
        {score ? Math.round(score.score * 100) : '…'}
        <span className="sr-only">{score ? ' of 100' : ''}</span>
        {score && shifted(score) && (
          <span className="ml-2 font-sans text-[11px] text-ink2">{shifted(score)}</span>
        )}
      </span>
    </button>
  );
});
