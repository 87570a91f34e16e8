import type { Affine } from '../geometry/affine';
import { beyondFrame } from '../geometry/beyond';
import type { Point, Size } from '../geometry/size';
import type { Bezier } from '../motion/easing';
import type { Track } from '../motion/keyframes';
import type { Cdl } from '../picture/grade';
import {
  secondsAt,
  type Matte,
  type MediaNode,
  type Node,
  type Rings,
  type Transform,
} from '../picture/node';
import type { Rate } from '../time/rate';
import { formatClock, formatTimecode } from '../time/timecode';
import { valueAt } from '../motion/keyframes';
import type { KeyframeRow } from './recipe';

const thenOf = (track: Track, index: number): KeyframeRow['then'] => {
  if (index === track.length - 1) return 'stays';
  const { ease } = track[index];
  if (ease === 'hold') return 'holds';
  return ease[0] === 0 && ease[3] === 1 ? 'moves evenly' : 'eases';
};

/** A track as rows of a sheet. @param value what is written for a value of the track */
export const trackRows = (
  layer: string,
  what: string,
  track: Track,
  unit: KeyframeRow['unit'],
  value: (raw: number) => number = (raw) => raw,
  of?: number,
): KeyframeRow[] =>
  track.map((key, index) => ({
    frame: key.frame,
    layer,
    what,
    value: value(key.value),
    unit,
    of,
    then: thenOf(track, index),
    ...(thenOf(track, index) === 'eases' ? { curve: track[index].ease as Bezier } : {}),
  }));

/** A value that stands all the time is written where its take begins to show. */
const shownFrom = (track: Track, frame: number): Track =>
  track.length === 1 ? [{ ...track[0], frame }] : track;

/** True where a track says anything but one value that changes nothing. */
const says = (track: Track, plain: number) => track.some(({ value }) => value !== plain);

type Move = Extract<Transform, { is: 'move' }>;

function movedRows(layer: string, move: Move, pixel: number, size: Size): KeyframeRow[] {
  const sign = move.undone ? -pixel : pixel;
  const rows = [
    trackRows(layer, 'move sideways', move.x, 'px', (raw) => raw * sign, size.width),
    trackRows(layer, 'move down', move.y, 'px', (raw) => raw * sign, size.height),
    trackRows(layer, 'turn clockwise', move.rotation, '°', (raw) => (move.undone ? -raw : raw)),
    trackRows(layer, 'size', move.scale, '%', (raw) => (move.undone ? 100 / raw : 100 * raw)),
  ];
  if (move.undone) return rows.flat();
  const said = [says(move.x, 0), says(move.y, 0), says(move.rotation, 0), says(move.scale, 1)];
  return rows.filter((_, index) => said[index]).flat();
}

/** A movement on top of another one of the same layer. */
export const afterOthers = (row: KeyframeRow): KeyframeRow => ({ ...row, what: `then ${row.what}` });

/** Where a file lies in the frame that is only scaled and moved into place. */
function placedRows(layer: string, frame: number, matrix: Affine, size: Size): KeyframeRow[] {
  const stays = { frame, layer, then: 'stays' as const };
  return [
    { ...stays, what: 'size of the file', unit: '%' as const, value: 100 * Math.hypot(matrix[0], matrix[1]) },
    { ...stays, what: 'left edge of the file', unit: 'px' as const, value: matrix[4], of: size.width },
    { ...stays, what: 'upper edge of the file', unit: 'px' as const, value: matrix[5], of: size.height },
  ];
}

/** The point that a move turns and grows about, where that is not the middle of the frame. */
const pivotRows = (layer: string, frame: number, [x, y]: Point, size: Size): KeyframeRow[] => [
  { frame, layer, then: 'stays', what: 'turns about, across', unit: 'px', value: x, of: size.width },
  { frame, layer, then: 'stays', what: 'turns about, down', unit: 'px', value: y, of: size.height },
];

/** By how much a step only shifts the picture; null where it does more. */
function shiftOf(step: Transform | undefined): Point | null {
  if (step?.is !== 'map') return null;
  const [a, b, c, d, x, y] = step.matrix;
  return a === 1 && b === 0 && c === 0 && d === 1 ? [x, y] : null;
}

