import { median } from '../statistics';
import { isSeen, statureIn, type Pose } from './pose';

/** Somebody in a picture, in shares of it: how far across they are, how far down their eyes, how tall they would be upright. */
export type Body = { across: number; eyes: number; stature: number };

/** Who was found at some seconds of a take, the tallest first. */
export type Bodies = {
  /** width by height of its pictures */
  ratio: number;
  looks: readonly { time: number; bodies: readonly Body[] }[];
};

const eyes = [2, 5];

/** A pose as what two takes are held against each other by; null where an eye or too much else is not seen. @param ratio the picture's width by its height */
export function bodyOf(pose: Pose, ratio: number): Body | null {
  const stature = statureIn(pose, ratio);
  const seen = eyes.map((joint) => pose[joint]).filter(isSeen);
  if (stature === null || seen.length < eyes.length) return null;
  const mean = (of: (joint: { x: number; y: number }) => number) =>
    seen.reduce((sum, joint) => sum + of(joint), 0) / seen.length;
  return { across: mean(({ x }) => x), eyes: mean(({ y }) => y), stature };
}

/** The bodies of some people, the tallest first. @param ratio the picture's width by its height */
export const bodiesOf = (poses: readonly Pose[], ratio: number): Body[] =>
  poses.flatMap((pose) => bodyOf(pose, ratio) ?? []).sort((one, other) => other.stature - one.stature);

/**
 * How whoever is the tallest stands in the middle of all looks: whoever bends once does not change it.
 * @param from and @param until seconds of the take between which looks count
 * @returns null where nobody was found
 */
export function usualBody({ looks }: Bodies, from = -Infinity, until = Infinity): Body | null {
  const tallest = looks
    .filter(({ time }) => time >= from && time <= until)
    .flatMap(({ bodies }) => bodies.slice(0, 1));
  if (tallest.length === 0) return null;
  const middle = (of: (body: Body) => number) => median(tallest.map(of));
  return {
    across: middle(({ across }) => across),
    eyes: middle((body) => body.eyes),
    stature: middle(({ stature }) => stature),
  };
}

/** What tells one body from another: metres by which its eyes are higher, and how many times as tall it is in the picture. */
export type BodyGap = { higher: number; larger: number };

/**
 * Holds two bodies against each other.
 * @param stature metres that the other one is tall; lengths follow from it
 */
export const bodyGap = (one: Body, other: Body, stature: number): BodyGap => ({
  higher: ((other.eyes - one.eyes) * stature) / other.stature,
  larger: one.stature / other.stature,
});
