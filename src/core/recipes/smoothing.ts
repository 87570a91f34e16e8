import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import { smoothPath, type FreePath, type PathTask, type Smoothing } from '../footage/free-path';
import { meanStep, lastNotAfter } from '../footage/picture-times';
import { moveThrough } from '../footage/steady';
import { mixed, scalePlacement, unpackPlacements, type Placement } from '../geometry/placement';
import type { Moment, Take } from '../model/records';
import {
  mediaIn,
  secondsAt,
  secondsShown,
  withMedia,
  type MediaNode,
  type Node,
  type Transform,
} from '../picture/node';
import { rememberedWith } from '../remember';
import { laysOverPlate } from './built';
import { tapsToFollow } from './follow-point';
import { measuredIn, type ChosenTake, type Material, type MeasuredTake, type Work } from './material';
import type { Recipe } from './recipe';

const smoothOf = (take: Take): number => take.smooth ?? 0;

/**
 * The takes of a moment whose cameras can be smoothed: what is laid over a plate or steadied against one is held to
 * that, and a take of which a point is followed is held by it.
 */
export function smoothableIn(moment: Moment, recipe: Recipe, takes: Material['takes']): Material['takes'] {
  if (laysOverPlate(recipe)) return {};
  const held = recipe.slots
    .filter(({ key, follows }) => follows && tapsToFollow(moment, key).length > 0)
    .map(({ key }) => takes[key]?.take.id);
  const isHeld = (chosen: ChosenTake | null) =>
    held.includes(chosen?.take.id) || (chosen?.take.steady && chosen.comparison);
  return Object.fromEntries(Object.entries(takes).filter(([, chosen]) => !isHeld(chosen)));
}

/** The takes of a moment whose cameras are smoothed. */
const smoothedIn = (takes: Material['takes']): MeasuredTake[] =>
  measuredIn(takes).filter(({ take }) => smoothOf(take) > 0);

/** True where a camera of a moment is smoothed. */
export const smoothsCamera = (takes: Material['takes']): boolean => smoothedIn(takes).length > 0;

const pathWork = (take: Take): string => `path-${take.id}`;

/** How each camera goes that is smoothed. @param tree the moment's picture */
export const pathWorks = (tree: Node, takes: Material['takes']): Work[] =>
  smoothedIn(takes).flatMap(({ take, measure }) => {
    const { media, matrix } = take;
    const shown = secondsShown(mediaIn(tree).filter(({ content }) => content.media === media));
    if (!shown) return [];
    // A second more on either side says where the camera came from, and goes to.
    const from = Math.max(measure.times.first, Math.floor(2 * (shown.from - 1)) / 2);
    const until = Math.min(measure.times.last + 0.05, Math.ceil(2 * (shown.until + 1)) / 2);
    const task = (): PathTask => ({ is: 'path', media, from, until });
    return [
      {
        name: pathWork(take),
        title: 'how the camera moves',
        is: 'path',
        parts: [media, matrix, from, until],
        task,
      },
    ];
  });

const smoothings = rememberedWith<FreePath, Smoothing>();

function smoothingOf({ take }: MeasuredTake, solved: Material['solved']) {
  const answer = solved[pathWork(take)];
  if (answer?.method !== 'path-1' || answer.path.times.length === 0) return null;
  const { path } = answer;
  const smooth = smoothOf(take);
  const smoothing = smoothings(path, [smooth], () =>
    smoothPath(unpackPlacements(path.placements), path.times, path.size, smooth / 100),
  );
  return { path, smoothing };
}

/** so many times as closely a join has to be followed as a camera that is smoothed */
const coarse = 2.5;

