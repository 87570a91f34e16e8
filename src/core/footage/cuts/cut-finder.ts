import { refuse } from '../../error';
import { median } from '../../statistics';
import type { Pass } from '../../pass';
import type { RgbaImage } from '../../picture/image';
import { lookAt, otherColours, unlike, type Look } from './look';

/** Something that joins two shots of a film, or strikes within one. */
export type FilmEvent = {
  /** a cut's first picture, a flash's first bright one, or the middle of a dissolve; counted from 0 */
  frame: number;
  kind: 'cut' | 'dissolve' | 'flash';
  /** 0..1 */
  strength: number;
};

/** how unlike two pictures beside each other are at least where one shot ends, and against what is usual round them; by trial */
const [leastCut, overUsual] = [0.4, 1.7];
/** pictures to each side that tell what is usual: in a whip all are unlike */
const around = 3;

/** codes of light by which a flash is brighter than what is before it, how many times what is usual round it that is, and the seconds that it lasts at most */
const [leastFlash, overFlicker, longestFlash] = [24, 3, 0.25];
/** pictures to each side that tell how much the light flickers */
const flickers = 12;
/** share of its light that is gone again after it, and how unlike what was before it the picture is then at the most */
const [fades, returns] = [0.6, 0.45];

/** seconds that a dissolve lasts, from the shortest to the longest that are told from cuts and slow changes */
const lengths = [0.25, 0.4, 0.6, 0.85, 1.2, 1.6];
/** share of the change between its ends by which the picture in its middle may differ from the mean of both, and how unlike its ends are at least */
const [mostOff, leastDissolve] = [0.07, 0.4];

/** How unlike two pictures are, in what they show and in their colours. */
const apart = (one: Look, two: Look): number => unlike(one, two) + 0.7 * otherColours(one, two);

/** The last bright picture of a flash that begins with one; null where none does. */
function flashFrom(looks: readonly Look[], first: number, longest: number): number | null {
  const before = looks[first - 1];
  const rise = looks[first].light - before.light;
  if (rise < leastFlash) return null;
  const near = looks.slice(Math.max(0, first - flickers), first + flickers);
  const usual = median(near.slice(1).map(({ light }, index) => Math.abs(light - near[index].light)));
  if (rise < overFlicker * usual) return null;
  for (let after = first + 1; after <= Math.min(looks.length - 1, first + longest); after++) {
    const now = looks[after];
    const bright = looks[after - 1];
    // The same place in more light, or so much light that nothing is left of it; a short shot of another place is neither.
    if (unlike(before, bright) > returns && bright.contrast > 0.4 * before.contrast) return null;
    if (now.light - before.light < (1 - fades) * rise) return apart(before, now) < returns ? after - 1 : null;
  }
  return null;
}

/** Mean square by which the middle one of three pictures differs from the mean of the others, as a share of the change between those. */
function offTheMean(one: Look, middle: Look, two: Look): number {
  const half = (one.light + two.light) / 2 - middle.light;
  const change = two.light - one.light;
  let [off, all] = [0, 0];
  for (let cell = 0; cell < one.cells.length; cell++) {
    const [a, b] = [one.cells[cell], two.cells[cell]];
    off += ((a + b) / 2 - middle.cells[cell] + half) ** 2;
    all += (b - a + change) ** 2;
  }
  return off / (all + 60 * one.cells.length);
}

type Mix = { from: number; until: number; unlike: number; off: number };

/** Stretches of pictures that go over from their first to their last as one picture fades into another. @param barred true for pictures that are part of another event */
function mixesIn(
  looks: readonly Look[],
  rate: number,
  barred: (from: number, until: number) => boolean,
): Mix[] {
  const found: Mix[] = [];
  for (const seconds of lengths) {
    const half = Math.max(2, Math.round((seconds * rate) / 2));
    for (let middle = half; middle + half < looks.length; middle++) {
      const [from, until] = [middle - half, middle + half];
      const off = offTheMean(looks[from], looks[middle], looks[until]);
      if (off > mostOff || barred(from, until)) continue;
      const quarter = Math.round(half / 2);
      if (offTheMean(looks[from], looks[from + quarter], looks[from + 2 * quarter]) > 3 * mostOff) continue;
      const ends = apart(looks[from], looks[until]);
      if (ends > leastDissolve) found.push({ from, until, unlike: ends, off });
    }
  }
  const value = ({ unlike: ends, off }: Mix) => ends * (1 - off / mostOff);
  return found.sort((one, other) => value(other) - value(one));
}

/** The events of a film whose pictures are all known. @param steps how unlike each picture is from the one before it */
function eventsIn(looks: readonly Look[], steps: readonly number[], rate: number): FilmEvent[] {
  const events: FilmEvent[] = [];
  const taken = new Uint8Array(looks.length + 1);
  const longest = Math.max(1, Math.round(longestFlash * rate));
  for (let frame = 1; frame < looks.length; frame++) {
    const last = flashFrom(looks, frame, longest);
    if (last === null) continue;
    const rise = looks[frame].light - looks[frame - 1].light;
    events.push({ frame, kind: 'flash', strength: Math.min(1, rise / 120) });
    taken.fill(1, frame, last + 2);
    frame = last + 1;
  }
  for (let frame = 1; frame < looks.length; frame++) {
    if (taken[frame]) continue;
    const near = steps
      .slice(Math.max(1, frame - around), frame)
      .concat(steps.slice(frame + 1, frame + around + 1));
    const usual = near.length > 0 ? median(near) : 0;
    if (steps[frame] < leastCut || steps[frame] < overUsual * usual + 0.1) continue;
    events.push({ frame, kind: 'cut', strength: Math.min(1, steps[frame] - usual) });
  }
  for (const { frame } of events) taken[frame] = 1;
  const barred = (from: number, until: number) => taken.subarray(from + 1, until + 1).includes(1);
  for (const { from, until, unlike: ends } of mixesIn(looks, rate, barred)) {
    if (barred(from, until)) continue;
    events.push({ frame: Math.round((from + until) / 2), kind: 'dissolve', strength: Math.min(1, ends) });
    taken.fill(1, from, until + 1);
  }
  return events.sort((one, other) => one.frame - other.frame);
}

/**
 * Finds where a film's shots meet: cuts, dissolves, and flashes within them. Whips, flicker and whoever crosses the
 * picture are none.
 * @param rate pictures a second
 * @returns what was found, rising by frame
 * @throws CoreError `rate`, and `sizes-differ` for a picture of another size than the first
 * @see Lienhart 1999 (comparison of shot boundaries by what is unlike); the limits are set by trial on made-up films
 */
export function cutFinder(rate: number): Pass<RgbaImage, FilmEvent[]> {
  if (!(rate > 0 && rate < 1000)) refuse('rate', 'This film says no usable frame rate. Export it again.');
  const looks: Look[] = [];
  const steps: number[] = [];
  let size: { width: number; height: number } | null = null;
  return {
    push(picture) {
      const { width, height } = picture;
      if (size && (size.width !== width || size.height !== height))
        refuse('sizes-differ', 'The pictures of this film have different sizes. Export it again.');
      size = { width, height };
      const look = lookAt(picture);
      const before = looks.at(-1);
      steps.push(before ? apart(before, look) : 0);
      looks.push(look);
    },
    finish: () => eventsIn(looks, steps, rate),
  };
}
