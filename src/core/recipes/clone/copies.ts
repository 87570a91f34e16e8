import type { SeamMeasure } from '../../model/measures';
import type { Point } from '../../geometry/size';
import { evenly, pinAnchor } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import type { Slot } from '../slots';
import type { CloneMoment } from './material';

const ordinals = ['third', 'fourth', 'fifth', 'sixth'] as const;

/** The takes of copies beyond the first two; each is named by its instant too. */
export const furtherSlots: readonly Slot[] = ordinals.map((ordinal, index) => ({
  key: `copy-${index + 3}`,
  title: `${ordinal} copy`,
  dye: index % 2 ? 'woad' : 'cochineal',
  keeps: true,
  open: true,
}));

/** as many as stand in one picture at most */
export const mostCopies = 2 + furtherSlots.length;

/** How many of them one moment shows. */
export const copiesOf = ({ settings }: Pick<CloneMoment, 'settings'>): number => settings.copies ?? 2;

/** The further copies of a moment. */
export const furtherOf = (moment: Pick<CloneMoment, 'settings'>): readonly Slot[] =>
  furtherSlots.slice(0, copiesOf(moment) - 2);

/** The beat position on which a further copy appears; spread over what is left while nobody has set it. */
export function positionOfFurther(moment: CloneMoment, slot: string): number {
  const { lands, end, pins = {} } = moment;
  const all = furtherOf(moment);
  const index = all.findIndex(({ key }) => key === slot);
  return pins[slot] ?? evenly(lands, end, index + 1, all.length + 1);
}

/** The instants of the further copies. */
export const furtherAnchors = (moment: CloneMoment, ruler: Ruler): Anchor[] =>
  furtherOf(moment).map(({ key, title }) =>
    pinAnchor(ruler, {
      name: key,
      title: `The ${title} appears on`,
      position: positionOfFurther(moment, key),
      between: [moment.lands - 0.25, moment.end],
      marks: title[0].toUpperCase() + title.slice(1),
    }),
  );

/** The work that finds where a further copy ends. */
export const seamOfFurther = (slot: string): string => `seam-${slot}`;

/** Where a further copy ends, once it was solved. */
export const furtherSeamIn = ({ solved }: Material, slot: string): SeamMeasure | null => {
  const answer = solved[seamOfFurther(slot)];
  return answer?.method === 'seam-7' ? answer.seam : null;
};

/** half of the width of the strip that a further copy shows in until its outline is solved, in shares of the frame */
const strip = 0.12;

/** The outline of a further copy that was drawn by hand; null where none was. */
export const drawnFurther = ({ settings }: Pick<CloneMoment, 'settings'>, slot: string): Point[] | null =>
  settings.seams?.[slot] ?? null;

/** The outline of a further copy: drawn, else solved, else a strip where its take moves; shares of the frame. */
export function ringsOfFurther(
  moment: Pick<CloneMoment, 'settings'>,
  material: Material,
  slot: string,
): Point[][] {
  const drawn = drawnFurther(moment, slot);
  if (drawn) return [drawn];
  const solved = furtherSeamIn(material, slot)?.rings ?? [];
  if (solved.length > 0) return solved;
  const middle = material.takes[slot]?.measure?.motion?.across ?? 0.5;
  const [left, right] = [Math.max(0, middle - strip), Math.min(1, middle + strip)];
  return [
    [
      [left, 0],
      [right, 0],
      [right, 1],
      [left, 1],
    ],
  ];
}
