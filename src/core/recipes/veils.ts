import type { Finding } from '../finding/finding';
import type { Words } from '../finding/words';
import type { VeilTask, VeilTrack } from '../footage/veil';
import { hiddenIn, type Hidden } from '../model/hidden';
import type { Moment, Take } from '../model/records';
import { fewestKeyframes } from '../motion/keyframes';
import { mediaIn, secondsAt, secondsShown, withMedia, type MediaNode, type Node } from '../picture/node';
import { spotsAt, type Spot, type Veil, type VeilPlace } from '../picture/veil';
import { trackRows } from './explain-node';
import { measuredIn, type Material, type Work } from './material';
import type { KeyframeRow, Step } from './recipe';

/** seconds beside what a moment shows of a take in which a tap on somebody still says where they are */
const reachable = 10;

/** Somebody who is hidden in a take, as far as a moment shows them. */
export type HiddenHere = {
  take: Take;
  id: string;
  hidden: Hidden;
  /** the taps that lie near what shows, by their time */
  taps: Hidden['taps'];
  /** seconds of the take that show, and the taps */
  from: number;
  until: number;
};

/** True where somebody is hidden in a take of a moment. */
export const hidesSomebody = (takes: Material['takes']): boolean =>
  Object.values(takes).some((chosen) => chosen && hiddenIn(chosen.take).length > 0);

/** Everybody who is hidden in the takes of a moment. @param tree its picture */
export function hiddenHere(tree: Node, takes: Material['takes']): HiddenHere[] {
  if (!hidesSomebody(takes)) return [];
  const nodes = mediaIn(tree);
  return measuredIn(takes).flatMap(({ take, measure }) => {
    const shown = secondsShown(nodes.filter(({ content }) => content.media === take.media));
    if (!shown) return [];
    return hiddenIn(take).map(({ id, hidden }) => {
      const taps = hidden.taps
        .filter(({ time }) => time >= shown.from - reachable && time <= shown.until + reachable)
        .sort((one, other) => one.time - other.time);
      const seconds = [shown.from, shown.until, ...taps.map(({ time }) => time)];
      // Some pictures more on either side, and whole tenths, so that a beat moved a little asks for nothing new.
      const from = Math.max(measure.times.first, Math.floor(10 * Math.min(...seconds) - 1) / 10);
      const until = Math.min(measure.times.last + 0.05, Math.ceil(10 * Math.max(...seconds) + 1) / 10);
      return { take, id, hidden, taps, from, until };
    });
  });
}

/** The work that follows somebody who is hidden. */
export const veilWork = (id: string): string => `veil-${id}`;
export const isVeilWork = (name: string): boolean => name.startsWith(veilWork(''));

/** Where everybody is who is hidden in a moment. */
export const veilWorks = (here: readonly HiddenHere[]): Work[] =>
  here
    .filter(({ taps }) => taps.length > 0)
    .map(({ take: { media, matrix }, id, hidden: { reach }, taps, from, until }) => ({
      name: veilWork(id),
      title: 'who is hidden',
      is: 'veil',
      parts: [media, matrix, from, until, taps, reach],
      task: (): VeilTask => ({ is: 'veil', media, from, until, taps, reach }),
    }));

function trackOf(solved: Material['solved'], id: string): VeilTrack | null {
  const answer = solved[veilWork(id)];
  return answer?.method === 'veil-1' ? answer.veil : null;
}

/** Where somebody is hidden: where they were found, until then where they were tapped; null where neither is near. */
function veilOf({ id, hidden, taps }: HiddenHere, solved: Material['solved']): Veil | null {
  const found = trackOf(solved, id)?.places ?? [];
  const tapped = taps.map((tap): VeilPlace => ({ ...tap, reach: hidden.reach }));
  const places = found.length > 0 ? found : tapped;
  return places.length > 0 ? { covers: hidden.covers, places } : null;
}

/** A picture in which nobody shows who is hidden; the same object where nobody is. */
export function withVeils(tree: Node, { takes, solved }: Material): Node {
  const byMedia = new Map<string, Veil[]>();
  for (const one of hiddenHere(tree, takes)) {
    const veil = veilOf(one, solved);
    if (veil) byMedia.set(one.take.media, [...(byMedia.get(one.take.media) ?? []), veil]);
  }
  if (byMedia.size === 0) return tree;
  return withMedia(tree, (node) => {
    const veils = byMedia.get(node.content.media);
    return veils ? { ...node, content: { ...node.content, veils } } : node;
  });
}

