import type { Bounds, Framed, Point, Size } from '../../geometry/size';
import type { MomentOf } from '../../model/records';
import { coveredCells as cells } from '../../footage/presence';
import { fillOf, plateSlot } from '../../model/slots';
import { gentle } from '../../motion/easing';
import type { Track } from '../../motion/keyframes';
import { groupOf, outlineMatte, type MediaNode, type Node, type Transform } from '../../picture/node';
import { between, boxRound, cutoutIn, cutoutWork, fileInFrame, frameInFile, inFile } from '../cutouts';
import { groundShake, type GroundShake } from '../ground-shake';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import type { ChosenTake, Material, Work } from '../material';
import type { Anchor, Ruler } from '../recipe';
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

/** Cutting the pose out of its frozen picture by the clean plate. */
export const freezeWorks = (moment: FreezeMoment, _ruler: Ruler, material: Material): Work[] =>
  cutoutWork(poseSlot.key, material, material.takes[poseSlot.key] ?? null, frozenAt(moment));

/** The outline of the pose in shares of its file; none where it was not cut out, or nobody stood there. */
export const poseRings = (material: Material): Point[][] => cutoutIn(material, poseSlot.key)?.rings ?? [];

/**
 * Where the pieces of the pose lie, from its feet to its head, in shares of the frame: level cuts through where
 * somebody stands. The first and the last reach as far as that does.
 */
export function cutsOf(moment: FreezeMoment, material: Material, frame: Framed): Point[][] {
  const pose = material.takes[poseSlot.key] ?? null;
  const source = pose?.measure?.size;
  const outline = source
    ? boxRound(poseRings(material).flatMap((ring) => ring.map((point) => fileInFrame(point, source, frame))))
    : null;
  const { left, top, right, bottom } = outline ?? boxOf(pose);
  const { pieces } = moment.settings;
  return piecesOf(moment).map((piece) => {
    const [upper, lower] = [pieces - piece, pieces - piece + 1].map(
      (cut) => top + ((bottom - top) * cut) / pieces,
    );
    return [
      [left, upper],
      [right, upper],
      [right, lower],
      [left, lower],
    ];
  });
}

/** A piece as it is cut out of the file's own pixels, so that the cut flies with it: along the pose where that is known. */
function pieceMatte(
  cut: readonly Point[],
  rings: readonly Point[][],
  source: Size,
  frame: Framed,
  from: number,
) {
  const box = frameInFile(cut, source, frame);
  if (rings.length === 0) return outlineMatte('content', [{ frame: from, rings: [box] }], 0);
  // The outline was found in pixels of 640 across.
  const feather = Math.max(1, Math.round(source.width / 640));
  // Pieces reach so far into each other that no line shows between them once they stand.
  const pose = between(inFile(rings, source), box[0][1] - feather, box[2][1] + feather);
  return outlineMatte('content', [{ frame: from, rings: pose }], feather);
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
  const rings = poseRings(material);
  const at = frozenAt(moment);
  const pieces = piecesOf(moment).flatMap((piece, index): MediaNode[] => {
    const source = pose?.measure?.size;
    const from = Math.max(start, lands[index] - frames);
    if (!source || from >= end) return [];
    return takeNode(
      project,
      `${poseSlot.key}-${piece}`,
      `Piece ${piece}: ${pose.take.name}`,
      pose,
      { from, until: runs ? Math.max(from + 1, whole) : end, at, hold: true },
      {
        mattes: [pieceMatte(cuts[index], rings, source, project, from)],
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
