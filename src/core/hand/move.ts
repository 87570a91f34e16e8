import type { Moment, Project } from '../model/records';
import { coverScale, type Move } from '../motion/edge-cover';
import { fewestKeyframes, still, turnsOf, valueAt, type Track } from '../motion/keyframes';
import { swayAt } from '../motion/filmed-sway';
import { swayOf } from '../motion/sway';
import { groupOf, nodesIn, type Node, type Transform } from '../picture/node';
import { timeOfFrame } from '../time/rate';
import type { Anchor, Ruler } from '../recipes/recipe';
import { wholeHandheld, wholeLayer, type HandKey, type HandValue } from './schema';
import { placedKeys, trackOfKeys } from './track';

/** sub-frames of each frame at which a moved picture is looked at for edges, at least */
const looks = 16;
/** between two looks nothing moves further than so many pixels, degrees counted at the frame's edge */
const furthest = 2;
/** two looks are never nearer to each other than this share of a frame: a held value jumps */
const nearest = 1e-3;
/** what a curve that swings below every size counts as, so that some enlargement covers it */
const leastScale = 0.01;
/** pixels that the sway of a hand may lie beside its keys */
const swayTolerance = 0.2;

type Tracks = Record<HandValue, Track | null>;

function tracksOf(
  moment: Moment,
  layer: string,
  anchors: readonly Anchor[],
  ruler: Ruler,
): { tracks: Tracks; any: boolean } {
  const { width, height } = ruler.project;
  const inPicture: Record<HandValue, (said: number) => number> = {
    across: (said) => (said / 100) * width,
    down: (said) => (said / 100) * height,
    size: (said) => said / 100,
    turn: (said) => said,
    opacity: (said) => said / 100,
  };
  const said: Record<string, HandKey[]> = moment.keys?.[layer] ?? {};
  const track = (value: HandValue) => {
    const placed = placedKeys(said[value] ?? [], anchors, ruler);
    return placed.length > 0 ? trackOfKeys(placed, inPicture[value]) : null;
  };
  const tracks: Tracks = {
    across: track('across'),
    down: track('down'),
    size: track('size'),
    turn: track('turn'),
    opacity: track('opacity'),
  };
  return { tracks, any: Object.values(tracks).some(Boolean) };
}

type MoveStep = Extract<Transform, { is: 'move' }>;

const stepOf = ({ across, down, turn, size }: Tracks, { width, height }: Project): MoveStep => ({
  is: 'move',
  size: { width, height },
  x: across ?? still(0),
  y: down ?? still(0),
  rotation: turn ?? still(0),
  scale: size ?? still(1),
  undone: false,
});

/** Looks between two, so that nothing moves far from one to the next. */
function between(lies: (frame: number) => Move, far: (one: Move, other: Move) => number) {
  const inside = (from: number, one: Move, until: number, other: Move): Move[] => {
    if (until - from <= nearest || far(one, other) <= furthest) return [];
    const middle = (from + until) / 2;
    const move = lies(middle);
    return [...inside(from, one, middle, move), move, ...inside(middle, move, until, other)];
  };
  return inside;
}

/**
 * How a moved picture lies at every instant at which its edges could come into sight: at many sub-frames, wherever
 * one of its curves turns back, and closer where it is fast.
 */
export function movesOf(step: MoveStep, { from, until }: Pick<Node, 'from' | 'until'>): Move[] {
  const { width, height } = step.size;
  const lies = (frame: number): Move => {
    const scale = Math.max(leastScale, valueAt(step.scale, frame));
    return {
      x: valueAt(step.x, frame),
      y: valueAt(step.y, frame),
      rotation: valueAt(step.rotation, frame),
      scale,
    };
  };
  const reach = Math.hypot(width, height) / 2;
  const far = (one: Move, other: Move) =>
    Math.hypot(one.x - other.x, one.y - other.y) +
    (Math.abs(one.rotation - other.rotation) * Math.PI * reach) / 180 +
    Math.abs(one.scale - other.scale) * reach;
  const [first, last] = [from - 0.5, until - 0.5];
  const regular = Array.from({ length: (until - from) * looks + 1 }, (_, look) => first + look / looks);
  const turns = [step.x, step.y, step.rotation, step.scale].flatMap(turnsOf);
  const frames = [...new Set([...regular, ...turns.filter((frame) => frame > first && frame < last)])].sort(
    (one, other) => one - other,
  );
  const moves = frames.map(lies);
  const inside = between(lies, far);
  return moves.flatMap((move, index) => [
    move,
    ...(index + 1 < moves.length ? inside(frames[index], move, frames[index + 1], moves[index + 1]) : []),
  ]);
}

