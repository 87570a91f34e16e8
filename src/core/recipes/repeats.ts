import { allowed } from '../finding/allowed';
import { lastNotAfter, meanStep } from '../footage/picture-times';
import type { Placed } from '../footage/repeats/repeat-track';
import { moveThrough } from '../footage/steady';
import { between, cornerMove, inPlace, unpackPlacements, type Placement } from '../geometry/placement';
import type { Size } from '../geometry/size';
import { plateSlot } from '../model/slots';
import { mediaIn, secondsAt, withMedia, type MediaNode, type Node } from '../picture/node';
import { rememberedWith } from '../remember';
import type { ChosenTake, Material } from './material';

/** True where the camera of a moment's plate moves, and its takes repeat that move. */
export const repeatsMove = ({ takes }: Pick<Material, 'takes'>): boolean => !!takes[plateSlot]?.take.moves;

const unpacked = rememberedWith<Placed, Placement[]>();

/** Where the picture of a take lies that shows at some seconds, against the first picture of the plate. */
function viewIn(placed: Placed, seconds: number): Placement {
  const all = unpacked(placed, [], () => unpackPlacements(placed.placements));
  return all[lastNotAfter(placed.times, seconds)] ?? inPlace;
}

/** What of a moment repeats a move: the take whose camera all others follow, and the plate. */
export type Repeating = {
  lead: MediaNode;
  plate: string;
  /** where the pictures of a file lie that are known */
  views: ReadonlyMap<string, { placed: Placed; grace: number }>;
  /** seconds by which each file's pictures come later than the plate's */
  late: ReadonlyMap<string, number>;
};

/** Null where nothing repeats a move, or that is not known yet. */
export function repeatingIn(tree: Node, { takes }: Pick<Material, 'takes'>, leads: string): Repeating | null {
  const plate = takes[plateSlot];
  const lead = mediaIn(tree).find(({ id }) => id === leads);
  const own = takes[leads]?.comparison?.repeat;
  if (!plate?.take.moves || !plate.measure || !lead || !own) return null;
  const known = Object.values(takes).filter((one): one is ChosenTake => !!one?.comparison?.repeat);
  const grace = ({ measure }: ChosenTake) => (measure ? meanStep(measure.times) / 2 : 0);
  const repeat = ({ comparison }: ChosenTake) => comparison?.repeat as NonNullable<typeof own>;
  return {
    lead,
    plate: plate.take.media,
    views: new Map([
      [plate.take.media, { placed: own.lead, grace: grace(plate) }] as const,
      ...known.map((one) => [one.take.media, { placed: repeat(one).own, grace: grace(one) }] as const),
    ]),
    late: new Map([
      [plate.take.media, 0] as const,
      ...known.map((one) => [one.take.media, repeat(one).late] as const),
    ]),
  };
}

/** How the picture of a layer lies against that of the leading take, on each frame of the layer. */
export function besideLead(node: MediaNode, { lead, views }: Repeating): Placement[] {
  const at = ({ content }: MediaNode, seconds: number): Placement => {
    const view = views.get(content.media);
    return view ? viewIn(view.placed, seconds + view.grace) : inPlace;
  };
  return Array.from({ length: Math.max(1, node.until - node.from) }, (_, index) => {
    const frame = node.from + index;
    return between(at(lead, secondsAt(lead, frame)), at(node, secondsAt(node, frame)));
  });
}

/** The plate where it shows what the leading take does. */
function inTurn(node: MediaNode, { lead, late }: Repeating): MediaNode {
  const by = late.get(lead.content.media) ?? 0;
  const time = lead.content.time.map((key) => ({ ...key, value: key.value - by }));
  return { ...node, content: { ...node.content, time } };
}

/** True for a take that lies beside its plate's move by more than a join hides, and is not to be put right. */
const staysAsFilmed = ({ take, measure, comparison }: ChosenTake, frame: Size): boolean =>
  !take.steady &&
  !!measure &&
  !!comparison &&
  comparison.path.furthest.move *
    Math.max(frame.width / measure.size.width, frame.height / measure.size.height) >
    allowed.move;

/**
 * A picture in which takes that repeat a move lie on one another picture by picture: all of them follow the camera of
 * one, and the plate runs along. The same object where the camera stands.
 * @param leads the slot of the take whose camera all follow; it stays as it was filmed, as what lies too far beside the
 * plate's move does until it is steadied
 */
export function withRepeats(tree: Node, material: Pick<Material, 'takes'>, leads: string, frame: Size): Node {
  const repeating = repeatingIn(tree, material, leads);
  if (!repeating) return tree;
  const asFilmed = new Set(
    Object.values(material.takes).flatMap((one) =>
      one && staysAsFilmed(one, frame) ? [one.take.media] : [],
    ),
  );
  return withMedia(tree, (node) => {
    const { media, size } = node.content;
    if (node.id === leads || !repeating.views.has(media) || asFilmed.has(media)) return node;
    const isPlate = media === repeating.plate;
    const runs = isPlate ? inTurn(node, repeating) : node;
    const back = moveThrough(size, besideLead(runs, repeating), node.from, true);
    return { ...runs, transforms: [back, ...runs.transforms] };
  });
}

/**
 * The frames of a layer on which its camera is by more than some pixels where the plate's never came to: before that
 * one's first picture, or after its last.
 */
export function framesBeyondPlate(node: MediaNode, { plate, views, late }: Repeating, most: number): number {
  const [own, empty] = [views.get(node.content.media), views.get(plate)?.placed];
  if (!own || !empty || empty.times.length === 0) return 0;
  const [first, last] = [empty.times[0] - own.grace, empty.times[empty.times.length - 1] + 3 * own.grace];
  let count = 0;
  for (let frame = node.from; frame < node.until; frame++) {
    const seconds = secondsAt(node, frame) + own.grace;
    const then = seconds - (late.get(node.content.media) ?? 0);
    if (then >= first && then <= last) continue;
    const apart = between(viewIn(empty, then), viewIn(own.placed, seconds));
    if (cornerMove(apart, node.content.size) > most) count++;
  }
  return count;
}
