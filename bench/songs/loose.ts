/**
 * Music that plays loosely in the styles of `styles`: other patterns, kits, instruments and loudness each time. A
 * tracker's model learns from it; what is kept aside is not played here.
 */
import { seeded } from '../../src/core/random';
import { drum, styles, writeSong, type Row, type Style, type WrittenSong } from './styles';

const { kick, snare, rim, clap, hat, openHat, ride, crash, shaker } = drum;
const kits = [0, 0, 0, 8, 16, 24, 25, 32, 40];
const basses = [32, 33, 34, 35, 36, 37, 38, 39, 87];
const chordSounds = [
  0, 1, 4, 5, 16, 18, 24, 25, 26, 27, 28, 29, 30, 30, 29, 48, 50, 61, 62, 80, 81, 88, 89, 90, 94,
];
const leads = [0, 11, 12, 22, 27, 29, 30, 40, 52, 56, 61, 65, 66, 68, 71, 73, 75, 80, 81, 84];

/** Styles that nothing is learned from, so that a mean says how it goes on music of another kind. */
export const unlearned = [
  'house without a kick at first',
  'snare on every and, kicks between',
  'boom bap',
  'two-step',
  'one drop',
  'twelve-eight',
  'sung without drums',
  'clave',
];

/** One song, other each time: a style whose patterns were changed, with one or two others beside it. */
export function looseSong(number: number, seconds: number): WrittenSong {
  const next = seeded(number * 6151 + 11);
  const pick = <T>(from: readonly T[]): T => from[Math.floor(next() * from.length)];
  const learned = styles.filter(({ name }) => !unlearned.includes(name));
  const chance = (share: number) => next() < share;
  const scatter = (style: Style, likely: (step: number) => number) =>
    Array.from({ length: style.meter * style.grid }, (_, step) =>
      chance(likely(step)) ? (chance(0.5) ? 'X' : 'x') : '.',
    ).join('');
  const inBeat = (style: Style, letters: Record<number, string>) =>
    Array.from({ length: style.meter * style.grid }, (_, step) => letters[step % style.grid] ?? '.').join('');

  const half = (style: Style) => (style.grid % 2 === 0 ? style.grid / 2 : style.grid - 1);
  const everyBeat = (style: Style) => inBeat(style, { 0: 'x' });
  const eighths = (style: Style) => inBeat(style, { 0: 'x', [half(style)]: 'x' });
  const steps = (style: Style) => 'x'.repeat(style.meter * style.grid);
  const offBeats = (style: Style) => inBeat(style, { [half(style)]: 'x' });
  const onBeats = (style: Style, on: readonly number[]) =>
    Array.from({ length: style.meter * style.grid }, (_, step) =>
      step % style.grid === 0 && on.includes(step / style.grid) ? 'X' : '.',
    ).join('');
  const kicks = (style: Style) =>
    scatter(style, (step) =>
      step === 0 ? 0.85 : step % style.grid === 0 ? 0.35 : step % style.grid === half(style) ? 0.3 : 0.12,
    );
  const snares = (style: Style) =>
    pick([
      onBeats(style, style.meter === 3 ? [1, 2] : [1, 3]),
      onBeats(style, style.meter === 3 ? [2] : [1, 3]),
      onBeats(style, [Math.floor(style.meter / 2)]),
      offBeats(style).toUpperCase(),
      everyBeat(style).toUpperCase(),
      scatter(style, (step) => (step % style.grid ? 0.12 : 0.3)),
    ]);
  const rhythm = (style: Style, drums: readonly Row[]) => {
    const kicked = drums.find(({ note }) => note === kick)?.steps ?? kicks(style);
    const density = 0.2 + 0.4 * next();
    return pick([
      kicked,
      eighths(style),
      everyBeat(style),
      steps(style),
      offBeats(style),
      onBeats(style, [0]),
      onBeats(style, [0, 2]),
      scatter(style, () => density),
      scatter(style, (step) => (step === 0 ? 0.9 : density)),
      'x..'.repeat(style.meter * style.grid).slice(0, style.meter * style.grid),
    ]);
  };

  const loosened = (style: Style): Style => {
    const changed = (rows: readonly Row[]): Row[] => {
      const out = rows.map((row) =>
        row.note === kick && chance(0.55)
          ? { ...row, steps: kicks(style) }
          : (row.note === snare || row.note === rim || row.note === clap) && chance(0.25)
            ? { ...row, steps: snares(style) }
            : row,
      );
      if (chance(0.6)) {
        const rest = out.filter(({ note }) => ![hat, openHat, ride, crash, shaker].includes(note));
        const timing = pick([everyBeat, eighths, eighths, steps, offBeats])(style);
        const accents = chance(0.4)
          ? [...timing].map((one, step) => (one === 'x' && step % style.grid === 0 ? 'X' : one)).join('')
          : timing;
        return [...rest, { note: pick([hat, hat, hat, openHat, ride, ride, crash, shaker]), steps: accents }];
      }
      return out;
    };
    const first = changed(style.drums[0]);
    const drums = chance(0.5) ? [first] : [first, first, first, changed(first)];
    const loudness = (low: number, high: number) => low + (high - low) * next();
    return {
      ...style,
      drums,
      bass: chance(0.4) ? style.bass : rhythm(style, first),
      chords: chance(0.35) ? style.chords : rhythm(style, first),
      sounds: { bass: pick(basses), chords: pick(chordSounds), lead: pick(leads) },
      riff: chance(0.3)
        ? style.riff
        : Array.from({ length: pick([3, 5, 6, 7, 8, 12, 16, 16, 16, 24]) }, () =>
            chance(0.45) ? 'x' : '.',
          ).join(''),
      always: chance(0.4),
      bare: chance(0.3) ? 0.5 * next() : 0.05,
      kit: pick(kits),
      ahead: chance(0.12) ? 0.5 : 0,
      mix: [loudness(0.6, 1.1), loudness(0.4, 1.2), loudness(0.4, 1.3), loudness(0.5, 1.4)],
      struck: {
        [kick]: loudness(0.6, 1.15),
        [snare]: loudness(0.6, 1.15),
        [hat]: loudness(0.5, 1.3),
        [ride]: loudness(0.5, 1.3),
      },
    };
  };

  const inMeter = (style: Style, meter: number): Style => {
    const fit = (steps: string) => steps.repeat(4).slice(0, meter * style.grid);
    return {
      ...style,
      meter,
      drums: style.drums.map((rows) => rows.map((row) => ({ ...row, steps: fit(row.steps) }))),
      bass: fit(style.bass),
      chords: fit(style.chords),
    };
  };
  const chosen = pick(learned);
  const base = chance(0.05) && chosen.meter === 4 ? inMeter(chosen, pick([5, 7])) : chosen;
  const style: Style = {
    ...base,
    bpm: [base.bpm[0] * 0.9, base.bpm[1] * 1.1],
    swing: chance(0.15) && base.grid === 4 ? 0.33 * next() : base.swing,
  };
  const alike = learned.filter(({ meter, grid }) => meter === style.meter && grid === style.grid);
  const partners = alike.length > 0 ? alike : [style];
  const others = Array.from({ length: chance(0.5) ? 2 : 1 }, () =>
    loosened(chance(0.6) ? style : { ...pick(partners), sounds: style.sounds }),
  );
  return writeSong(loosened(style), number, others, seconds);
}
