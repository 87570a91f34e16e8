import { barAndBeat, type BeatGrid } from '../time/grid';

/** A click: seconds, and whether it is the first of a bar. */
export type Click = { time: number; accent: boolean };

/** A click on every beat between two times, seconds. */
export const clicksOf = (grid: BeatGrid, from: number, to: number): Click[] =>
  grid.beats.flatMap((time, index) =>
    time >= from - 1e-6 && time < to
      ? [{ time, accent: barAndBeat(grid, index - grid.firstDownbeat).beat === 1 }]
      : [],
  );

/** Shortest time in which a number can be spoken. Common practice, no published source. */
const spoken = 0.38;

/**
 * The counts before a passage, as clicks that end a beat before it begins: a bar, or more where the tempo is so
 * fast that only every second or fourth beat can be spoken.
 * @param beat seconds of a beat as it is played back
 * @returns clicks from 0, and the seconds until the passage begins
 */
export function countIn(beat: number, beatsPerBar: number): { clicks: Click[]; length: number } {
  const every = beat >= spoken ? 1 : beat * 2 >= spoken ? 2 : 4;
  const counts = Math.max(4, beatsPerBar);
  const clicks = Array.from({ length: counts }, (_, count) => ({
    time: count * every * beat,
    accent: count === 0,
  }));
  return { clicks, length: counts * every * beat };
}

/**
 * Clicks as sound, -1..1: a short high tick, higher and louder on the first of a bar.
 * @param frames samples that it lasts
 * @param sampleRate samples a second
 */
export function soundOfClicks(clicks: readonly Click[], frames: number, sampleRate: number): Float32Array {
  const out = new Float32Array(frames);
  for (const { time, accent } of clicks) {
    const from = Math.round(time * sampleRate);
    const hz = accent ? 1760 : 1175;
    const length = Math.min(frames - from, Math.round(sampleRate * 0.05));
    for (let at = Math.max(0, -from); at < length; at++) {
      const t = at / sampleRate;
      out[from + at] += (accent ? 0.8 : 0.5) * Math.sin(2 * Math.PI * hz * t) * Math.exp(-t * 90);
    }
  }
  return out;
}

/** Hertz of a beep for lining up, and its seconds: a picture at 24 a second. Common practice, no published source. */
export const [beepPitch, beepLength] = [1000, 1 / 24];

/** Lays a beep for lining up into sound, beginning on its sample. */
export function layBeep(sound: Float32Array, time: number, sampleRate: number): void {
  const from = Math.round(time * sampleRate);
  const length = Math.min(sound.length - from, Math.round(sampleRate * beepLength));
  for (let at = 0; at < length; at++)
    sound[from + at] = 0.8 * Math.sin((2 * Math.PI * beepPitch * at) / sampleRate);
}
