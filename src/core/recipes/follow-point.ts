import type { Finding } from '../finding/finding';
import type { Telling } from '../finding/words';
import { pointReach, type Track, type TrackPoint, type TrackTask } from '../footage/track/track';
import { invertAffine, mapPoint } from '../geometry/affine';
import type { Framed, Point } from '../geometry/size';
import { fillOf, inOrder, tapsOf, type Tap } from '../model/slots';
import { fillFrame } from '../picture/node';
import type { Material, Work } from './material';

type Filled = Parameters<typeof fillOf>[0];

/** The taps on the followed point of a slot's take, by their seconds; in shares of the frame. */
export const tapsToFollow = (moment: Filled, slot: string): Tap[] => inOrder(tapsOf(fillOf(moment, slot)));

/** The work that follows a tapped point through the take of a slot. */
export const trackWork = (slot: string): string => `track-${slot}`;

/** The frame of the film as shares of a take's picture that fills it, and the way back: a picture of another shape is cut off. */
function pictureIn({ takes }: Material, slot: string, frame: Framed) {
  const source = takes[slot]?.measure?.size ?? frame;
  const { matrix } = fillFrame(source, frame);
  const back = invertAffine(matrix);
  return {
    toPicture: ([x, y]: Point): Point => {
      const [px, py] = mapPoint(back, [x * frame.width, y * frame.height]);
      return [px / source.width, py / source.height];
    },
    toFrame: ([x, y]: Point): Point => {
      const [px, py] = mapPoint(matrix, [x * source.width, y * source.height]);
      return [px / frame.width, py / frame.height];
    },
  };
}

/** The taps, in shares of the take's picture. */
const tapsInPicture = (moment: Filled, material: Material, slot: string, frame: Framed): TrackPoint[] =>
  tapsToFollow(moment, slot).map(({ time, at }) => ({
    time,
    at: pictureIn(material, slot, frame).toPicture(at),
  }));

/** Where the point was found, in shares of the take's picture; null while nobody looked. */
export const trackIn = ({ solved }: Pick<Material, 'solved'>, slot: string): Track | null => {
  const answer = solved[trackWork(slot)];
  return answer?.method === 'track-2' ? answer.track : null;
};

/** Where the followed point is in the take's picture, in shares of it: where it was found, else where it was tapped. */
export function followedInPicture(
  moment: Filled,
  material: Material,
  slot: string,
  frame: Framed,
): readonly TrackPoint[] {
  const taps = tapsInPicture(moment, material, slot, frame);
  const found = taps.length > 0 ? (trackIn(material, slot)?.points ?? []) : [];
  return found.length < 2 ? taps : found;
}

/** The same in shares of the frame, as taps are. */
export const followedPoints = (
  moment: Filled,
  material: Material,
  slot: string,
  frame: Framed,
): TrackPoint[] =>
  followedInPicture(moment, material, slot, frame).map(({ time, at }) => ({
    time,
    at: pictureIn(material, slot, frame).toFrame(at),
  }));

/**
 * Where the tapped point is on every picture that shows; nothing where none was tapped.
 * @param shown seconds of the take that show, of which the first and the last count
 */
export function followWork(
  moment: Filled,
  material: Material,
  slot: string,
  frame: Framed,
  shown: readonly number[],
): Work[] {
  const { take, measure } = material.takes[slot] ?? {};
  const taps = tapsInPicture(moment, material, slot, frame);
  if (!take || !measure || taps.length === 0) return [];
  const seconds = [...shown, ...taps.map((tap) => tap.time)];
  // A picture more on either side, and whole tenths, so that a beat moved a little asks for nothing new.
  const from = Math.max(measure.times.first, Math.floor(10 * Math.min(...seconds) - 1) / 10);
  const until = Math.min(measure.times.last + 0.05, Math.ceil(10 * Math.max(...seconds) + 1) / 10);
  const task = (): TrackTask => ({ is: 'track', media: take.media, from, until, taps, reach: pointReach });
  const parts = [take.media, take.matrix, from, until, taps];
  return [{ name: trackWork(slot), title: 'the followed point', is: 'track', parts, task }];
}

type Said = Pick<Finding<'follows' | 'one-tap' | 'lost'>, 'code' | 'severity' | 'measured' | 'facts'>;

/** What is to be said of a followed point: that it was found, on one picture alone, or where it was lost. */
export function examineFollow(moment: Filled, material: Pick<Material, 'solved'>, slot: string): Said[] {
  const taps = tapsToFollow(moment, slot).length;
  const track = taps > 0 ? trackIn(material, slot) : null;
  if (!track || track.points.length === 0) return [];
  if (track.points.length === 1) return [{ code: 'one-tap', severity: 'fix', facts: { slot } }];
  const { points, lost } = track;
  return [
    {
      code: 'follows',
      severity: 'fine',
      measured: { value: points.length, unit: 'count' },
      facts: { taps, slot },
    },
    ...lost.map((second): Said => ({
      code: 'lost',
      severity: 'fix',
      measured: { value: second, unit: 'seconds' },
      facts: { slot },
    })),
  ];
}

/** What {@link examineFollow} found, in words. */
export const followWords = {
  'one-tap': () =>
    'Nothing about the tapped point tells it from what is beside it, so it could not be followed. Tap something with an edge or a corner, or step to other pictures and tap it there too.',
  follows: ({ facts, measured }: Telling) =>
    `The tapped point was found on ${measured} pictures, from ${facts.taps === 1 ? 'one tap' : `${facts.taps} taps`}.`,
  lost: ({ measured }: Telling) =>
    `The followed point is lost ${measured} into the take: something hides it, or it changed. Tap it on a picture after that; in between it is taken to go straight.`,
};
