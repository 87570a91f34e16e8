import Bezier from 'bezier-easing';
import Papa from 'papaparse';

/**
 * A compositor that knows nothing but a keyframe sheet, written without the painters: somebody who follows the numbers
 * in an editor of their own. Colours 0..255; layers in the order of the sheet, the first at the back.
 */
type Key = { frame: number; value: number; then: string };
type Layer = Map<string, Key[]>;
type Picture = { width: number; height: number; data: ArrayLike<number> };
export type Films = (layer: string, seconds: number) => Picture;

const everything = 'Everything together';

function layersOf(csv: string): Map<string, Layer> {
  const { data } = Papa.parse<Record<string, string>>(csv.trim(), { header: true });
  const layers = new Map<string, Layer>();
  for (const row of data) {
    const layer = layers.get(row.layer) ?? new Map<string, Key[]>();
    layers.set(row.layer, layer);
    const keys = layer.get(row.what) ?? [];
    layer.set(row.what, keys);
    keys.push({
      frame: Number(row['frame in the film']),
      value: row.value === '' ? NaN : parseFloat(row.value),
      then: row['until the next'],
    });
  }
  return layers;
}

const curve = (then: string): ((share: number) => number) => {
  if (then === 'moves evenly') return (share) => share;
  const handles = /cubic-bezier\(([^)]*)\)/.exec(then)?.[1].split(', ').map(Number);
  return handles ? Bezier(handles[0], handles[1], handles[2], handles[3]) : () => 0;
};

function at(layer: Layer, what: string, frame: number, otherwise: number): number {
  const keys = layer.get(what);
  if (!keys) return otherwise;
  const before = keys.findLast((key) => key.frame <= frame) ?? keys[0];
  const after = keys[keys.indexOf(before) + 1];
  if (!after || frame <= before.frame) return before.value;
  const share = (frame - before.frame) / (after.frame - before.frame);
  return before.value + (after.value - before.value) * curve(before.then)(share);
}

type Ring = [number, number][];

/** The rings of a mask at a frame, and whether they count in the file's pixels. */
function maskAt(layer: Layer, frame: number): { rings: Ring[]; inFile: boolean } {
  const rings = new Map<string, Ring>();
  let inFile = false;
  for (const what of layer.keys()) {
    const [, file, ring = '', point] =
      /^mask (in the file, )?(?:ring (\d+), )?point (\d+), across$/.exec(what) ?? [];
    if (!point) continue;
    inFile = file !== undefined;
    const corners = rings.get(ring) ?? [];
    rings.set(ring, corners);
    corners.push([at(layer, what, frame, 0), at(layer, what.replace('across', 'down'), frame, 0)]);
  }
  return { rings: [...rings.values()], inFile };
}

/** The layer and the frame that say a layer's mask: its own, unless it is masked as another has it for the same picture. */
function maskFrom(layers: Map<string, Layer>, layer: Layer, frame: number): [Layer, number] {
  const name = [...layer.keys()].flatMap((what) => /^mask as “(.*)” has it/.exec(what)?.[1] ?? [])[0];
  const other = name === undefined ? undefined : layers.get(name);
  if (!other) return [layer, frame];
  const seconds = at(layer, 'second of its file', frame, 0);
  const [from, until] = [other.get('begins to show')![0].frame, other.get('no longer shows')![0].frame];
  const off = (one: number) => Math.abs(at(other, 'second of its file', one, 0) - seconds);
  const frames = Array.from({ length: until - from }, (_, index) => from + index);
  return [other, frames.reduce((best, one) => (off(one) < off(best) ? one : best), from)];
}

/** How much of a point lies inside some rings (even-odd), with a soft edge, half of it on each side. */
function coverage(rings: readonly Ring[], [x, y]: [number, number], feather: number): number {
  let inside = false;
  let near = Infinity;
  for (const ring of rings)
    ring.forEach(([ax, ay], index) => {
      const [bx, by] = ring[(index + 1) % ring.length];
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
      const long = (bx - ax) ** 2 + (by - ay) ** 2;
      const share =
        long === 0 ? 0 : Math.max(0, Math.min(1, ((x - ax) * (bx - ax) + (y - ay) * (by - ay)) / long));
      near = Math.min(near, Math.hypot(x - ax - share * (bx - ax), y - ay - share * (by - ay)));
    });
  const signed = inside ? near : -near;
  return Math.max(0, Math.min(1, 0.5 + signed / Math.max(1, feather)));
}

/** The way back from a point of the frame at an instant: turned back, made smaller and moved back, about a point. */
function undoMove(layer: Layer, frame: number, pivot: [number, number], then = '') {
  const [px, py] = [
    at(layer, 'turns about, across', frame, pivot[0]),
    at(layer, 'turns about, down', frame, pivot[1]),
  ];
  const turn = (-at(layer, `${then}turn clockwise`, frame, 0) * Math.PI) / 180;
  const size = at(layer, `${then}size`, frame, 100) / 100;
  const [cos, sin] = [Math.cos(turn) / size, Math.sin(turn) / size];
  const [sideways, down] = [
    at(layer, `${then}move sideways`, frame, 0),
    at(layer, `${then}move down`, frame, 0),
  ];
  return (x: number, y: number): [number, number] => {
    const [dx, dy] = [x - px - sideways, y - py - down];
    return [px + dx * cos - dy * sin, py + dx * sin + dy * cos];
  };
}

