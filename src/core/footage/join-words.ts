import { allowed } from '../finding/allowed';
import type { Severity } from '../finding/finding';
import type { FoundJoin, JoinsWanted, MostFilled } from './found-joins';
import type { Join } from './joins';
import type { Pan } from './pan';

/** What is said of where one take goes over into another. */
export type JoinSaid = { severity: Exclude<Severity, 'fix'>; text: string };

/** codes that pictures change by at least: of less, noise and the file's own errors are left */
const leastStep = 1;
/** share of the picture's width a picture by which one that stands may seem to move */
const stands = 0.004;

/** How many times as much changes at a join as from one picture to the next. */
export const jumpOf = ({ cost, step }: Pick<Join, 'cost' | 'step'>): number =>
  cost / Math.max(leastStep, step);

/** Whether a join is seen. @param over pictures over which the one take dissolves into the other; 1 for a cut */
export function sayJump(join: Pick<Join, 'cost' | 'step'>, over: number): JoinSaid {
  const jump = jumpOf(join);
  const much = `what changes there is ${jump.toFixed(1)} times what changes from one picture to the next (allowed ${allowed.jump.toFixed(1)})`;
  if (jump <= allowed.jump) return { severity: 'fine', text: `It is not seen: ${much}.` };
  const instead =
    over > 1
      ? 'Dissolve over more pictures, or let something else move there.'
      : 'Dissolve over some pictures, or let something else move there.';
  return jump <= allowed.jump * allowed.graveJump
    ? { severity: 'watch', text: `It may be seen: ${much}. ${instead}` }
    : { severity: 'stop', text: `It jumps: ${much}. Choose other takes, or film one of them again.` };
}

const degrees = ({ dx, dy }: Pan) => (Math.atan2(dy, dx) * 180) / Math.PI;
const ways = ['right', 'down right', 'down', 'down left', 'left', 'up left', 'up', 'up right'];
const wayOf = (pan: Pan): string => ways[Math.round((degrees(pan) + 360) / 45) % ways.length];

/**
 * Whether both pictures of a join move alike, as they have to where a whip or something that fills the frame hides it.
 * @param width of the delivered picture
 * @returns null where neither of them moves
 */
export function sayPans(one: Pan, other: Pan, width: number): JoinSaid | null {
  const [first, second] = [one, other].map(({ dx, dy }) => Math.hypot(dx, dy));
  const pixels = (share: number) => `${Math.round(share * width)} px a picture`;
  if (first < stands && second < stands) return null;
  if (first < stands || second < stands)
    return {
      severity: 'watch',
      text: `One of them stands while the other moves ${wayOf(first < stands ? other : one)}, ${pixels(Math.max(first, second))}. Take an instant at which both move, or both stand.`,
    };
  const turn = Math.abs(((degrees(other) - degrees(one) + 540) % 360) - 180);
  if (turn > allowed.panTurn)
    return {
      severity: 'stop',
      text: `The first moves ${wayOf(one)} and the second ${wayOf(other)}, ${turn.toFixed(0)}° apart (allowed ${allowed.panTurn}°). It shows as a stumble: film one of them again the other way round.`,
    };
  const faster = Math.max(first, second) / Math.min(first, second);
  return faster > allowed.panSpeed
    ? {
        severity: 'watch',
        text: `Both move ${wayOf(one)}, but one ${faster.toFixed(1)} times as fast (allowed ${allowed.panSpeed}): ${pixels(first)} and ${pixels(second)}. Run the slower one faster, or take another instant.`,
      }
    : { severity: 'fine', text: `Both move ${wayOf(one)}: ${pixels(first)} and ${pixels(second)}.` };
}

/** Whether a set that stands stays where it is. @param off in shares of the picture's width @param width of the delivered one */
export function saySet(off: number, width: number): JoinSaid {
  const pixels = off * width;
  const much = `${pixels.toFixed(1)} px (allowed ${allowed.cutMove.toFixed(1)} px)`;
  if (pixels <= allowed.cutMove)
    return { severity: 'fine', text: `The set stays where it is: it is off by ${much}.` };
  return {
    severity: pixels <= allowed.cutMove * allowed.graveMove ? 'watch' : 'stop',
    text: `The set jumps by ${much}: the camera stood elsewhere. Choose another take or an earlier frame, or cut where the camera moves.`,
  };
}

const percent = (share: number) => `${Math.round(100 * share)} %`;

/** Whether what passes close by hides the cut. @param filled how much of both pictures it covers, 0..1 */
export function sayFilled([first, second]: FoundJoin['filled']): JoinSaid {
  const much = `something covers ${percent(first)} of the first picture and ${percent(second)} of the second (${percent(allowed.fills)} wanted)`;
  return Math.min(first, second) >= allowed.fills
    ? { severity: 'fine', text: `It is hidden: ${much}.` }
    : {
        severity: 'watch',
        text: `The set shows round it: ${much}. Let it pass closer to the lens, or more slowly.`,
      };
}

/** Why there is no picture of a take at which something fills it. */
export const sayUnfilled = (name: string, { picture, share }: MostFilled): string =>
  `Nothing fills the picture of ${name}: ${percent(share)} of it is covered at the most, in frame ${picture}. Let somebody or something pass close to the lens while you film, or look for cuts anywhere.`;

/** All that is said of a join. */
export function sayJoin(
  join: FoundJoin,
  { over, at }: Pick<JoinsWanted, 'over' | 'at'>,
  width: number,
): JoinSaid[] {
  const pans = join.pans && sayPans(...join.pans, width);
  const hidden = at === 'filled' ? [sayFilled(join.filled)] : [];
  // Before a camera that moves, and behind what fills the picture, nobody sees where the set was.
  const isUnseen = pans !== null || hidden.some(({ severity }) => severity === 'fine');
  const set = isUnseen || join.off === null ? null : saySet(join.off, width);
  return [sayJump(join, over), ...hidden, ...(pans ? [pans] : []), ...(set ? [set] : [])];
}

/** The gravest of what is said. */
export const gravestOf = (said: readonly JoinSaid[]): JoinSaid['severity'] =>
  (['stop', 'watch'] as const).find((grave) => said.some(({ severity }) => severity === grave)) ?? 'fine';
