import { describe, expect, it } from 'vitest';
import { KeptPictures, mostKept } from './kept-pictures';

const pictureOf = () => {
  const picture = { open: true, width: 1, height: 1, close: () => void (picture.open = false) };
  return picture;
};

describe('kept pictures', () => {
  it('keeps no more than its number, and lets go of the oldest first', () => {
    const kept = new KeptPictures();
    const pictures = Array.from({ length: mostKept + 3 }, pictureOf);
    pictures.forEach((picture, frame) => kept.keep(frame, picture));
    expect(pictures.map((picture) => picture.open)).toEqual(pictures.map((_, frame) => frame >= 3));
    expect(kept.at(2)).toBeNull();
    expect(kept.at(3)).toBe(pictures[3]);
  });

  it('lets go of all as soon as something else is shown, and of none while it is the same', () => {
    const kept = new KeptPictures();
    const [one, other] = [{}, {}];
    const picture = pictureOf();
    kept.about(one, null, 'key');
    kept.keep(7, picture);
    kept.about(one, null, 'key');
    expect(kept.at(7)).toBe(picture);
    kept.about(one, other, 'key');
    expect(kept.at(7)).toBeNull();
    expect(picture.open).toBe(false);
  });
});
