import type { Point } from '../../geometry/size';
import type { SeamMeasure } from '../../model/measures';
import { evenly, pinAnchor } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import type { CloneMoment } from './material';

/** The instant at which an object changes hands, and what belongs to the join from then on, by one name. */
export const handed = 'handed';

/** The work that finds the join from the hand-over on. */
export const handedWork = 'seam-handed';

/** True where an object goes from one to the other, so that the join moves once. */
export const handsOver = ({ settings }: Pick<CloneMoment, 'settings'>): boolean => settings.way === 'shared';

/** The beat position on which the object changes hands: as set, else half-way. */
export const handedAt = ({ lands, end, pins = {} }: CloneMoment): number =>
  pins[handed] ?? evenly(lands, end, 1, 2);

/** The instant of the hand-over; none where nothing changes hands. */
export const handedAnchors = (moment: CloneMoment, ruler: Ruler): Anchor[] =>
  handsOver(moment)
    ? [
        pinAnchor(ruler, {
          name: handed,
          title: 'The object changes hands on',
          position: handedAt(moment),
          between: [moment.lands, moment.end],
          marks: 'Changes hands',
        }),
      ]
    : [];

/** The frame from which the join of the hand-over holds; null where there is none. */
export function handedFrame(
  moment: CloneMoment,
  ruler: Ruler,
  { lands, end }: { lands: number; end: number },
): number | null {
  const [anchor] = handedAnchors(moment, ruler);
  return anchor ? Math.min(end - 1, Math.max(lands + 1, anchor.frame)) : null;
}

/** The join from the hand-over on, once it was solved. */
export const handedSeam = ({ solved }: Material): SeamMeasure | null => {
  const answer = solved[handedWork];
  return answer?.method === 'seam-7' ? answer.seam : null;
};

/** The outline from the hand-over on that was drawn by hand; null where none was. */
export const drawnHanded = ({ settings }: Pick<CloneMoment, 'settings'>): Point[] | null =>
  settings.seams?.[handed] ?? null;
