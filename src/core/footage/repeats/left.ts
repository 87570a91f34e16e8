import { allowed } from '../../finding/allowed';
import { cutGray, type GrayImage } from '../../picture/image';
import { prepareReference } from '../reference';
import { registerFrame } from '../register';

/** parts of a picture, across and down, that are looked at by themselves */
const [across, down] = [3, 2];

/**
 * How far parts of a picture still lie off once all of it was laid on another one: a camera that stands beside its
 * earlier way sees what is near and what is far move against each other, and no movement of the whole picture puts
 * both right.
 * @returns pixels, one for each part that can be told
 */
export function leftInParts(reference: GrayImage, laid: GrayImage): number[] {
  const { width, height } = reference;
  return Array.from({ length: across * down }, (_, part) => {
    const [column, row] = [part % across, Math.floor(part / across)];
    const bounds = {
      left: Math.floor((column * width) / across),
      top: Math.floor((row * height) / down),
      right: Math.floor(((column + 1) * width) / across),
      bottom: Math.floor(((row + 1) * height) / down),
    };
    const found = registerFrame(prepareReference(cutGray(reference, bounds)), cutGray(laid, bounds));
    return found.agreement < allowed.agreement ? NaN : Math.hypot(found.dx, found.dy);
  }).filter((off) => off === off);
}