/** What smooths a layer's picture, in pixels of its file. */
function moveOf(
  node: MediaNode,
  { times, size }: FreePath,
  { moves, cover }: Smoothing,
  grace: number,
): Transform {
  const factor = node.content.size.width / size.width;
  const at = (seconds: number): Placement => {
    const index = lastNotAfter(times, seconds + (node.content.between ? 0 : grace));
    const next = moves[index + 1];
    if (!node.content.between || !next) return moves[index];
    const share = (seconds - times[index]) / (times[index + 1] - times[index]);
    return mixed(moves[index], next, Math.min(1, Math.max(0, share)));
  };
  const frames = Array.from({ length: Math.max(1, node.until - node.from) }, (_, frame) => {
    const here = scalePlacement(at(secondsAt(node, node.from + frame)), factor);
    return { ...here, scale: cover * here.scale };
  });
  return moveThrough(node.content.size, frames, node.from, false, coarse);
}

/** A picture in which cameras go calmly; the same object where none is smoothed. */
export function withSmoothed(tree: Node, { takes, solved }: Material): Node {
  const known = new Map(
    smoothedIn(takes).flatMap((chosen) => {
      const found = smoothingOf(chosen, solved);
      return found
        ? [[chosen.take.media, { ...found, grace: meanStep(chosen.measure.times) / 2 }] as const]
        : [];
    }),
  );
  if (known.size === 0) return tree;
  return withMedia(tree, (node) => {
    const found = known.get(node.content.media);
    if (!found) return node;
    const { path, smoothing, grace } = found;
    return { ...node, transforms: [moveOf(node, path, smoothing, grace), ...node.transforms] };
  });
}

/** a way is calmer that shakes less than this share of what it did */
const calmer = 0.6;

const smoothTroubles = {
  'smooth.done': ({ take, facts, measured }) =>
    `The camera of ${take} is smoothed: on its way as it was found, corners jump by ${facts.after} px from picture to picture where they jumped by ${facts.before} px, and the picture is enlarged by ${measured}.`,
  'smooth.partly': ({ take, facts, measured, allowed }) =>
    `To be smoothed as asked, ${take} would be enlarged by more than ${allowed}. ${facts.done} % of it are done, by ${measured}: ask for less, or film wider.`,
  'smooth.rough': ({ take, facts }) =>
    `The camera of ${take} is hardly calmer for being smoothed: its corners jump by ${facts.after} px from picture to picture, where they jumped by ${facts.before} px. What blurs or bends within a picture cannot be smoothed.`,
  'smooth.lost': ({ take, at, measured }) =>
    `In ${measured} pictures of ${take} there is nothing to hold on to, first${at} of it: the camera is taken to stand there. Look at them.`,
} satisfies Words;
type SmoothCode = keyof typeof smoothTroubles;
export const smoothWords: Words = smoothTroubles;

/** What smoothing did, and what it cost. */
export function examineSmoothing(moment: Moment, { takes, solved }: Material): Finding<SmoothCode>[] {
  return smoothedIn(takes).flatMap((chosen): Finding<SmoothCode>[] => {
    const found = smoothingOf(chosen, solved);
    if (!found) return [];
    const { path, smoothing } = found;
    const where = { moment: moment.id, take: chosen.take.id };
    const pixels = (value: number) => ((value * chosen.measure.size.width) / path.size.width).toFixed(1);
    const facts = {
      before: pixels(smoothing.shakes.before),
      after: pixels(smoothing.shakes.after),
      done: Math.round(100 * smoothing.done),
    };
    const measured = { value: smoothing.cover - 1, unit: 'share' as const };
    const lost = path.lost.filter((second) => second > path.times[0]);
    const isCalmer = smoothing.shakes.after <= calmer * smoothing.shakes.before;
    const verdict: Finding<SmoothCode> =
      smoothing.done < 1
        ? {
            code: 'smooth.partly',
            severity: 'watch',
            where,
            measured,
            facts,
            allowed: { value: allowed.smoothed - 1, unit: 'share' },
          }
        : isCalmer
          ? { code: 'smooth.done', severity: 'fine', where, measured, facts }
          : { code: 'smooth.rough', severity: 'watch', where, facts };
    if (lost.length === 0) return [verdict];
    return [
      {
        code: 'smooth.lost',
        severity: 'watch',
        where: { ...where, from: lost[0] },
        measured: { value: lost.length, unit: 'count' },
      },
      ...(verdict.severity === 'fine' ? [] : [verdict]),
    ];
  });
}
