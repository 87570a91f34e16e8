'use client';
import { useMemo } from 'react';
import type { Take } from '@/core/model/records';
import { filmSlot, noSlot, plateSlot } from '@/core/model/slots';
import { slotsOverPlate } from '@/core/recipes/built';
import { formatClock } from '@/core/time/timecode';
import { setTake } from '@/store/commands/takes';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { goTo } from '@/ui/where';
import { useRemoveTake } from '../use-remove-take';

/** What a take can be. */
export const slotOptions = [
  ...slotsOverPlate.map(({ key, title }) => ({ value: key, text: title })),
  { value: filmSlot, text: 'a finished film' },
  { value: noSlot, text: 'not used' },
];

/** seconds from which on a take may hold several, filmed one after the other */
const longTake = 20;

/** Puts a kept picture on an image while both are there. */
function showOn(blob: Blob) {
  return (image: HTMLImageElement | null) => {
    if (!image) return;
    const url = URL.createObjectURL(blob);
    image.src = url;
    return () => URL.revokeObjectURL(url);
  };
}

/** A kept picture as an image. */
export function Poster({ blob, alt }: { blob: Blob; alt: string }) {
  const show = useMemo(() => showOn(blob), [blob]);
  return <img ref={show} alt={alt} className="h-full w-full object-contain" />;
}

/** A take as a piece of cloth: its picture, what it is, and how it stands. */
export function Swatch({
  take,
  verdict,
  width,
}: {
  take: Take;
  verdict: { text: string; good: boolean } | null;
  width?: number;
}) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const measure = takeMeasure(snapshot, take);
  const isLong = (measure?.times.last ?? 0) >= longTake && take.slot !== plateSlot;
  const { remove, asking } = useRemoveTake(take);
  const { id } = snapshot.project;
  // Filmed for a kind that is only planned: said, and not taken away by looking at it.
  const own = take.slot !== null && !slotOptions.some(({ value }) => value === take.slot) ? [take.slot] : [];
  const options = [...slotOptions, ...own.map((slot) => ({ value: slot, text: slot.replace(/-/g, ' ') }))];
  return (
    <figure className="min-w-0" style={{ width }} data-take={take.name}>
      <div className="aspect-video w-full overflow-hidden bg-stage">
        {measure && <Poster blob={measure.poster} alt={`A picture of ${take.name}`} />}
      </div>
      <figcaption className="pt-1">
        <div className="flex flex-wrap items-baseline justify-between gap-x-1">
          <b
            className="min-w-0 font-semibold break-words"
            title={`${take.name}, ${formatClock(measure?.times.last ?? 0)}`}
          >
            {take.name}
          </b>
          {verdict && (
            <span
              className="num whitespace-nowrap"
              style={{ color: verdict.good ? 'var(--verdigris)' : 'var(--madder)' }}
            >
              {verdict.text}
            </span>
          )}
        </div>
        <div className="flex flex-wrap items-baseline justify-between gap-1 [&_.live]:min-w-0 [&_.live]:whitespace-normal">
          <LiveChoice
            label={`What ${take.name} is`}
            value={take.slot ?? ''}
            empty="say what it is"
            options={options}
            onChange={(slot) => attempt(() => setTake(store, id, take.id, 'What a take is', { slot }))}
          />
          {take.slot === plateSlot && (
            <LiveChoice
              label={`How the camera of ${take.name} is`}
              value={take.moves ? 'moves' : 'stands'}
              options={[
                { value: 'stands', text: 'camera stands' },
                { value: 'moves', text: 'camera moves' },
              ]}
              onChange={(how) =>
                attempt(() => setTake(store, id, take.id, 'How its camera is', { moves: how === 'moves' }))
              }
            />
          )}
          <button
            type="button"
            className="text-ink2 hover:text-ink pointer-coarse:min-h-11"
            aria-label={`Take ${take.name} out of the project`}
            onClick={remove}
          >
            out
          </button>
          {asking}
        </div>
        {(take.slot === filmSlot || isLong) && (
          <button
            type="button"
            className="text-left font-semibold underline underline-offset-2 pointer-coarse:min-h-11"
            onClick={() => goTo({ film: take.id })}
          >
            {take.slot === filmSlot ? 'See how it is cut' : 'Divide it into parts'}
          </button>
        )}
      </figcaption>
    </figure>
  );
}
