import type { Alignment } from '../footage/align-sound';
import { clicksOf, countIn, type Click } from '../song/click';
import { nextBar, timeOfBeat, type BeatGrid } from '../time/grid';
import { frameOfTime, type Rate } from '../time/rate';

/** What a slate plays, in seconds from when it begins. */
export type SlateTimeline = {
  /** the beep and the white picture */
  sync: number;
  counts: Click[];
  /** the passage begins; seconds of the slate, and of the song */
  song: number;
  from: number;
  until: number;
  end: number;
  speed: number;
  /** frames of the camera from the white picture to the first frame of the passage */
  frames: number;
};

/** The slate stands for a second before the beep, and for one after it. Common practice, no published source. */
const hold = 1;

/**
 * From the slate to the end of the passage.
 * @param passage beat positions
 * @param speed the song is played this many times as fast
 * @param capture the camera's rate, for counting frames
 */
export function slateTimeline(
  grid: BeatGrid,
  passage: { from: number; until: number },
  speed: number,
  capture: Rate,
): SlateTimeline {
  const from = timeOfBeat(grid, passage.from);
  const until = Math.max(timeOfBeat(grid, passage.until), from + 0.1);
  const bar = nextBar(grid, passage.from) - passage.from;
  const beat = (timeOfBeat(grid, passage.from + 1) - from) / speed;
  const count = countIn(beat, Math.max(1, Math.round(bar)));
  const lead = 2 * hold;
  const song = lead + count.length;
  return {
    sync: hold,
    counts: count.clicks.map((click) => ({ ...click, time: click.time + lead })),
    song,
    from,
    until,
    end: song + (until - from) / speed,
    speed,
    frames: frameOfTime(capture, song - hold),
  };
}

/** What is made ahead for a slate: its beep, its count and its passage. @param position beat at which the passage begins */
export const slateTrack = (
  grid: BeatGrid,
  position: number,
  { sync, from, until, speed }: SlateTimeline,
) => ({
  clicks: clicksOf(grid, from, until),
  from,
  to: until,
  speed,
  keepPitch: true,
  beat: timeOfBeat(grid, position + 1) - timeOfBeat(grid, position),
  beatsPerBar: Math.max(1, Math.round(nextBar(grid, position) - position)),
  slate: { seconds: 2 * hold, beep: sync },
});

/**
 * Where a take in which the slate beeped or flashed lies on the song, though nothing else of it is heard.
 * @param at second of the take
 */
export const alignmentBySlate = (
  { song, sync, from, speed }: SlateTimeline,
  at: number,
  by: NonNullable<Alignment['by']>,
): Alignment => ({
  offset: from - speed * (at + song - sync),
  drift: 0,
  confidence: 1,
  ...(speed === 1 ? {} : { speed }),
  by,
});

/** Time of the song at a time of the slate; below `from` during the count. */
export const songTimeAt = ({ song, from, speed }: SlateTimeline, seconds: number): number =>
  from + (seconds - song) * speed;

/** The count to show before the passage, from 1; null outside the count. */
export function countAt({ counts, song }: SlateTimeline, seconds: number): number | null {
  if (seconds >= song) return null;
  const at = counts.findLastIndex(({ time }) => seconds >= time - 1e-6);
  return at < 0 ? null : at + 1;
}
