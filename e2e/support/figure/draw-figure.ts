import type { Size } from '@/core/geometry/size';
import { Body, type Of } from './body';
import type { Stance } from './stance';
import { dot, minus, plus, times, unit, type Vector } from './vector';

/** Where a camera is and how far it sees: it looks straight at the wall, and an upright metre at so many metres fills its picture. */
export type Camera = { at: Vector; tall: number };

/** Colours of what a figure is of, in linear light. */
const colours: Record<Of, Vector> = {
  skin: [0.7, 0.47, 0.36],
  lips: [0.58, 0.28, 0.26],
  brow: [0.15, 0.1, 0.08],
  eye: [0.9, 0.88, 0.85],
  pupil: [0.12, 0.08, 0.06],
  hair: [0.1, 0.07, 0.05],
  shirt: [0.3, 0.38, 0.55],
  trousers: [0.16, 0.16, 0.2],
  shoe: [0.55, 0.52, 0.48],
};
const [key, fill] = [unit([-0.5, 0.9, 0.8]), unit([0.8, 0.3, 0.5])];

/** Where a point is seen, in pixels. */
export function seenAt(point: Vector, { at, tall }: Camera, size: Size): [number, number] {
  const [x, y, z] = minus(point, at);
  const perMetre = (size.height * tall) / -z;
  return [size.width / 2 + x * perMetre, size.height / 2 - y * perMetre];
}

/** The light that comes from a point of the figure. @param way from the camera to it */
function lightFrom(body: Body, p: Vector, way: Vector): Vector {
  const e = 0.004;
  const corners: Vector[] = [
    [e, e, e],
    [e, -e, -e],
    [-e, e, -e],
    [-e, -e, e],
  ];
  const normal = unit(
    corners.reduce<Vector>((sum, corner) => plus(sum, times(corner, body.to(plus(p, corner)))), [0, 0, 0]),
  );
  const open = [0.03, 0.08, 0.16].map((far) => Math.max(0, far - body.to(plus(p, times(normal, far)))) / far);
  const around = Math.max(0, 1 - 0.28 * open.reduce((sum, one) => sum + one, 0));
  let lit = 1;
  for (let far = 0.03; far < 1 && lit > 0;) {
    const to = body.to(plus(p, times(key, far)));
    lit = to < 0.002 ? 0 : Math.min(lit, (8 * to) / far);
    far += Math.max(0.03, to);
  }
  const [first, second] = [1.5 * lit * Math.max(0, dot(normal, key)), 0.35 * Math.max(0, dot(normal, fill))];
  const third = around * (0.35 + 0.2 * normal[1]);
  const rim = 0.15 * (1 + Math.min(0, dot(normal, way))) ** 3;
  const [r, g, b] = colours[body.at(p)];
  return [
    r * (first + 0.8 * second + 0.9 * third) + rim,
    g * (0.95 * first + 0.9 * second + 0.95 * third) + rim,
    b * (0.88 * first + second + third) + rim,
  ];
}

/** a pixel at the figure's edge is looked at so many times each way */
const looks = 4;

/**
 * A figure as a camera sees it, by following its rays to its surface.
 * @returns RGBA, 0..255 a channel; how much of a pixel it covers is its alpha, its colours are not multiplied by that
 */
export function drawFigure(stance: Stance, camera: Camera, size: Size): Uint8ClampedArray {
  const body = new Body(stance);
  const { at } = stance;
  const middle = camera.at[2] - at[2];
  /** The light that comes along a ray through a place of the picture; null where nothing of the figure is there. */
  const look = (x: number, y: number): Vector | null => {
    const scale = size.height * camera.tall;
    const way = unit([(x - size.width / 2) / scale, (size.height / 2 - y) / scale, -1]);
    for (let gone = middle - 0.6, step = 0; step < 80 && gone < middle + 0.6; step++) {
      const p = plus(camera.at, times(way, gone));
      const to = body.to(p);
      if (to < 0.0008) return lightFrom(body, p, way);
      gone += 0.85 * to;
    }
    return null;
  };
  const [left, top] = seenAt(plus(at, [-0.95, 1.9, 0.3]), camera, size).map(Math.floor);
  const [right, bottom] = seenAt(plus(at, [0.95, -0.1, 0.3]), camera, size).map(Math.ceil);
  const seen: (Vector | null)[] = new Array<null>(size.width * size.height).fill(null);
  const each = function* () {
    for (let y = Math.max(0, top); y < Math.min(size.height, bottom); y++)
      for (let x = Math.max(0, left); x < Math.min(size.width, right); x++) yield [x, y] as const;
  };
  for (const [x, y] of each()) seen[y * size.width + x] = look(x + 0.5, y + 0.5);

  const rgba = new Uint8ClampedArray(size.width * size.height * 4);
  for (const [x, y] of each()) {
    const pixel = y * size.width + x;
    const beside = [-1, 0, 1].flatMap((down) =>
      [-1, 0, 1].map((aside) => seen[pixel + down * size.width + aside]),
    );
    const isEdge = beside.some((one) => Boolean(one) !== Boolean(seen[pixel]));
    const lights = isEdge
      ? Array.from({ length: looks ** 2 }, (_, index) =>
          look(x + ((index % looks) + 0.5) / looks, y + (Math.floor(index / looks) + 0.5) / looks),
        )
      : [seen[pixel]];
    const hits = lights.filter((light) => light !== null);
    for (let channel = 0; channel < 3; channel++) {
      const mean = hits.reduce((sum, light) => sum + light[channel], 0) / hits.length;
      rgba[4 * pixel + channel] = 255 * Math.min(1, mean) ** (1 / 2.2);
    }
    rgba[4 * pixel + 3] = (255 * hits.length) / lights.length;
  }
  return rgba;
}
