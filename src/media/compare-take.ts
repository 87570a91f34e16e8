import { median } from '@/core/statistics';
import { chain, scalePlacement, type Placement } from '@/core/geometry/placement';
import { matchColour, type ColourMatch } from '@/core/footage/colour-match';
import { presenceOf } from '@/core/footage/presence';
import { pictureAt } from '@/core/footage/steady';
import { prepareReference, registerFrame } from '@/core/footage/register';
import type { Comparison, MeasuredTake } from '@/core/model/measures';
import { isCoreError, refuse } from '@/core/error';
import { yuvToRgba } from '@/core/picture/planes';

/** Cells in which a take differs from its plate at any kept still; for judging whether two takes leave room. */
const roomCells = { width: 48, height: 27 };

/**
 * Holds a measured take against its measured plate, from the stills that were kept: nothing is decoded again.
 * @throws CoreError `take.size` where their pictures differ in size
 */
export function compareTake(take: MeasuredTake, plate: MeasuredTake): Comparison {
  if (take.analysis.width !== plate.analysis.width || take.analysis.height !== plate.analysis.height) {
    refuse(
      'take.size',
      'The take and the plate differ in size or are turned. Film or choose both the same way.',
    );
  }
  const reference = prepareReference(plate.stills[plate.stills.length >> 1].luma);
  const chosen = [0, 0.25, 0.5, 0.75, 1].map(
    (share) => take.stills[Math.round(share * (take.stills.length - 1))],
  );
  const offsets = chosen.map((still) => {
    const found = registerFrame(reference, still.luma);
    const own = take.track[pictureAt(take.times, still.time)];
    return {
      dx: found.dx - own.dx,
      dy: found.dy - own.dy,
      rotation: found.rotation - own.rotation,
      scale: found.scale / own.scale,
      agreement: found.agreement,
    };
  });
  const part = (key: keyof Placement) => median(offsets.map((offset) => offset[key]));
  const base: Placement = {
    dx: part('dx'),
    dy: part('dy'),
    rotation: part('rotation'),
    scale: part('scale'),
    agreement: part('agreement'),
  };
  const factor = take.size.width / take.analysis.width;
  const placements = take.track.map((own) => scalePlacement(chain(base, own), factor));
  const plateRgba = yuvToRgba(plate.stills[plate.stills.length >> 1].picture);
  const covered = new Uint8Array(roomCells.width * roomCells.height);
  const colours: ColourMatch[] = [];
  for (const still of take.stills) {
    const picture = yuvToRgba(still.picture);
    if (chosen.includes(still)) {
      try {
        colours.push(matchColour(plateRgba, picture));
      } catch (error) {
        if (!isCoreError(error)) throw error;
      }
    }
    presenceOf(plateRgba, picture, roomCells, 30).forEach((value, cell) => (covered[cell] |= value));
  }
  const colour = colours.sort((a, b) => a.stops - b.stops)[colours.length >> 1] ?? null;
  return { placements, colour, agreement: base.agreement, covered };
}
