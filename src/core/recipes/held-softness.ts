import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import type { SoftnessTask } from '../footage/softness';
import type { Moment } from '../model/records';
import { mediaIn, secondsAt, withMedia, type MediaNode, type Node } from '../picture/node';
import { heldIn, isEvened, sayLayers, type Held } from './held';
import { measuredIn, type Material, type MeasuredTake, type Work } from './material';
import type { Step } from './recipe';

/** seconds of the take that runs from which it is told how sharp it is */
const looked = 0.5;

/** A layer of a take whose picture is held beside one of another take. */
type Beside = { held: Held; still: MeasuredTake; film: MeasuredTake; runs: MediaNode };

/** What is held beside another film than its own, each of their takes once: a take is as sharp as itself. */
function besideOthers(tree: Node, takes: Material['takes']): Beside[] {
  const chosen = measuredIn(takes);
  const of = (node: MediaNode | null) => chosen.find(({ take }) => take.media === node?.content.media);
  return heldIn(tree).flatMap((held) => {
    const { node, runs } = held;
    const [still, film] = [of(node), of(runs)];
    return runs && still && film && still !== film ? [{ held, still, film, runs }] : [];
  });
}

const softnessWork = (still: string, film: string): string => `softness-${still}-${film}`;

/** How sharp what is held is against what runs beside it. @param tree the moment's picture */
export function softnessWorks(tree: Node, takes: Material['takes']): Work[] {
  const works = besideOthers(tree, takes).map(({ held, still, film, runs }): [string, Work] => {
    const { times } = film.measure;
    const name = softnessWork(still.take.id, film.take.id);
    const { media, matrix } = film.take;
    // Whole halves of a second, so that a beat moved a little asks for nothing new.
    const begins = Math.floor(2 * secondsAt(runs, runs.from)) / 2;
    const from = Math.max(times.first, Math.min(begins, times.last - looked));
    const until = from + looked;
    const shown = { media: still.take.media, seconds: secondsAt(held.node, held.node.from) };
    const parts = [media, matrix, from, until, shown, still.take.matrix];
    const task = (): SoftnessTask => ({ is: 'softness', media, from, until, held: shown });
    return [name, { name, title: 'how sharp it is', is: 'softness', parts, task }];
  });
  return [...new Map(works).values()];
}

/** How much sharper what is held is than what runs beside it, in pixels of its own file; null where that is not known. */
function sharperBy({ still, film }: Beside, solved: Material['solved']) {
  const answer = solved[softnessWork(still.take.id, film.take.id)];
  if (answer?.method !== 'softness-1' || !answer.softness) return null;
  const { sharper, across } = answer.softness;
  return Math.abs(sharper) < allowed.softer ? null : { sharper, across };
}

/** A picture in which what is held is no sharper than what runs beside it; the same object where nothing is. */
export function withSoftness(tree: Node, moment: Moment, { takes, solved }: Material): Node {
  if (!isEvened(moment)) return tree;
  const soft = new Map(
    besideOthers(tree, takes).flatMap((one) => {
      const found = sharperBy(one, solved);
      if (!found || found.sharper < 0) return [];
      const { node } = one.held;
      return [[node.id, (found.sharper * node.content.size.width) / found.across] as const];
    }),
  );
  if (soft.size === 0) return tree;
  return withMedia(tree, (node) => {
    const softened = soft.get(node.id);
    return softened ? { ...node, content: { ...node.content, softened } } : node;
  });
}

const softnessTroubles = {
  'softness.evened': ({ facts, take }) =>
    `${facts.layers} held beside ${take}, and was sharper: softened by ${facts.pixels} px of that take, it is as sharp.`,
  'softness.sharper': ({ facts, take }) =>
    `${facts.layers} held beside ${take}, and sharper: ${facts.pixels} px of that take. Where they meet it looks pasted in. Even it out, or focus that take anew.`,
  'softness.softer': ({ facts, take }) =>
    `${facts.layers} held beside ${take}, and softer: ${facts.pixels} px of that take. What is not in a picture cannot be given back: film or photograph it again in focus, as large as the film.`,
} satisfies Words;
type SoftnessCode = keyof typeof softnessTroubles;
export const softnessWords: Words = softnessTroubles;

/** Whether what is held is as sharp as what runs beside it. @param tree the moment's picture */
export function examineSoftness(
  moment: Moment,
  tree: Node,
  { takes, solved }: Material,
): Finding<SoftnessCode>[] {
  const found = besideOthers(tree, takes).flatMap((one) => {
    const off = sharperBy(one, solved);
    return off ? [{ ...one, sharper: off.sharper }] : [];
  });
  const evened = isEvened(moment);
  const pairs = new Map(found.map((one) => [softnessWork(one.still.take.id, one.film.take.id), one]));
  return [...pairs.values()].map(({ film, still, sharper }): Finding<SoftnessCode> => {
    const names = found.flatMap((one) => (one.still === still ? [one.held.node.name] : []));
    const where = { moment: moment.id, take: film.take.id };
    const facts = { layers: sayLayers(names), pixels: Math.abs(sharper).toFixed(1) };
    const args = { moment: moment.id };
    if (sharper < 0) return { code: 'softness.softer', severity: 'watch', where, facts };
    return evened
      ? { code: 'softness.evened', severity: 'fine', where, facts, fix: { command: 'leaveHeld', args } }
      : { code: 'softness.sharper', severity: 'watch', where, facts, fix: { command: 'evenHeld', args } };
  });
}

/** Which layers are softened, as a step of a sheet. @param tree the moment's picture, with what is softened in it */
export function explainSoftness(tree: Node): Step[] {
  const layers = mediaIn(tree).flatMap((node) =>
    node.content.softened ? [{ node, value: node.content.softened }] : [],
  );
  if (layers.length === 0) return [];
  return [
    {
      title: 'Soften what is held',
      text: 'On each layer that is named, before its grain, place and outline: a Gaussian blur. Its radius is the standard deviation, in pixels of the file itself.',
      rows: layers.map(({ node, value }) => ({
        frame: node.from,
        layer: node.name,
        what: 'blur in the file',
        value,
        unit: 'px',
        of: node.content.size.width,
        then: 'stays',
      })),
    },
  ];
}
