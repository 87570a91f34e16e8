import { median } from '../statistics';
import { refuse } from '../error';
import { cornerMove, scalePlacement, type Placement } from '../geometry/placement';
import { prepareReference, registerFrame, type Reference } from '../footage/register';
import { ciede2000, labOf, toLinear } from '../picture/colour';
import type { Point, Size } from '../geometry/size';
import type { RgbaImage } from '../picture/image';
import { cells, sample, type Sampled } from './sampled';

/** A plate, prepared once for many checks. */
export type WatchReference = {
  registered: Reference;
  colour: Float32Array;
  detail: Float32Array;
  /** how much codes differ within and around a cell: an edge that moves a little must not count as a person */
  edge: Float32Array;
  size: Size;
};

/** What one check measured against the plate. */
export type Reading = {
  /** in pixels of the delivery */
  placement: Placement;
  /** how far the corner that moved most has moved, delivery pixels */
  move: number;
  /** share of the picture that fits the plate */
  agreement: number;
  /** > 0 where the picture is brighter than the plate */
  stops: number;
  /** median CIEDE2000 of what is still, with the difference in light taken out */
  colour: number;
  /** fine detail against the plate's: 1 is as sharp, less is softer */
  sharpness: number;
  /** 1 a cell in which something stands that the plate has not */
  present: Uint8Array;
  /** the same where it is only darker: a shadow */
  shadow: Uint8Array;
  /** mean code of each cell, to tell what moves from what hangs */
  level: Float32Array;
};

const count = cells.width * cells.height;

/**
 * Prepares a plate.
 * @param pictures one picture of the empty set, or several in a row: their mean has less noise
 * @throws CoreError `no-reference` without a picture, `sizes-differ` where they differ in size
 */
export function watchReference(pictures: readonly RgbaImage[]): WatchReference {
  if (pictures.length === 0) refuse('no-reference', 'There is no clean plate yet. Film the plate first.');
  const taken = pictures.map(sample);
  const [first] = taken;
  const mean = (pick: (one: Sampled) => Float32Array) =>
    first && pick(first).map((_, at) => taken.reduce((sum, one) => sum + pick(one)[at], 0) / taken.length);
  for (const one of taken) {
    if (one.luma.width !== first.luma.width || one.luma.height !== first.luma.height)
      refuse('sizes-differ', 'The plate’s pictures differ in size. Film the plate again in one go.');
  }
  const colour = mean((one) => one.colour);
  const edge = new Float32Array(count);
  const green = (x: number, y: number) =>
    colour[
      (Math.min(cells.height - 1, Math.max(0, y)) * cells.width + Math.min(cells.width - 1, Math.max(0, x))) *
        3 +
        1
    ];
  for (let y = 0; y < cells.height; y++)
    for (let x = 0; x < cells.width; x++)
      edge[y * cells.width + x] = Math.max(
        Math.abs(green(x + 1, y) - green(x, y)),
        Math.abs(green(x - 1, y) - green(x, y)),
        Math.abs(green(x, y + 1) - green(x, y)),
        Math.abs(green(x, y - 1) - green(x, y)),
      );
  const registered = prepareReference({ ...first.luma, data: mean((one) => one.luma.data) });
  return { registered, colour, detail: mean((one) => one.detail), edge, size: first.from };
}

/** The value that most agree on: the median, then the mean of what lies near it, twice. */
function consensus(values: readonly number[], near: number): number {
  if (values.length === 0) return 0;
  let centre = median(values);
  for (let round = 0; round < 2; round++) {
    const close = values.filter((value) => Math.abs(value - centre) < near);
    if (close.length > 0) centre = close.reduce((sum, value) => sum + value, 0) / close.length;
  }
  return centre;
}

/** Light of each cell against the plate's, per channel, as log2; cells that are too dark, clipped or on an edge are left out. */
function lightOf(reference: WatchReference, colour: Float32Array) {
  const ratios: { cell: number; rgb: [number, number, number]; all: number }[] = [];
  for (let cell = 0; cell < count; cell++) {
    const at = cell * 3;
    let usable = reference.edge[cell] < 40;
    for (let channel = 0; channel < 3; channel++) {
      const [one, two] = [colour[at + channel], reference.colour[at + channel]];
      if (one > 245 || two > 245 || one < 12 || two < 12) usable = false;
    }
    if (!usable) continue;
    const light = (from: Float32Array) => [0, 1, 2].map((channel) => toLinear(from[at + channel]));
    const [now, then] = [light(colour), light(reference.colour)];
    const rgb = now.map((value, channel) => Math.log2(value / then[channel])) as [number, number, number];
    const luma = (rgb: number[]) => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
    ratios.push({ cell, rgb, all: Math.log2(luma(now) / luma(then)) });
  }
  return ratios;
}

