import { mostFlashes } from '../safety/flash';
import { barAndBeat, beatOfTime, type BeatGrid } from '../time/grid';

/** What the beat display shows at an instant: `glow` 0..1 between its two tones, `swing` −1..1 of a pendulum. */
type BeatShown = { bar: number; beat: number; glow: number; swing: number };

/** Relative luminance of the display's dark and light tone. */
export const displayTones = { dark: 0.01, light: 0.28 };

/**
 * Every how many beats the display lights up, so that it never does so more often than the published flashes a
 * second, less one: then no uneven beat can step over the limit.
 * @param speed at which the song is played back; 1 is its own
 * @see WCAG 2.2, success criterion 2.3.1
 */
export function beatsPerGlow({ beats, beatsPerBar }: BeatGrid, speed: number): number {
  const shortest = beats.slice(1).reduce((least, time, at) => Math.min(least, time - beats[at]), Infinity);
  const least = 1 / (mostFlashes - 1);
  const wanted = Math.ceil((least * speed) / shortest - 1e-9);
  if (wanted <= 2) return Math.max(1, wanted);
  return Math.ceil(wanted / beatsPerBar) * beatsPerBar;
}

/**
 * The beat at a time of the song, to perform to. The display lights up and fades until it lights up again; the
 * pendulum reaches a side on every beat, which needs no flash.
 * @param every how many beats between two lights, from {@link beatsPerGlow}
 */
export function beatShown(grid: BeatGrid, seconds: number, every: number): BeatShown {
  const position = beatOfTime(grid, seconds);
  const whole = Math.floor(position + 1e-6);
  const { bar, beat } = barAndBeat(grid, whole);
  const share = (((position + 1e-6) % every) + every) % every;
  return {
    bar,
    beat: Math.floor(beat),
    glow: Math.max(0, 1 - (share / every) * 1.6),
    swing: Math.cos(Math.PI * position),
  };
}