/** A move with the sway of a hand added to it, as few keys as keep it within a fraction of a pixel. */
function swayed(moment: Moment, step: MoveStep, { from, until }: Node, { project }: Ruler): MoveStep {
  const { strength, pace, seed, filmed } = wholeHandheld(moment.handheld);
  if (strength === 0) return step;
  const pixels = (strength / 100) * project.width;
  const made = swayOf(pixels, pace, seed);
  const sway = (seconds: number) => {
    if (!filmed) return made(seconds);
    const { x, y, turn } = swayAt(filmed, seconds);
    return { x: x * pixels, y: y * pixels, rotation: turn * strength };
  };
  const frames = Array.from({ length: until - from + 1 }, (_, index) => from + index);
  const added = (track: Track, of: 'x' | 'y' | 'rotation', tolerance: number) =>
    fewestKeyframes(
      frames.map((frame) => valueAt(track, frame) + sway(timeOfFrame(project.rate, frame))[of]),
      from,
      tolerance,
    );
  return {
    ...step,
    x: added(step.x, 'x', swayTolerance),
    y: added(step.y, 'y', swayTolerance),
    rotation: added(step.rotation, 'rotation', (swayTolerance * 180) / (Math.PI * project.width)),
  };
}

/** The whole picture as it is moved by hand: the way, and by how much it is enlarged so that no edge shows. */
export function wholeMove(
  moment: Moment,
  tree: Node,
  anchors: readonly Anchor[],
  ruler: Ruler,
): { step: MoveStep; cover: number } | null {
  const { tracks, any } = tracksOf(moment, wholeLayer, anchors, ruler);
  if (!any && wholeHandheld(moment.handheld).strength === 0) return null;
  const step = swayed(moment, stepOf(tracks, ruler.project), tree, ruler);
  const cover = coverScale(movesOf(step, tree), ruler.project);
  const scale = step.scale.map((key) => ({ ...key, value: key.value * cover }));
  return { step: { ...step, scale }, cover };
}

/** The move of one layer by hand; null where it has no keys. */
export function layerMove(
  moment: Moment,
  layer: string,
  anchors: readonly Anchor[],
  ruler: Ruler,
): { step: MoveStep; opacity: Track | null } | null {
  const { tracks, any } = tracksOf(moment, layer, anchors, ruler);
  return any ? { step: stepOf(tracks, ruler.project), opacity: tracks.opacity } : null;
}

/** Two opacities of one layer, one as the kind gives it and one by hand. */
const both = (one: Track, other: Track, { from, until }: Node): Track =>
  one.length === 1
    ? other.map((key) => ({ ...key, value: key.value * one[0].value }))
    : fewestKeyframes(
        Array.from(
          { length: until - from + 1 },
          (_, index) => valueAt(one, from + index) * valueAt(other, from + index),
        ),
        from,
        0.002,
      );

/** A picture that is moved as a whole by hand; the same object where it is not. */
export function withWholeMoved(tree: Node, moment: Moment, anchors: readonly Anchor[], ruler: Ruler): Node {
  const whole = wholeMove(moment, tree, anchors, ruler);
  if (!whole) return tree;
  const { width, height } = ruler.project;
  const span = { from: tree.from, until: tree.until };
  // The shutter that the picture is seen through sees this movement too.
  const inside = { ...tree, shutter: null };
  return groupOf('hand', { width, height }, span, [inside], {
    transforms: [whole.step],
    shutter: tree.shutter,
  });
}

/** A picture whose layers are moved by hand; the same object where none is. */
export const withLayersMoved = (
  tree: Node,
  moment: Moment,
  anchors: readonly Anchor[],
  ruler: Ruler,
): Node => (moment.keys ? withLayers(tree, moment, anchors, ruler) : tree);

function withLayers(node: Node, moment: Moment, anchors: readonly Anchor[], ruler: Ruler): Node {
  const { content } = node;
  if (content.is === 'group')
    return {
      ...node,
      content: {
        ...content,
        nodes: content.nodes.map((child) => withLayers(child, moment, anchors, ruler)),
      },
    };
  const move = layerMove(moment, node.id, anchors, ruler);
  if (!move) return node;
  return {
    ...node,
    transforms: [...node.transforms, move.step],
    opacity: move.opacity ? both(node.opacity, move.opacity, node) : node.opacity,
  };
}

/** What can be keyed by hand in a picture: the whole of it, and each of its layers. */
export const handLayers = (tree: Node): { id: string; title: string }[] => [
  { id: wholeLayer, title: 'the whole picture' },
  ...nodesIn(tree)
    .filter(({ content }) => content.is !== 'group')
    .map(({ id, name }) => ({ id, title: name })),
];
