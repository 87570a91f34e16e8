'use client';
import { useEffect, useRef, useState, type CSSProperties } from 'react';
import type { FoundJoin } from '@/core/footage/found-joins';
import type { Take } from '@/core/model/records';
import type { Source } from '@/media/footage';
import { useServices } from '@/ui/bench-context';
import { openMedia } from '@/workers/clients';
import { filesOf } from './use-joins';

/** pictures to each side of a join that are shown */
const each = 24;

/** Pictures round a join: when each of them shows, in seconds from the first on, when all is over, and which is the join's. */
type Motion = { images: ImageBitmap[]; starts: number[]; ends: number; joins: number };

/** Both takes run as they were filmed, whatever their rates are. */
function motionOf(
  images: ImageBitmap[],
  [one, other]: readonly [Source, Source],
  { a, b }: Pick<FoundJoin, 'a' | 'b'>,
): Motion {
  const joins = Math.min(each, a);
  const cut = one.times[a] - one.times[a - joins];
  const starts = images.map((_, index) =>
    index < joins
      ? one.times[a - joins + index] - one.times[a - joins]
      : cut + other.times[b + index - joins] - other.times[b],
  );
  const last = starts.length - 1;
  return { images, starts, joins, ends: starts[last] + (starts[last] - (starts[last - 1] ?? 0)) };
}

/** The pictures round a join; null until they are there. */
function useMotion([first, second]: readonly [Take, Take], { a, b }: FoundJoin, over: number): Motion | null {
  const { store, attempt } = useServices();
  const [found, setFound] = useState<{ key: string; motion: Motion } | null>(null);
  const key = `${first.media} ${a} ${second.media} ${b} ${over}`;
  useEffect(() => {
    const media = openMedia();
    let images: ImageBitmap[] = [];
    void attempt(async () => {
      try {
        const sources = await filesOf(store, first, second);
        const answer = await media.orEnded(media.api.joinInMotion(sources, { a, b, over }, each));
        if (!answer) return;
        images = answer;
        setFound({ key, motion: motionOf(images, sources, { a, b }) });
      } finally {
        media.end();
      }
    });
    return () => {
      media.end();
      for (const image of images) image.close();
    };
  }, [store, first, second, a, b, over, key, attempt]);
  return found?.key === key ? found.motion : null;
}

/** Where a thread's colours meet. @param share of its length */
const tiedAt = (share: number) => ({ '--tied': `${100 * share}%` }) as CSSProperties;

/** A join in the middle of what runs before and after it: still on its picture until it is played, then round and round. */
export function JoinPlayer({
  takes,
  join,
  over,
  label,
}: {
  takes: readonly [Take, Take];
  join: FoundJoin;
  over: number;
  label: string;
}) {
  const motion = useMotion(takes, join, over);
  const canvas = useRef<HTMLCanvasElement>(null);
  const [runs, setRuns] = useState(false);
  const [at, setAt] = useState<number | null>(null);
  const count = motion?.images.length ?? 0;
  const shown = Math.min(Math.max(0, count - 1), at ?? motion?.joins ?? 0);
  useEffect(() => {
    const image = motion?.images[shown];
    if (!image || !canvas.current) return;
    [canvas.current.width, canvas.current.height] = [image.width, image.height];
    canvas.current.getContext('2d')?.drawImage(image, 0, 0);
  }, [motion, shown]);
  useEffect(() => {
    if (!runs || !motion) return;
    const began = performance.now();
    let asked = 0;
    const next = (now: number) => {
      const seconds = (Math.max(0, now - began) / 1000) % motion.ends;
      setAt(motion.starts.findLastIndex((start) => start <= seconds));
      asked = requestAnimationFrame(next);
    };
    asked = requestAnimationFrame(next);
    return () => cancelAnimationFrame(asked);
  }, [runs, motion]);
  const from = (motion?.joins ?? 0) - shown;
  return (
    <div className="flex flex-col gap-2">
      <div className="aspect-video w-full bg-stage">
        <canvas
          ref={canvas}
          role="img"
          aria-label={label}
          data-motion={count}
          className="h-full w-full object-contain"
        />
      </div>
      <div className="flex items-center gap-3">
        <button
          type="button"
          className="knob"
          disabled={count === 0}
          onClick={() => {
            setRuns(!runs);
            if (runs) setAt(null);
          }}
        >
          {runs ? 'Stop' : 'Play it'}
        </button>
        <label className="flex min-h-11 flex-1 items-center gap-2 text-[12.5px]">
          <input
            type="range"
            className="thread h-6 min-w-0 flex-1 pointer-coarse:h-11"
            style={tiedAt((motion?.joins ?? 0) / Math.max(1, count - 1))}
            min={0}
            max={Math.max(0, count - 1)}
            value={shown}
            disabled={count === 0}
            aria-label="Frame that is shown"
            onChange={({ target }) => {
              setRuns(false);
              setAt(Number(target.value));
            }}
          />
          <span className="num w-[11ch] flex-none text-right">
            {from > 0 ? `${from} before` : from < 0 ? `${-from} after` : over > 1 ? 'it begins' : 'the cut'}
          </span>
        </label>
      </div>
    </div>
  );
}