/** The point that a move turns about: where the picture is shifted before it and as far back after it; null where not. */
function pivotOf(transforms: readonly Transform[], index: number): Point | null {
  const step = transforms[index];
  const [before, after] = [shiftOf(transforms[index - 1]), shiftOf(transforms[index + 1])];
  if (step.is !== 'move' || !before || !after) return null;
  if (before[0] !== -after[0] || before[1] !== -after[1]) return null;
  return [step.size.width / 2 - before[0], step.size.height / 2 - before[1]];
}

/** The way of a picture into its parent, step by step. */
function wayRows(layer: string, frame: number, transforms: readonly Transform[], size: Size): KeyframeRow[] {
  return transforms.flatMap((step, index): KeyframeRow[] => {
    if (step.is === 'move') {
      const pivot = pivotOf(transforms, index);
      const rows = [
        ...(pivot ? pivotRows(layer, frame, pivot, size) : []),
        ...movedRows(layer, step, pixelsAfter(transforms, index), size),
      ];
      return transforms.slice(0, index).some(({ is }) => is === 'move') ? rows.map(afterOthers) : rows;
    }
    const isShift = [index - 1, index + 1].some((near) => transforms[near] && pivotOf(transforms, near));
    return isShift ? [] : placedRows(layer, frame, step.matrix, size);
  });
}

/** Pixels of the delivery for each pixel that a step of the way counts in. */
function pixelsAfter(transforms: readonly Transform[], index: number): number {
  const later = transforms.slice(index + 1).filter((one) => one.is === 'map');
  return later.reduce((scale, { matrix }) => scale * Math.hypot(matrix[0], matrix[1]), 1);
}

/**
 * Rings of several keys with as many corners each: an editor moves corner by corner, so that what one key lacks lies
 * on its last corner.
 */
function padded(keys: readonly { frame: number; rings: Rings }[]): { frame: number; rings: Rings }[] {
  const most = Math.max(0, ...keys.map(({ rings }) => rings.length));
  const corners = Array.from({ length: most }, (_, place) =>
    Math.max(...keys.map(({ rings }) => rings[place]?.length ?? 0)),
  );
  return keys.map(({ frame, rings }) => ({
    frame,
    rings: corners.map((count, place): Point[] => {
      const ring = rings[place] ?? [[0, 0]];
      return [...ring, ...Array.from({ length: count - ring.length }, () => ring[ring.length - 1])];
    }),
  }));
}

function maskRows(layer: string, frame: number, matte: Matte, size: Size): KeyframeRow[] {
  const { shape, feather, inverted, space } = matte;
  if (shape.is !== 'outline') return [];
  const { keys, between } = shape;
  // Elsewhere a soft edge is soft along the frame's edge too, unless the mask reaches so far beyond it. One that
  // moves has its own way across that edge.
  const soft = Math.max(...feather.map(({ value }) => value));
  const led = (ring: Point[]) => (soft > 0.5 && between === 'holds' ? beyondFrame(ring, size, soft) : ring);
  const reaching = keys.map(({ frame: at, rings }) => ({ frame: at, rings: rings.map(led) }));
  const points = padded(reaching).flatMap(({ frame: at, rings }, key) =>
    rings.flatMap((ring, place) =>
      ring.flatMap(([x, y], index) => {
        const name = `mask ${space === 'content' ? 'in the file, ' : ''}${rings.length > 1 ? `ring ${place + 1}, ` : ''}point ${index + 1}`;
        const row = {
          // A mask that never changes is written where its take begins to show.
          frame: keys.length > 1 ? at : frame,
          layer,
          unit: 'px' as const,
          then:
            key === keys.length - 1
              ? ('stays' as const)
              : between === 'moves'
                ? ('moves evenly' as const)
                : ('holds' as const),
        };
        return [
          { ...row, what: `${name}, across`, value: x, of: size.width },
          { ...row, what: `${name}, down`, value: y, of: size.height },
        ];
      }),
    ),
  );
  return [
    ...points,
    ...trackRows(
      layer,
      'mask feather, both sides together',
      shownFrom(feather, frame),
      'px',
      (raw) => raw,
      size.width,
    ),
    ...(inverted
      ? [
          {
            frame,
            layer,
            unit: '' as const,
            what: 'mask shows what lies outside',
            value: null,
            then: 'stays' as const,
          },
        ]
      : []),
  ];
}

const channels = ['red', 'green', 'blue'] as const;