/** Colour that is left once the change in light is taken out: median CIEDE2000 of cells that agree. */
function colourShift(
  reference: WatchReference,
  ratios: ReturnType<typeof lightOf>,
  stops: number,
): { shift: number; gains: [number, number, number] } {
  const still = ratios.filter(({ all }) => Math.abs(all - stops) < 0.15);
  const gains = [0, 1, 2].map((channel) =>
    consensus(
      still.map(({ rgb }) => rgb[channel]),
      0.15,
    ),
  ) as [number, number, number];
  const code = (linear: number) => {
    const value = linear <= 0.0031308 ? linear * 12.92 : 1.055 * linear ** (1 / 2.4) - 0.055;
    return Math.round(255 * Math.min(1, Math.max(0, value)));
  };
  const apart = Math.ceil(still.length / 600);
  const spread = still.filter((_, index) => index % apart === 0);
  const differences = spread.map(({ cell }) => {
    const plate = [0, 1, 2].map((channel) => toLinear(reference.colour[cell * 3 + channel]));
    const codes = (by: (channel: number) => number) =>
      labOf(...(plate.map((value, channel) => code(value * 2 ** by(channel))) as [number, number, number]));
    return ciede2000(
      codes(() => 0),
      codes((channel) => gains[channel] - stops),
    );
  });
  return { shift: median(differences), gains };
}

/**
 * Holds one picture against the plate.
 * @param delivery size that pixels are counted in
 * @throws CoreError `watch.size` where the picture has another shape than the plate
 */
export function readPicture(reference: WatchReference, image: RgbaImage, delivery: Size): Reading {
  const taken = sample(image);
  const { registered } = reference;
  if (taken.luma.width !== registered.width || taken.luma.height !== registered.height)
    return refuse(
      'watch.size',
      `The plate is ${reference.size.width} × ${reference.size.height}, this picture ${image.width} × ${image.height}. Film the plate again with this camera.`,
    );
  const found = registerFrame(registered, taken.luma);
  const factor = Math.max(delivery.width / registered.width, delivery.height / registered.height);
  const placement = scalePlacement(found, factor);
  const seen = { width: registered.width * factor, height: registered.height * factor };
  const ratios = lightOf(reference, taken.colour);
  const stops = consensus(
    ratios.map(({ all }) => all),
    0.25,
  );
  const { shift, gains } = colourShift(reference, ratios, stops);
  const present = new Uint8Array(count);
  const shadow = new Uint8Array(count);
  const level = new Float32Array(count);
  const sharp: number[] = [];
  // An edge that moved by a part of a cell changes the cell by that part of it.
  const slip = Math.min(1, (cornerMove(found, registered) / registered.width) * cells.width);
  for (let cell = 0; cell < count; cell++) {
    const at = cell * 3;
    let [most, darker] = [0, true];
    const alike: number[] = [];
    for (let channel = 0; channel < 3; channel++) {
      const expected = lifted(reference.colour[at + channel], gains[channel]);
      const off = taken.colour[at + channel] - expected;
      level[cell] += taken.colour[at + channel] / 3;
      most = Math.max(most, Math.abs(off));
      if (off > -4) darker = false;
      alike.push(taken.colour[at + channel] / Math.max(8, expected));
    }
    const limit = 13 + 1.5 * slip * reference.edge[cell];
    if (most <= limit) {
      if (reference.detail[cell] > 60) sharp.push(taken.detail[cell] / reference.detail[cell]);
      continue;
    }
    const spread = Math.max(...alike) - Math.min(...alike);
    present[cell] = 1;
    if (darker && spread < 0.14 && Math.min(...alike) > 0.25) shadow[cell] = 1;
  }
  return {
    placement,
    move: found.agreement > 0 ? cornerMove(placement, seen) : 0,
    agreement: found.agreement,
    stops,
    colour: shift,
    sharpness: sharp.length >= 12 ? Math.sqrt(consensus(sharp, 0.5)) / 2 ** (stops / 2.2) : 1,
    present,
    shadow,
    level,
  };
}

/** A display code under more or less light. */
const lifted = (code: number, stops: number): number => Math.min(255, code * 2 ** (stops / 2.2));

/** Where a performer or a shadow lies on a line of the frame: shares of its length, and which of the two it is. */
export function crossingOf(
  reading: Reading,
  from: Point,
  to: Point,
): { from: number; to: number; shadow: boolean } | null {
  const steps = 48;
  const hits: { share: number; shadow: boolean }[] = [];
  for (let step = 0; step < steps; step++) {
    const share = (step + 0.5) / steps;
    const x = Math.floor((from[0] + (to[0] - from[0]) * share) * cells.width);
    const y = Math.floor((from[1] + (to[1] - from[1]) * share) * cells.height);
    if (x < 0 || y < 0 || x >= cells.width || y >= cells.height) continue;
    const cell = y * cells.width + x;
    if (reading.present[cell]) hits.push({ share, shadow: reading.shadow[cell] === 1 });
  }
  if (hits.length < 2) return null;
  const shadows = hits.filter(({ shadow }) => shadow).length;
  return { from: hits[0].share, to: hits[hits.length - 1].share, shadow: shadows * 2 > hits.length };
}
