'use client';
import { beatShown, beatsPerGlow, displayTones } from '@/core/shoot/beat-display';
import { countAt, songTimeAt, type SlateTimeline } from '@/core/shoot/slate';
import type { BeatGrid } from '@/core/time/grid';

/** A grey of a relative luminance, as a CSS colour. @see IEC 61966-2-1 */
const grey = (light: number): string => {
  const code = Math.round(255 * (1.055 * light ** (1 / 2.4) - 0.055));
  return `rgb(${code} ${code} ${Math.round(code * 1.08)})`;
};

const calm = () => window.matchMedia('(prefers-reduced-motion: reduce)').matches;

/** Bar and beat as large as the screen allows, a light that keeps to the published limits, and a pendulum. */
export function BeatFace({
  grid,
  timeline,
  seconds,
}: {
  grid: BeatGrid;
  timeline: SlateTimeline;
  seconds: number;
}) {
  const count = countAt(timeline, seconds);
  const before = seconds < timeline.song;
  const over = seconds > timeline.end;
  const song = songTimeAt(timeline, seconds);
  const shown = beatShown(grid, song, beatsPerGlow(grid, timeline.speed));
  const { dark, light } = displayTones;
  const glow = before || over || calm() ? 0 : shown.glow;
  return (
    <div
      className="flex min-h-0 flex-1 flex-col items-center justify-center gap-2 overflow-hidden"
      style={{ background: grey(dark + (light - dark) * glow) }}
      data-testid="beat-face"
      data-bar={before ? '' : shown.bar}
    >
      <span className="num !text-[min(46vw,38vh)] !leading-none !font-bold text-white">
        {over ? '·' : before ? (count ?? '·') : shown.beat}
      </span>
      <span className="text-[22px] font-semibold text-white">
        {over ? 'The passage is over' : before ? (count === null ? 'Ready' : 'Count-in') : `Bar ${shown.bar}`}
      </span>
      <svg width="220" height="26" aria-hidden>
        <line x1="10" y1="13" x2="210" y2="13" stroke="#ffffff" strokeOpacity="0.35" strokeWidth="2" />
        <circle cx={110 + 96 * (before || over ? 0 : shown.swing)} cy="13" r="10" fill="#ffffff" />
      </svg>
    </div>
  );
}