/** The way back through all movements of a layer, the last one first. */
function undoMoves(layer: Layer, frame: number, pivot: [number, number]) {
  const [last, first] = [undoMove(layer, frame, pivot, 'then '), undoMove(layer, frame, pivot)];
  return (x: number, y: number): [number, number] => first(...last(x, y));
}

function sample({ width, height, data }: Picture, x: number, y: number, edges: string): number[] | null {
  const fold = (value: number, size: number) => {
    const within = ((value % (2 * size)) + 2 * size) % (2 * size);
    return within < size ? within : 2 * size - within;
  };
  if (edges === 'mirrored') [x, y] = [fold(x, width), fold(y, height)];
  else if (edges === 'repeated') [x, y] = [Math.max(0, Math.min(width, x)), Math.max(0, Math.min(height, y))];
  else if (x < 0 || y < 0 || x > width || y > height) return null;
  const [left, top] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [right, down] = [x - 0.5 - left, y - 0.5 - top];
  const pixel = (column: number, row: number, channel: number) => {
    const [across, line] = [Math.max(0, Math.min(width - 1, column)), Math.max(0, Math.min(height - 1, row))];
    return data[(line * width + across) * 4 + channel];
  };
  return [0, 1, 2].map(
    (channel) =>
      (pixel(left, top, channel) * (1 - right) + pixel(left + 1, top, channel) * right) * (1 - down) +
      (pixel(left, top + 1, channel) * (1 - right) + pixel(left + 1, top + 1, channel) * right) * down,
  );
}

const edgesOf = (layer: Layer): string =>
  [...layer.keys()].flatMap((what) => /^beyond its edges the picture is (\w+)$/.exec(what)?.[1] ?? [])[0] ??
  '';

/** Paints a frame of the film by the sheet alone. */
export function followSheet(
  csv: string,
  films: Films,
  { width, height }: { width: number; height: number },
  frame: number,
): { width: number; height: number; data: Uint8ClampedArray } {
  const layers = layersOf(csv);
  const whole = layers.get(everything) ?? new Map<string, Key[]>();
  const shown = [...layers].filter(
    ([name, layer]) =>
      name !== everything &&
      layer.get('begins to show')![0].frame <= frame &&
      layer.get('no longer shows')![0].frame > frame,
  );
  const middle: [number, number] = [width / 2, height / 2];
  const instants = (angle: number) =>
    angle === 0
      ? [frame]
      : Array.from({ length: 24 }, (_, step) => frame + (angle / 360) * ((step + 0.5) / 24 - 0.5));
  /** What a layer shows at points of the frame at an instant. */
  const prepared = (layer: Layer, picture: Picture, when: number) => {
    const back = undoMoves(layer, when, middle);
    const scale = at(layer, 'size of the file', when, 100) / 100;
    const [left, top] = [
      at(layer, 'left edge of the file', when, 0),
      at(layer, 'upper edge of the file', when, 0),
    ];
    const edges = edgesOf(layer);
    const [masked, then] = maskFrom(layers, layer, when);
    const { rings, inFile } = maskAt(masked, then);
    const feather = at(masked, 'mask feather, both sides together', then, 0);
    const isMasked = [...layer.keys()].some((what) => what.startsWith('mask'));
    const opacity = at(layer, 'opacity', when, 100) / 100;
    const inverted = layer.has('mask shows what lies outside');
    return (x: number, y: number) => {
      const [mx, my] = back(x, y);
      const [fx, fy] = [(mx - left) / scale, (my - top) / scale];
      const rgb = sample(picture, fx, fy, edges);
      const inside = isMasked && rgb ? coverage(rings, inFile ? [fx, fy] : [x, y], feather) : 1;
      return rgb && { rgb, alpha: (inverted ? 1 - inside : inside) * opacity };
    };
  };
  const sums = new Float64Array(width * height * 3);
  const all = instants(at(whole, 'motion blur, shutter open', frame, 0));
  const pictures = shown.map(([name, layer]) => films(name, at(layer, 'second of its file', frame, 0)));
  for (const when of all) {
    const back = undoMoves(whole, when, middle);
    const seen = shown.map(([, layer], index) => {
      const own = at(layer, 'motion blur, shutter open', frame, 0);
      return (own === 0 ? [when] : instants(own)).map((one) => prepared(layer, pictures[index], one));
    });
    for (let row = 0; row < height; row++)
      for (let column = 0; column < width; column++) {
        const [x, y] = back(column + 0.5, row + 0.5);
        let under = [0, 0, 0];
        for (const layer of seen) {
          const over = [0, 0, 0];
          for (const show of layer) {
            const one = show(x, y);
            const alpha = one?.alpha ?? 0;
            under.forEach((value, channel) => {
              over[channel] += (value * (1 - alpha) + (one?.rgb[channel] ?? 0) * alpha) / layer.length;
            });
          }
          under = over;
        }
        const place = (row * width + column) * 3;
        under.forEach((value, channel) => (sums[place + channel] += value / all.length));
      }
  }
  const data = Uint8ClampedArray.from({ length: width * height * 4 }, (_, index) =>
    index % 4 === 3 ? 255 : sums[(index >> 2) * 3 + (index % 4)],
  );
  return { width, height, data };
}
