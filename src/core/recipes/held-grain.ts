import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import type { GrainTask } from '../footage/grain';
import type { Moment } from '../model/records';
import { mediaIn, secondsAt, withMedia, type MediaNode, type Node } from '../picture/node';
import type { Grain } from '../picture/regrain';
import { median } from '../statistics';
import { measuredIn, type Material, type MeasuredTake, type Work } from './material';
import { heldIn, isEvened, sayLayers, type Held } from './held';
import type { KeyframeRow, Step } from './recipe';

/** seconds of a take to each side of an instant from which its grain is told */
const around = 0.25;

const grainWork = (take: string): string => `grain-${take}`;

/** What grain the films have of which a picture stands, and those that run beside it. @param tree the moment's picture */
export function grainWorks(tree: Node, takes: Material['takes']): Work[] {
  const asked = heldIn(tree).flatMap(({ node, runs }) => [node, ...(runs ? [runs] : [])]);
  const first = new Map(asked.map((node) => [node.content.media, node]).reverse() as [string, MediaNode][]);
  return measuredIn(takes).flatMap(({ take, measure: { times } }) => {
    const node = first.get(take.media);
    if (!node) return [];
    const { media, matrix } = take;
    // Whole halves of a second, so that a beat moved a little asks for nothing new.
    const instant = Math.round(2 * secondsAt(node, node.from)) / 2;
    const from = Math.max(times.first, Math.min(instant - around, times.last - 2 * around));
    const until = Math.max(from + 2 * around, times.first + 2 * around);
    return [
      {
        name: grainWork(take.id),
        title: 'the grain',
        is: 'grain' as const,
        parts: [media, matrix, from, until],
        task: (): GrainTask => ({ is: 'grain', media, from, until }),
      },
    ];
  });
}

/** How strong grain is: the deviation in the middle of what bands have. */
const strength = ({ luma }: Grain): number => median(luma);

function grainOf(take: MeasuredTake | undefined, solved: Material['solved']): Grain | null {
  const answer = take && solved[grainWork(take.take.id)];
  return answer?.method === 'grain-1' ? answer.grain : null;
}

/** The grain that a held picture needs, of what runs beside it or else of its own film, and whose it is; null where there is none to be seen. */
function needed({ node, runs }: Held, { takes, solved }: Material): { grain: Grain; take: string } | null {
  const chosen = measuredIn(takes);
  const of = (media: string | undefined) => {
    const take = chosen.find((one) => one.take.media === media);
    const grain = grainOf(take, solved);
    return take && grain ? { grain, take: take.take.id } : null;
  };
  // What it stands beside is what it is seen against.
  const found = of(runs?.content.media) ?? of(node.content.media);
  return found && strength(found.grain) >= allowed.grain ? found : null;
}

/** A picture in which what is held has the grain of what runs; the same object where nothing needs any. */
export function withGrain(tree: Node, moment: Moment, material: Material): Node {
  if (!isEvened(moment)) return tree;
  const grains = new Map(
    heldIn(tree).flatMap((held) => {
      const found = needed(held, material);
      return found ? [[held.node.id, found.grain] as const] : [];
    }),
  );
  if (grains.size === 0) return tree;
  return withMedia(tree, (node) => {
    const grain = grains.get(node.id);
    return grain ? { ...node, content: { ...node.content, grain } } : node;
  });
}

const grainTroubles = {
  'grain.evened': ({ facts, take }) =>
    `${facts.layers} held beside what runs: grain like that of ${take}, ${facts.codes} codes of 255, is laid over it, new in every frame, so that it does not stand out as a still.`,
  'grain.stands': ({ facts, take }) =>
    `${facts.layers} held while the grain of ${take} runs beside it, ${facts.codes} codes of 255: it stands out as a still. Even it out, or film with more light.`,
} satisfies Words;
type GrainCode = keyof typeof grainTroubles;
export const grainWords: Words = grainTroubles;

/** Whether held pictures have the grain of what runs. @param tree the moment's picture */
export function examineGrain(moment: Moment, tree: Node, material: Material): Finding<GrainCode>[] {
  const found = heldIn(tree).flatMap((held) => {
    const need = needed(held, material);
    return need ? [{ ...need, name: held.node.name }] : [];
  });
  if (found.length === 0) return [];
  const strongest = found.reduce((most, one) => (strength(one.grain) > strength(most.grain) ? one : most));
  const evened = isEvened(moment);
  return [
    {
      code: evened ? 'grain.evened' : 'grain.stands',
      severity: evened ? 'fine' : 'watch',
      where: { moment: moment.id, take: strongest.take },
      facts: {
        layers: sayLayers([...new Set(found.map(({ name }) => name))]),
        codes: strength(strongest.grain).toFixed(1),
      },
      fix: { command: evened ? 'leaveHeld' : 'evenHeld', args: { moment: moment.id } },
    },
  ];
}

function rowsOf(node: MediaNode, grain: Grain): KeyframeRow[] {
  const row = (what: string, value: number, unit: KeyframeRow['unit']): KeyframeRow => ({
    frame: node.from,
    layer: node.name,
    what,
    value,
    unit,
    then: 'stays',
  });
  const bands = grain.luma.length;
  const share = (band: number) => (100 * grain.luma[band]) / 255;
  return [
    row('grain in the dark, of full scale', share(Math.floor(bands / 4)), '%'),
    row('grain in the middle, of full scale', share(Math.floor(bands / 2)), '%'),
    row('grain in the light, of full scale', share(bands - 1 - Math.floor(bands / 8)), '%'),
    row('grain of the colours, of full scale', (100 * grain.chroma) / 255, '%'),
    row('softness of the grain in the file', grain.soft, 'px'),
  ];
}

/** Which layers get grain, as a step of a sheet. @param tree the moment's picture, with its grain */
export function explainGrain(tree: Node): Step[] {
  const layers = mediaIn(tree).flatMap((node) =>
    node.content.grain ? [{ node, grain: node.content.grain }] : [],
  );
  if (layers.length === 0) return [];
  return [
    {
      title: 'Give what is held the grain of what runs',
      text: 'On each layer that is named, before its place and outline: normally distributed noise, new in every frame. Its strength is the standard deviation, its softness that of a Gaussian blur of single grains.',
      rows: layers.flatMap(({ node, grain }) => rowsOf(node, grain)),
    },
  ];
}
