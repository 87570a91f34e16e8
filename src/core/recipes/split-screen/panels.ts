import type { Bounds, Point, Size } from '../../geometry/size';
import { wholeSplit } from './settings';
import { panelSlots } from './slots';

/** A panel: its outline in delivery pixels, and the upright box around it. */
export type Panel = { ring: Point[]; box: Bounds };

type Cut = { panels: number; cut: 'columns' | 'rows' | 'grid'; lean: number; gutter: number };

const boxOf = (ring: readonly Point[], { width, height }: Size): Bounds => {
  const [xs, ys] = [ring.map(([x]) => x), ring.map(([, y]) => y)];
  return {
    left: Math.max(0, Math.min(...xs)),
    top: Math.max(0, Math.min(...ys)),
    right: Math.min(width, Math.max(...xs)),
    bottom: Math.min(height, Math.max(...ys)),
  };
};

/** Stripes side by side over a length: where each begins and ends, half a gutter off every inner cut. */
const stripes = (count: number, length: number, gutter: number): [from: number, until: number][] =>
  Array.from({ length: count }, (_, index) => [
    (length * index) / count + (index > 0 ? gutter / 2 : 0),
    (length * (index + 1)) / count - (index < count - 1 ? gutter / 2 : 0),
  ]);

/** Columns whose inner cuts lean about the middle of the height. */
function columns({ panels, lean, gutter }: Cut, { width, height }: Size): Point[][] {
  const off = (Math.tan((lean * Math.PI) / 180) * height) / 2;
  return stripes(panels, width, gutter).map(([from, until], index) => {
    const [first, last] = [index === 0 ? 0 : off, index === panels - 1 ? 0 : off];
    return [
      [from + first, 0],
      [until + last, 0],
      [until - last, height],
      [from - first, height],
    ];
  });
}

/** Rows of a grid; where the panels do not fill it, those of the last row are wider. */
function grid({ panels, gutter }: Cut, { width, height }: Size): Point[][] {
  const rows = Math.round(Math.sqrt(panels));
  const most = Math.ceil(panels / rows);
  return stripes(rows, height, gutter).flatMap(([top, bottom], row) => {
    const count = row < rows - 1 ? most : panels - most * (rows - 1);
    return stripes(count, width, gutter).map(([left, right]): Point[] => [
      [left, top],
      [right, top],
      [right, bottom],
      [left, bottom],
    ]);
  });
}

/** The panels of a frame, from the upper left to the lower right: as they were drawn, else evenly. @param frame delivery pixels */
export function panelsOf(settings: Parameters<typeof wholeSplit>[0], frame: Size): Panel[] {
  const whole = wholeSplit(settings);
  const turned = { width: frame.height, height: frame.width };
  const rings =
    whole.cut === 'grid'
      ? grid(whole, frame)
      : whole.cut === 'columns'
        ? columns(whole, frame)
        : columns(whole, turned).map((ring) => ring.map(([x, y]): Point => [y, x]));
  return rings.map((even, index) => {
    const drawn = whole.drawn[panelSlots[index].key];
    const ring = drawn ? drawn.map(([x, y]): Point => [x * frame.width, y * frame.height]) : even;
    return { ring, box: boxOf(ring, frame) };
  });
}
