import { seeded } from '../random';
import type { SoundName } from './sound';

/** Samples a second of every sound here, as of the song. */
export const soundRate = 48_000;

/** Seconds that each lasts. */
const lengths: Record<SoundName, number> = { whoosh: 0.7, thump: 0.45, click: 0.06, riser: 2, cloth: 0.55 };

/** Greatest sample of each, so that they are of one loudness to begin with. */
const peak = 0.9;

/** Noise -1..1, the same each time. */
function noise(seed: number): () => number {
  const random = seeded(seed);
  return () => random() * 2 - 1;
}

/**
 * A band of what goes in, about a middle that may move from sample to sample.
 * @param width of the band as a share of its middle
 * @see state-variable filter in its trapezoidal form (Zavalishin, The Art of VA Filter Design, chapter 4), from memory
 */
function band(width: number): (input: number, hertz: number) => number {
  let [first, second] = [0, 0];
  return (input, hertz) => {
    const g = Math.tan((Math.PI * hertz) / soundRate);
    const high = (input - (width + g) * first - second) / (1 + g * (width + g));
    const middle = g * high + first;
    const low = g * middle + second;
    first = g * high + middle;
    second = g * middle + low;
    return width * middle;
  };
}

/** 0 at the ends, 1 at `top`: a hill over 0..1. */
const hill = (at: number, top: number): number =>
  at < top
    ? Math.sin((Math.PI / 2) * (at / top)) ** 2
    : Math.cos((Math.PI / 2) * ((at - top) / (1 - top))) ** 2;

/** Air that rushes past: its pitch and loudness rise and fall together. */
function whoosh(): (time: number, share: number) => number {
  const [hiss, through] = [noise(11), band(0.9)];
  return (_, share) => {
    const swing = hill(share, 0.55);
    return through(hiss(), 250 + 1900 * swing) * swing;
  };
}

/** Something heavy meets the floor. */
function thump(): (time: number, share: number) => number {
  const [dust, through] = [noise(12), band(0.8)];
  let turn = 0;
  return (time, share) => {
    turn += (2 * Math.PI * (46 + 75 * Math.exp(-time * 28))) / soundRate;
    const body = Math.sin(turn) * Math.min(1, time / 0.004) * Math.exp(-time * 9) * (1 - share ** 4);
    return body + 0.5 * through(dust(), 900) * Math.exp(-time * 120);
  };
}

/** Something small falls into place. */
function click(): (time: number, share: number) => number {
  const [spark, through] = [noise(13), band(0.7)];
  return (time, share) =>
    (Math.sin(2 * Math.PI * 2300 * time) * Math.exp(-time * 170) +
      through(spark(), 3800) * Math.exp(-time * 320)) *
    Math.min(1, time / 0.0005) *
    (1 - share ** 4);
}

/** Tension that grows until it is cut off. */
function riser(): (time: number, share: number) => number {
  const [air, through] = [noise(14), band(0.25)];
  let turn = 0;
  return (_, share) => {
    const hertz = 180 * 2 ** (2.5 * share);
    turn += (2 * Math.PI * hertz) / soundRate;
    const end = Math.min(1, (1 - share) * 160);
    return (0.35 * Math.sin(turn) + through(air(), hertz * 4)) * share ** 2.2 * end;
  };
}

/** Cloth that is thrown: several soft sweeps of high noise. */
function cloth(): (time: number, share: number) => number {
  const [threads, through] = [noise(15), band(1.1)];
  return (time, share) => {
    const folds = 0.55 + 0.45 * Math.sin(2 * Math.PI * 11 * time) * Math.sin(2 * Math.PI * 4.3 * time + 1);
    return through(threads(), 2400 + 2200 * share) * hill(share, 0.35) * folds;
  };
}

const makers = { whoosh, thump, click, riser, cloth };

const made = new Map<SoundName, Float32Array>();

/** One channel of a sound that comes with the bench, at {@link soundRate}; the same each time. */
export function synthesise(name: SoundName): Float32Array {
  const known = made.get(name) ?? make(name);
  made.set(name, known);
  return known;
}

function make(name: SoundName): Float32Array {
  const sampleOf = makers[name]();
  const count = Math.round(lengths[name] * soundRate);
  const out = Float32Array.from({ length: count }, (_, at) => sampleOf(at / soundRate, at / count));
  const greatest = out.reduce((most, value) => Math.max(most, Math.abs(value)), 0);
  return out.map((value) => (value * peak) / greatest);
}
