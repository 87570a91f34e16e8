import { refuse } from '../error';
import { registerFrame } from '../footage/register';
import { cornerMove, scalePlacement, type Placement } from '../geometry/placement';
import type { Size } from '../geometry/size';
import type { RgbaImage } from '../picture/image';
import { cellGrid, readCells } from './cells';
import { colourShift, consensus, lightOf } from './light';
import type { WatchReference } from './reference';
import { standingIn, type Standing } from './standing';

/** What one check measured against the plate. */
export type Reading = Standing & {
  /** in pixels of the delivery */
  placement: Placement;
  /** how far the corner that moved most has moved, delivery pixels */
  move: number;
  /** share of the picture that fits the plate */
  agreement: number;
  /** > 0 where the picture is brighter than the plate */
  stops: number;
  /** median CIEDE2000 of what is still, with the difference in light taken out */
  colour: number;
  /** fine detail against the plate's: 1 is as sharp, less is softer */
  sharpness: number;
};

/**
 * Holds one picture against the plate.
 * @param delivery size that pixels are counted in
 * @throws CoreError `watch.size` where the picture has another shape than the plate
 */
export function readPicture(reference: WatchReference, image: RgbaImage, delivery: Size): Reading {
  const taken = readCells(image);
  const { registered } = reference;
  if (taken.luma.width !== registered.width || taken.luma.height !== registered.height)
    return refuse(
      'watch.size',
      `The plate is ${reference.size.width} × ${reference.size.height}, this picture ${image.width} × ${image.height}. Film the plate again with this camera.`,
    );
  const found = registerFrame(registered, taken.luma);
  const factor = Math.max(delivery.width / registered.width, delivery.height / registered.height);
  const placement = scalePlacement(found, factor);
  const seen = { width: registered.width * factor, height: registered.height * factor };
  const ratios = lightOf(reference, taken.colour);
  const stops = consensus(
    ratios.map(({ all }) => all),
    0.25,
  );
  const { shift, gains } = colourShift(reference, ratios, stops);
  const slip = Math.min(1, (cornerMove(found, registered) / registered.width) * cellGrid.width);
  const { sharp, ...standing } = standingIn(reference, taken, gains, slip);
  return {
    placement,
    move: found.agreement > 0 ? cornerMove(placement, seen) : 0,
    agreement: found.agreement,
    stops,
    colour: shift,
    sharpness: sharp.length >= 12 ? Math.sqrt(consensus(sharp, 0.5)) / 2 ** (stops / 2.2) : 1,
    ...standing,
  };
}
