import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import { coveredCells as cells } from '../footage/presence';
import { windowIn, type Push, type Size } from '../geometry/size';
import type { Moment } from '../model/records';
import type { Material } from './material';
import type { Ruler } from './recipe';

/** A stretch of a picture's width or height, in shares of it. */
type Extent = [from: number, to: number];

/** cells of a column or a row in which something has to stand, so that noise is nobody */
const leastCells = 2;
/** a take in which more than this share changes shows no performer in one place, but dust, rain or another light */
const mostCovered = 0.8;

/** Where somebody ever stands in a take; null where nobody does, or everything changes. */
function standingIn(covered: Uint8Array, of: 'width' | 'height'): Extent | null {
  const [length, across] = of === 'width' ? [cells.width, cells.height] : [cells.height, cells.width];
  const at = (along: number, aside: number) =>
    of === 'width' ? aside * cells.width + along : along * cells.width + aside;
  const there = Array.from({ length }, (_, along) => along).filter(
    (along) =>
      Array.from({ length: across }, (_, aside) => covered[at(along, aside)]).filter(Boolean).length >=
      leastCells,
  );
  if (there.length === 0 || there.length > mostCovered * length) return null;
  return [there[0] / length, (there[there.length - 1] + 1) / length];
}

/** The push, in per cent, that puts the middle of an extent into the middle of a window as wide as `shown`. */
function pushTo([from, to]: Extent, shown: number): number {
  const start = Math.min(1 - shown, Math.max(0, (from + to) / 2 - shown / 2));
  return Math.round((start / ((1 - shown) / 2) - 1) * 100);
}

/** share of where somebody stands that may lie outside the frame unsaid: a hand that swings out, a shadow */
const mostOutside = 0.04;

const framingTroubles = {
  'frame.cuts': ({ facts, measured }) =>
    `${measured} of where they stand lies outside the frame, which shows ${facts.shown} % of what was filmed. Push the frame to them.`,
  'frame.too-wide': ({ facts, measured, allowed }) =>
    `They stand over ${measured} of the picture’s ${facts.of}, and the frame shows ${allowed} of it. Choose another shape in Hand over, show them in panels, or film them closer together.`,
} satisfies Words;
type FramingCode = keyof typeof framingTroubles;
export const framingWords: Words = framingTroubles;

/** Who is cut off by the shape of the film, and where the frame would have to be pushed. */
export function examineFraming(
  moment: Moment,
  { project }: Ruler,
  { takes }: Material,
  slots: readonly string[],
): Finding<FramingCode>[] {
  const filmed = slots.flatMap((slot) => {
    const chosen = takes[slot];
    return chosen?.measure && chosen.comparison ? [{ size: chosen.measure.size, of: chosen.comparison }] : [];
  });
  if (filmed.length === 0) return [];
  const { of, shown, from } = windowIn(filmed[0].size, project);
  if (shown > 1 - mostOutside) return [];
  const all = filmed.flatMap(({ of: { covered } }) => standingIn(covered, of) ?? []);
  if (all.length === 0) return [];
  const extent: Extent = [Math.min(...all), Math.max(...all)];
  const width = extent[1] - extent[0];
  const outside = Math.max(0, from - extent[0]) + Math.max(0, extent[1] - (from + shown));
  if (outside / width <= mostOutside) return [];
  const where = { moment: moment.id };
  const push = pushTo(extent, shown);
  const now = project.push?.[of === 'width' ? 'across' : 'down'] ?? 0;
  const set: Partial<Push> = of === 'width' ? { across: push } : { down: push };
  const fix =
    Math.abs(push - now) < 1
      ? {}
      : { fix: { command: 'frameMoment' as const, args: { moment: moment.id, set } } };
  if (width > shown * (1 + mostOutside))
    return [
      {
        code: 'frame.too-wide',
        severity: 'fix',
        where,
        measured: { value: width, unit: 'share' },
        allowed: { value: shown, unit: 'share' },
        facts: { of },
        ...fix,
      },
    ];
  return [
    {
      code: 'frame.cuts',
      severity: 'fix',
      where,
      measured: { value: outside / width, unit: 'share' },
      facts: { shown: Math.round(shown * 100) },
      ...fix,
    },
  ];
}

/** How much of what was filmed a frame shows, where its shape cuts something off; null where it shows all. */
export function cropOf(material: Material, slots: readonly string[], frame: Size & { push?: Push }) {
  for (const slot of slots) {
    const measure = material.takes[slot]?.measure;
    if (!measure) continue;
    const found = windowIn(measure.size, frame);
    if (found.shown < 0.99) return found;
  }
  return null;
}
