/**
 * How long ranking takes of one role against takes of the other takes, once they are measured: `npm run bench:pairs`.
 * Takes of 20 s in which somebody walks, looked at twice a second, as takes are kept; with what costs most (contact) too.
 */
import { rankPairs, type PairWeights, type TakeMeasures } from '../src/core/footage/pairs';
import { seeded } from '../src/core/random';
import { median } from '../src/core/statistics';

const size = { width: 96, height: 54 };
const random = seeded(3);

function someTake(id: string): TakeMeasures {
  const [from, to] = [random() * 80, random() * 80];
  const frames = Array.from({ length: 40 }, (_, look) => {
    const frame = new Uint8Array(size.width * size.height);
    const left = Math.round(from + ((to - from) * look) / 39);
    for (let y = 14; y < size.height; y++) frame.fill(1, y * size.width + left, y * size.width + left + 14);
    return frame;
  });
  return {
    id,
    lock: random(),
    light: random() * 0.2,
    body: { across: 0.5, eyes: 0.3 + random() * 0.05, stature: 0.5 },
    presence: { ...size, every: 0.5, frames },
  };
}

let failed = 0;
for (const [takes, allowed] of [
  [30, 1000],
  [150, Infinity],
] as const) {
  const [ones, others] = ['a', 'b'].map((role) =>
    Array.from({ length: takes }, (_, index) => someTake(`${role} ${index}`)),
  );
  const cases: [string, Partial<PairWeights>][] = [
    ['as usual', {}],
    ['contact counted', { contact: 1 }],
  ];
  for (const [name, weights] of cases) {
    const times = Array.from({ length: takes > 100 ? 1 : 5 }, () => {
      const begun = performance.now();
      rankPairs(ones, others, weights);
      return performance.now() - begun;
    });
    const took = median(times);
    if (took > allowed) failed++;
    console.log(
      `${took <= allowed ? 'ok ' : 'NOT'} ${takes} × ${takes} takes, ${name}: ${took.toFixed(0)} ms` +
        (Number.isFinite(allowed) ? ` (allowed ${allowed})` : ''),
    );
  }
}
process.exitCode = failed > 0 ? 1 : 0;
