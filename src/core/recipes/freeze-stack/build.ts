import type { Bounds, Framed, Point, Size } from '../../geometry/size';
import type { MomentOf } from '../../model/records';
import type { CutoutBy } from '../../footage/cutout';
import { coveredCells as cells } from '../../footage/presence';
import { fillOf, plateSlot } from '../../model/slots';
import { gentle } from '../../motion/easing';
import type { Track } from '../../motion/keyframes';
import {
  fillFrame,
  groupOf,
  outlineMatte,
  type MediaNode,
  type Node,
  type Transform,
} from '../../picture/node';
import {
  boxRound,
  cutoutBy,
  cutoutMatte,
  cutoutIn,
  cutoutWork,
  fileInFrame,
  frameInFile,
  inFile,
  reachOfEdge,
  softPixels,
  within,
} from '../cutouts';
import { groundShake, type GroundShake } from '../ground-shake';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import type { ChosenTake, Material, Work } from '../material';
import type { Anchor, Outline, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { usualFlight, wholeFreeze } from './settings';
import { pieceAnchor, poseSlot } from './slots';

export type FreezeMoment = MomentOf<'freeze-stack'>;

const titles = { start: 'Begins on', lands: 'The last piece lands on', end: 'Ends on' };

/** Numbers of the pieces, from 1, in the order in which they land. */
export const piecesOf = ({ settings }: FreezeMoment): number[] =>
  Array.from({ length: settings.pieces }, (_, index) => index + 1);

/** The instants of a freeze stack: one for each piece, the last where it lands. */
export function freezeAnchors(moment: FreezeMoment, ruler: Ruler): Anchor[] {
  const { start, lands, settings, pins = {} } = moment;
  const { pieces } = settings;
  const [first, last, end] = spanAnchors(moment, ruler, titles, 'The pose is whole');
  const others = piecesOf(moment)
    .slice(0, -1)
    .map((piece) => {
      const name = pieceAnchor(piece, pieces);
      return pinAnchor(ruler, {
        name,
        title: `Piece ${piece} lands on`,
        position: pins[name] ?? evenly(start, lands, piece, pieces),
        between: [start - 0.25, lands + 0.25],
        marks: `Piece ${piece}`,
      });
    });
  return [first, ...others, last, end];
}

/** Its first frame, the one on which each piece lands, and the one after its last. */
export function freezeFrames(moment: FreezeMoment, ruler: Ruler) {
  const frames = freezeAnchors(moment, ruler).map(({ frame }) => frame);
  const start = frames[0];
  const end = Math.max(start + 1, frames[frames.length - 1]);
  return { start, lands: frames.slice(1, -1).map((frame) => Math.max(start, frame)), end };
}

/** Delivery frames that each piece flies for: as said, else the usual ones as far as there is room before the first. */
export function flightOf(moment: FreezeMoment, ruler: Ruler): number {
  const { start, lands } = freezeFrames(moment, ruler);
  return (
    wholeFreeze(moment.settings).flight ?? Math.max(1, Math.min(usualFlight, (lands[0] ?? start) - start))
  );
}

/** The second of the take that is frozen. */
export const frozenAt = (moment: FreezeMoment): number =>
  wholeFreeze(moment.settings).frozen ?? fillOf(moment, poseSlot.key).at;

/** Where somebody stands in the take of the pose, in shares of the frame, with a little room; all of it where nobody knows. */
function boxOf(pose: ChosenTake | null): Bounds {
  const covered = pose?.comparison?.covered;
  const there = covered ? [...covered.keys()].filter((cell) => covered[cell]) : [];
  if (there.length === 0) return { left: 0, top: 0, right: 1, bottom: 1 };
  const [xs, ys] = [
    there.map((cell) => cell % cells.width),
    there.map((cell) => Math.floor(cell / cells.width)),
  ];
  const share = (value: number, whole: number) => Math.min(1, Math.max(0, value / whole));
  return {
    left: share(Math.min(...xs) - 1, cells.width),
    top: share(Math.min(...ys) - 1, cells.height),
    right: share(Math.max(...xs) + 2, cells.width),
    bottom: share(Math.max(...ys) + 2, cells.height),
  };
}

/** How the pose is cut out. */
export const cutBy = ({ settings }: Pick<FreezeMoment, 'settings'>, material: Material): CutoutBy =>
  cutoutBy(wholeFreeze(settings).by, material);

/** Cutting the pose out of its frozen picture, where nobody drew its outline. */
export function freezeWorks(moment: FreezeMoment, _ruler: Ruler, material: Material): Work[] {
  if (wholeFreeze(moment.settings).outline) return [];
  const pose = material.takes[poseSlot.key] ?? null;
  return cutoutWork(poseSlot.key, material, pose, frozenAt(moment), cutBy(moment, material));
}

/** The outline of the pose in shares of its file, drawn or solved; none where it was not cut out, or nobody stood there. */
export function poseRings({ settings }: Pick<FreezeMoment, 'settings'>, material: Material): Point[][] {
  const { outline } = wholeFreeze(settings);
  return outline ? [outline] : (cutoutIn(material, poseSlot.key)?.rings ?? []);
}

/** The outline of the pose as it is taken hold of, in shares of the frame; round where somebody stands while there is none. */
export function poseOutline(moment: FreezeMoment, { project }: Ruler, material: Material): Outline | null {
  const pose = material.takes[poseSlot.key] ?? null;
  const source = pose?.measure?.size;
  if (!source) return null;
  const rings = poseRings(moment, material).map((ring) =>
    ring.map((point) => fileInFrame(point, source, project)),
  );
  const { left, top, right, bottom } = boxOf(pose);
  const box: Point[] = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
  return {
    title: 'the outline of the pose',
    setting: 'outline',
    rings: rings.length > 0 ? rings : [box],
    state: wholeFreeze(moment.settings).outline ? 'drawn' : rings.length > 0 ? 'solved' : 'guessed',
    drawn: (ring) =>
      frameInFile(ring, source, project).map(([x, y]) => [x / source.width, y / source.height]),
  };
}

/** Where the pose lies, in shares of the frame: its outline where that is known, else where somebody stands. */
function poseBox(moment: FreezeMoment, material: Material, frame: Framed): Bounds {
  const pose = material.takes[poseSlot.key] ?? null;
  const source = pose?.measure?.size;
  const outline = source
    ? boxRound(
        poseRings(moment, material).flatMap((ring) => ring.map((point) => fileInFrame(point, source, frame))),
      )
    : null;
  return outline ?? boxOf(pose);
}

/** The cut of a piece that somebody drew; null where it is cut evenly. */
const drawnCut = ({ settings }: Pick<FreezeMoment, 'settings'>, piece: number): Point[] | null =>
  wholeFreeze(settings).cuts[piece] ?? null;

/**
 * Where the pieces of the pose lie, from its feet to its head, in shares of the frame: as they were drawn, else cuts
 * through where somebody stands, level or leaning about its middle. The first and the last reach as far as that does.
 * @param room delivery pixels that evenly cut pieces reach into each other, and out of the box round the pose
 */
export function cutsOf(
  moment: FreezeMoment,
  material: Material,
  frame: Framed,
  room = { into: 0, out: 0 },
): Point[][] {
  const pose = poseBox(moment, material, frame);
  const [across, down] = [room.out / frame.width, room.out / frame.height];
  const [left, right] = [pose.left - across, pose.right + across];
  const [top, bottom] = [pose.top - down, pose.bottom + down];
  const { pieces } = moment.settings;
  const lean = Math.tan((wholeFreeze(moment.settings).lean * Math.PI) / 180);
  const rise = (lean * (right - left) * frame.width) / frame.height / 2;
  const more = room.into / frame.height;
  const box: Point[] = [
    [left, top],
    [right, top],
    [right, bottom],
    [left, bottom],
  ];
  // The first and the last band lean as well, and reach over all that the others leave of the box.
  const beyond = 2 * Math.abs(rise) + down;
  return piecesOf(moment).map((piece): Point[] => {
    const drawn = drawnCut(moment, piece);
    if (drawn) return drawn;
    const level = (cut: number) => pose.top + ((pose.bottom - pose.top) * cut) / pieces;
    const upper = level(pieces - piece) - (piece === pieces ? beyond : more);
    const lower = level(pieces - piece + 1) + (piece === 1 ? beyond : more);
    const band: Point[] = [
      [left, upper - rise],
      [right, upper + rise],
      [right, lower + rise],
      [left, lower - rise],
    ];
    return rise === 0 ? band : (within([box], band)[0] ?? band);
  });
}

/** The cut of one piece as it is taken hold of. */
export function cutOutline(
  moment: FreezeMoment,
  { project }: Ruler,
  material: Material,
  piece: number,
): Outline {
  return {
    title: `the cut of piece ${piece}`,
    setting: `cuts.${piece}`,
    again: `Cut piece ${piece} evenly again`,
    rings: [cutsOf(moment, material, project)[piece - 1]],
    state: drawnCut(moment, piece) ? 'drawn' : 'guessed',
  };
}

/** A piece as it is cut out of the file's own pixels, so that the cut flies with it: along the pose where that is known. */
function pieceMatte(
  cut: readonly Point[],
  { rings, by }: { rings: readonly Point[][]; by: CutoutBy | 'hand' },
  source: Size,
  frame: Framed,
  from: number,
) {
  const box = frameInFile(cut, source, frame);
  if (rings.length === 0) return outlineMatte('content', [{ frame: from, rings: [box] }], 0);
  const whole = inFile(rings, source);
  const keys = [{ frame: from, rings: within(whole, box) }];
  // What somebody drew stays as it was drawn.
  return by === 'hand'
    ? outlineMatte('content', keys, softPixels(source))
    : cutoutMatte(keys, source, by, { of: whole, within: box });
}

const ways = {
  sides: (piece: number): Point => [piece % 2 ? -0.6 : 0.6, 0.25],
  above: (): Point => [0, -0.9],
  below: (): Point => [0, 0.9],
  place: (): Point => [0, 0],
};

/** The flight of a piece into its place, turned and scaled about its own middle. */
function flight(
  moment: FreezeMoment,
  frames: number,
  piece: number,
  lands: number,
  ring: readonly Point[],
  frame: Size,
): Transform[] {
  const { turn, size, from } = wholeFreeze(moment.settings);
  const [x, y] = ways[from](piece);
  const begins = lands - frames;
  const arrives = (value: number, rest: number): Track => [
    { frame: begins, value, ease: gentle },
    { frame: lands, value: rest, ease: 'hold' },
  ];
  const middle: Point = [
    (ring.reduce((sum, [across]) => sum + across, 0) / ring.length) * frame.width,
    (ring.reduce((sum, [, down]) => sum + down, 0) / ring.length) * frame.height,
  ];
  const off = [frame.width / 2 - middle[0], frame.height / 2 - middle[1]];
  return [
    { is: 'map', matrix: [1, 0, 0, 1, off[0], off[1]] },
    {
      is: 'move',
      size: frame,
      x: arrives(x * frame.width, 0),
      y: arrives(y * frame.height, 0),
      rotation: arrives(piece % 2 ? -turn : turn, 0),
      scale: arrives(size / 100, 1),
      undone: false,
    },
    { is: 'map', matrix: [1, 0, 0, 1, -off[0], -off[1]] },
  ];
}

/** The shake of the whole picture as its pieces land. */
export const shakeOf = (moment: FreezeMoment, ruler: Ruler): GroundShake =>
  groundShake(ruler.project, freezeFrames(moment, ruler).lands, wholeFreeze(moment.settings).shake);

/** The picture of a freeze stack: the empty set, the pieces of the frozen pose as they land, then perhaps the running take. */
export function buildFreeze(moment: FreezeMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const frame = { width: project.width, height: project.height };
  const { start, lands, end } = freezeFrames(moment, ruler);
  const frames = flightOf(moment, ruler);
  const { after } = wholeFreeze(moment.settings);
  const pose = material.takes[poseSlot.key] ?? null;
  const whole = lands[lands.length - 1];
  const runs = after === 'runs' && whole < end;
  const cuts = cutsOf(moment, material, project);
  const rings = poseRings(moment, material);
  const source = pose?.measure?.size;
  // Pieces reach so far into each other that no line shows between them once they stand.
  const by = wholeFreeze(moment.settings).outline ? 'hand' : cutBy(moment, material);
  const scale = source ? fillFrame(source, project).matrix[0] : 0;
  const room = {
    into: source ? softPixels(source) * scale : 0,
    out: source && by !== 'hand' ? reachOfEdge(source, by) * scale : 0,
  };
  const joined = cutsOf(moment, material, project, room);
  // Where the take goes on before its backdrop, what stands before that keeps its light.
  const without = by === 'hand' || runs ? undefined : cutoutIn(material, poseSlot.key)?.key;
  const at = frozenAt(moment);
  const pieces = piecesOf(moment).flatMap((piece, index): MediaNode[] => {
    const from = Math.max(start, lands[index] - frames);
    if (!source || from >= end) return [];
    return takeNode(
      project,
      `${poseSlot.key}-${piece}`,
      `Piece ${piece}: ${pose.take.name}`,
      pose,
      { from, until: runs ? Math.max(from + 1, whole) : end, at, hold: true, without },
      {
        mattes: [pieceMatte(joined[index], { rings, by }, source, project, from)],
        transforms: flight(moment, frames, piece, lands[index], cuts[index], frame),
      },
    );
  });
  return groupOf(
    'shot',
    frame,
    { from: start, until: end },
    [
      ...takeNode(project, plateSlot, 'Clean plate', material.takes[plateSlot] ?? null, {
        from: start,
        until: end,
        at: 0,
        hold: true,
      }),
      ...pieces,
      ...(runs
        ? takeNode(project, poseSlot.key, `Running: ${pose?.take.name ?? ''}`, pose, {
            from: whole,
            until: end,
            at,
          })
        : []),
    ],
    { transforms: shakeOf(moment, ruler).transforms },
  );
}