function gradeRows(layer: string, frame: number, { saturation, ...rest }: Cdl): KeyframeRow[] {
  const stays = { frame, layer, unit: '' as const, then: 'stays' as const };
  const parts = (['slope', 'offset', 'power'] as const).flatMap((part) =>
    channels.map((channel, index) => ({
      ...stays,
      what: `colour ${part}, ${channel}`,
      value: rest[part][index],
    })),
  );
  return [...parts, { ...stays, what: 'colour saturation', value: saturation }];
}

/** What lies beyond a picture's edge, and the shutter through which it is seen. */
function edgeRows({ name: layer, from: frame, edges, shutter }: Node): KeyframeRow[] {
  const stays = { frame, layer, then: 'stays' as const };
  return [
    ...(edges === 'empty'
      ? []
      : [{ ...stays, what: `beyond its edges the picture is ${edges}`, unit: '' as const, value: null }]),
    ...(shutter
      ? [{ ...stays, what: 'motion blur, shutter open', unit: '°' as const, value: shutter.angle }]
      : []),
  ];
}

/** The layer of a sheet that stands for all others together. */
export const everything = 'Everything together';

/** What is done to the whole picture once its layers lie over one another. */
export function rowsOfWhole(node: Node, size: Size): KeyframeRow[] {
  const whole = { ...node, name: everything };
  return [...wayRows(everything, node.from, node.transforms, size), ...edgeRows(whole)];
}

/** Everything about a take in the picture that has a number. @param size of the delivery */
export function rowsOfTake(node: MediaNode, size: Size): KeyframeRow[] {
  const { name: layer, from, until, content, opacity, grade, transforms, mattes } = node;
  const edge = { layer, value: null, unit: '' as const, then: 'stays' as const };
  return [
    { ...edge, frame: from, what: 'begins to show' },
    { ...edge, frame: until, what: 'no longer shows' },
    ...trackRows(layer, 'second of its file', shownFrom(content.time, from), 's'),
    ...(says(opacity, 1)
      ? trackRows(layer, 'opacity', shownFrom(opacity, from), '%', (raw) => raw * 100)
      : []),
    ...wayRows(layer, from, transforms, size),
    ...edgeRows(node),
    ...(grade ? gradeRows(layer, from, grade) : []),
    ...mattes.flatMap((matte) =>
      maskRows(layer, from, matte, matte.space === 'content' ? content.size : size),
    ),
  ];
}

/** What stands in place of a mask where another layer has the same one for the same pictures of the file. */
export const maskedAs = (node: Node, { name }: Node): KeyframeRow => ({
  frame: node.from,
  layer: node.name,
  what: `mask as “${name}” has it at the same second of its file`,
  value: null,
  unit: '',
  then: 'stays',
});

/** Where a take lies in the film and which of its pictures shows first, in words; its colour, where that is corrected. */
export function tellLaid(node: MediaNode, rate: Rate): string {
  const code = (frame: number) => formatTimecode(frame, rate);
  const first = formatClock(secondsAt(node, node.from));
  return [
    `Lay the take from ${code(node.from)} until ${code(node.until)}; its picture at ${first} of the file shows first.`,
    ...(node.grade ? [tellGrade(node.grade)] : []),
  ].join(' ');
}

/** A colour decision in words. */
export function tellGrade({ slope, offset, power, saturation }: Cdl): string {
  const three = (values: readonly number[]) => values.map((value) => value.toFixed(4)).join(', ');
  return `Correct its colour (ASC CDL): slope ${three(slope)}; offset ${three(offset)}; power ${three(power)}; saturation ${saturation.toFixed(4)}.`;
}

/** A mask in words; nothing where it is no outline. */
export function tellMask({ shape, inverted, feather }: Matte, frame: number): string {
  if (shape.is !== 'outline') return '';
  const points = shape.keys[0]?.rings.flat().length ?? 0;
  const turned = inverted ? ' and turn the mask round, so that what lies outside shows' : '';
  const cut = `Cut it out along ${points} points${turned}, and feather the edge by ${valueAt(feather, frame)} px in all, half on each side.`;
  return shape.fit
    ? `${cut} Where your editor can draw a mask's edge to that of the picture, let it do so within ${Math.round(shape.fit.reach)} px; the shot here is made so.`
    : cut;
}