const veilTroubles = {
  'veil.hidden': ({ take, facts, measured }) =>
    `Somebody in ${take} is hidden on all that shows: found on ${measured} pictures. In ${facts.met} of ${facts.looks} pictures that were looked at again, a face lay under the veil.`,
  'veil.unchecked': ({ take, facts, measured }) =>
    `Somebody in ${take} is hidden: found on ${measured} pictures by what they look like. ${facts.looks === 0 ? 'What finds people is not in this browser' : `In only ${facts.met} of ${facts.looks} pictures a face was found there by itself`}, so nothing else says that the veil lies where it should: play it once and look.`,
  'veil.one-picture': ({ take }) =>
    `Somebody who is hidden in ${take} could not be followed from where they were tapped, and is hidden there alone. Tap them again on further pictures.`,
  'veil.lost': ({ take, at }) =>
    `Somebody who is hidden in ${take} is lost${at} of it. Until they are found again the veil only guesses, and grows: tap them again on a picture after that.`,
  'veil.beside': ({ take, at }) =>
    `Close to the veil in ${take} another face was found${at} of it. Look whether the veil stays on the right one: if not, tap them there and after it.`,
  'veil.again': ({ take, at }) =>
    `Somebody who is hidden in ${take} was lost, and a face was found near there${at} of it. Look whether that is the same person: if not, tap them there and after it.`,
  'veil.elsewhere': ({ take }) =>
    `Somebody is hidden in another part of ${take}, too far away to be followed to this one. If they show here, tap them here too.`,
} satisfies Words;
type VeilCode = keyof typeof veilTroubles;
export const veilWords: Words = veilTroubles;

/** True where somebody who is hidden may be known all the same: that is said again where a film is handed over. */
export const mayBeKnown = ({ code, severity }: Finding): boolean =>
  code in veilTroubles && severity !== 'fine';

function examineOne(
  { take, taps }: HiddenHere,
  track: VeilTrack | null,
  moment: string,
): Finding<VeilCode>[] {
  const where = { moment, take: take.id };
  if (taps.length === 0) return [{ code: 'veil.elsewhere', severity: 'watch', where }];
  if (!track) return [];
  const { places, lost, looks, met, beside, again } = track;
  if (places.length < 2) return [{ code: 'veil.one-picture', severity: 'fix', where }];
  const at = (code: VeilCode, severity: 'fix' | 'watch') => (from: number) => ({
    code,
    severity,
    where: { ...where, from },
  });
  const troubles = [
    ...lost.map(at('veil.lost', 'fix')),
    ...beside.slice(0, 1).map(at('veil.beside', 'watch')),
    ...again.slice(0, 1).map(at('veil.again', 'watch')),
  ];
  if (troubles.length > 0) return troubles;
  const measured = { value: places.length, unit: 'count' as const };
  const facts = { looks: looks ?? 0, met };
  // Where a face is found in less than every second picture, nothing but what they look like says where they are.
  if (met < (looks ?? 0) / 2 || !looks)
    return [{ code: 'veil.unchecked', severity: 'watch', where, measured, facts }];
  return [{ code: 'veil.hidden', severity: 'fine', where, measured, facts }];
}

/** Whether everybody who is hidden in a moment's takes is hidden all the time. @param tree its picture */
export const examineVeils = (moment: Moment, tree: Node, { takes, solved }: Material): Finding<VeilCode>[] =>
  hiddenHere(tree, takes).flatMap((one) => examineOne(one, trackOf(solved, one.id), moment.id));

const covered = ({ across, down }: Spot) => (across === down ? 'a face' : 'somebody');

/** The veils over one layer, in pixels of its file. */
function rowsOf(node: MediaNode): KeyframeRow[] {
  const { veils = [], size } = node.content;
  const spots = Array.from({ length: Math.max(1, node.until - node.from) }, (_, frame) =>
    spotsAt(veils, secondsAt(node, node.from + frame), size),
  );
  return veils.flatMap((_, index) => {
    const mine = spots.map((one) => one[index]);
    const layer = `${node.name}, veil ${index + 1} over ${covered(mine[0])}`;
    const rows = (what: string, value: (spot: Spot) => number, of: number) =>
      trackRows(layer, what, fewestKeyframes(mine.map(value), node.from, 1), 'px', (raw) => raw, of);
    return [
      ...rows('middle in the file, across', ({ x }) => x, size.width),
      ...rows('middle in the file, down', ({ y }) => y, size.height),
      ...rows('width in the file', ({ across }) => 2 * across, size.width),
      ...rows('height in the file', ({ down }) => 2 * down, size.height),
    ];
  });
}

/** Whom to hide, as a step of a sheet. @param tree the moment's picture, with its veils */
export function explainVeils(tree: Node): Step[] {
  const layers = mediaIn(tree).filter(({ content }) => content.veils);
  if (layers.length === 0) return [];
  return [
    {
      title: 'Hide who did not agree',
      text: 'On each layer that is named, before its speed, place and outline: an ellipse over the person, in which the picture is reduced to 4 × 4 mean colours. Places and sizes count in pixels of the file itself; they are right to a pixel of it. The files that go along are as they were filmed: hide in them too whatever you hand on.',
      rows: layers.flatMap(rowsOf),
    },
  ];
}
