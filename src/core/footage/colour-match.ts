import { median } from '../statistics';
import { ciede2000, labOf, toLinear } from '../picture/colour';
import { gradeColour, type Cdl } from '../picture/grade';
import { checkPicture, checkSameSize, type GrayImage, type RgbaImage } from '../picture/image';
import { isCoreError, refuse } from '../error';
import { solveLinear } from '../linear-system';
import { robustSpread, tukeyLimit, tukeyWeight } from '../robust';

/** A colour decision that makes a frame look like its reference, and how far apart they were. */
export type ColourMatch = Cdl & {
  /** > 0 where the frame is brighter than the reference */
  stops: number;
  /** median CIEDE2000 over still, unclipped pixels without and with the decision */
  before: number;
  after: number;
};

/** A match that one take is given. */
export type TakeMatch = ColourMatch & {
  /** stops between its darkest and its brightest frame */
  drift: number;
  /** stops that the take was brighter than the reference at some of its seconds */
  light: { time: number; stops: number }[];
};

/** A picture of a take and when it shows, in seconds. */
type TimedPicture = { time: number; picture: RgbaImage };

/** The same with the picture that it has to look like. */
export type MatchedView = TimedPicture & { reference: RgbaImage };

/** A colour of the frame and the reference's at the same place. */
type Pair = { from: number[]; to: number[] };

/** Means of small blocks that are flat and unclipped in both pictures: noise is gone, edges are left out. */
function pairsOf(reference: RgbaImage, frame: RgbaImage, exclude?: GrayImage): Pair[] {
  const block = Math.max(2, Math.round(Math.sqrt((frame.width * frame.height) / 6000)));
  const pairs: Pair[] = [];
  for (let y = 0; y + block <= frame.height; y += block) {
    for (let x = 0; x + block <= frame.width; x += block) {
      const sums = [0, 0, 0, 0, 0, 0];
      let clipped = false;
      let [low, high] = [255, 0];
      for (let dy = 0; dy < block && !clipped; dy++) {
        for (let dx = 0; dx < block; dx++) {
          const pixel = (y + dy) * frame.width + x + dx;
          if (exclude && exclude.data[pixel] > 127) clipped = true;
          for (let channel = 0; channel < 3; channel++) {
            const one = frame.data[pixel * 4 + channel];
            const two = reference.data[pixel * 4 + channel];
            if (one > 250 || two > 250 || (one < 3 && two < 3)) clipped = true;
            sums[channel] += one;
            sums[channel + 3] += two;
          }
          const green = reference.data[pixel * 4 + 1];
          low = Math.min(low, green);
          high = Math.max(high, green);
        }
      }
      if (clipped || high - low > 60) continue;
      const area = block * block * 255;
      pairs.push({ from: sums.slice(0, 3).map((s) => s / area), to: sums.slice(3).map((s) => s / area) });
    }
  }
  return pairs;
}

/** Slope, offset and power of one channel by damped Gauss-Newton steps with Tukey weights. */
function fitChannel(pairs: Pair[], channel: number): { slope: number; offset: number; power: number } {
  const ratios = pairs.filter((p) => p.from[channel] > 0.04).map((p) => p.to[channel] / p.from[channel]);
  let fit = { slope: Math.min(4, Math.max(0.25, median(ratios) || 1)), offset: 0, power: 1 };
  for (let round = 0; round < 25; round++) {
    const errors = pairs.map((p) => {
      const base = Math.max(1e-4, p.from[channel] * fit.slope + fit.offset);
      return p.to[channel] - base ** fit.power;
    });
    const limit = tukeyLimit * Math.max(0.004, robustSpread(errors.map(Math.abs)));
    const matrix = [0, 1, 2].map(() => [0, 0, 0]);
    const right = [0, 0, 0];
    pairs.forEach((p, index) => {
      const weight = tukeyWeight(errors[index] / limit);
      if (weight === 0) return;
      const base = Math.max(1e-4, p.from[channel] * fit.slope + fit.offset);
      const lead = fit.power * base ** (fit.power - 1);
      const row = [lead * p.from[channel], lead, base ** fit.power * Math.log(base)];
      for (let i = 0; i < 3; i++) {
        right[i] += weight * row[i] * errors[index];
        for (let j = 0; j < 3; j++) matrix[i][j] += weight * row[i] * row[j];
      }
    });
    const count = pairs.length;
    // Holds offset and power near "none" where the pixels do not tell them apart from slope.
    const hold = [1e-5, 0.002, 0.002].map((factor) => factor * count);
    right[1] -= hold[1] * fit.offset;
    right[2] -= hold[2] * (fit.power - 1);
    hold.forEach((value, i) => (matrix[i][i] += value));
    const step = solveLinear(matrix, right);
    if (!step) break;
    fit = {
      slope: Math.min(6, Math.max(0.1, fit.slope + step[0])),
      offset: Math.min(0.3, Math.max(-0.3, fit.offset + step[1])),
      power: Math.min(2.5, Math.max(0.4, fit.power + step[2])),
    };
    if (Math.hypot(...step) < 1e-6) break;
  }
  return fit;
}

const difference = (one: number[], two: number[]): number => {
  const lab = (rgb: number[]) => {
    const [r, g, b] = rgb.map((value) => Math.min(255, Math.max(0, Math.round(value))));
    return labOf(r, g, b);
  };
  return ciede2000(lab(one), lab(two));
};

type Fitted = { cdl: Cdl; stops: number; still: Pair[] };

const lightOf = (rgb: number[]) =>
  0.2126 * toLinear(rgb[0]) + 0.7152 * toLinear(rgb[1]) + 0.0722 * toLinear(rgb[2]);

/** The decision for one frame, and what of it is part of the still picture, in code values. */
function fitColour(reference: RgbaImage, frame: RgbaImage, exclude?: GrayImage): Fitted {
  checkPicture(reference, 4);
  checkPicture(frame, 4);
  checkSameSize(reference, frame);
  if (exclude) checkSameSize(frame, exclude);
  const pairs = pairsOf(reference, frame, exclude);
  if (pairs.length < 40) {
    refuse(
      'nothing-still',
      'Too little of these two pictures can be compared. Choose a plate with the same view.',
    );
  }
  const fits = [0, 1, 2].map((channel) => fitChannel(pairs, channel));
  const tuple = (pick: (fit: (typeof fits)[number]) => number) => fits.map(pick) as [number, number, number];
  const cdl: Cdl = {
    slope: tuple((fit) => fit.slope),
    offset: tuple((fit) => fit.offset),
    power: tuple((fit) => fit.power),
    saturation: 1,
  };
  const scaled = pairs.map((pair) => ({
    from: pair.from.map((v) => v * 255),
    to: pair.to.map((v) => v * 255),
  }));
  const afters = scaled.map(({ from, to }) => difference(gradeColour(cdl, from), to));
  const fitting = Math.max(3, 2.5 * median(afters));
  const still = scaled.filter((_, index) => afters[index] <= fitting);
  const luma = (rgb: number[]) => 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
  let [across, along] = [0, 0];
  for (const { from, to } of still) {
    const graded = gradeColour(cdl, from);
    for (let channel = 0; channel < 3; channel++) {
      const chroma = graded[channel] - luma(graded);
      along += chroma * chroma;
      across += chroma * (to[channel] - luma(to));
    }
  }
  cdl.saturation = along > 1 ? Math.min(2, Math.max(0.5, across / along)) : 1;
  const lit = still.filter(({ to }) => lightOf(to) > 0.005);
  const stops = median(lit.map(({ from, to }) => Math.log2(Math.max(1e-4, lightOf(from)) / lightOf(to))));
  return { cdl, stops, still };
}

const apart = (still: Pair[], cdl?: Cdl): number =>
  median(still.map(({ from, to }) => difference(cdl ? gradeColour(cdl, from) : from, to)));

/**
 * The colour decision that makes `frame` look like `reference`. Both must lie on one another already.
 * @param options.exclude coverage 0..255 of what is not part of the still picture
 * @throws CoreError `sizes-differ`; `nothing-still` where too little of the picture can be compared
 * @see ASC CDL 1.2; CIE 142
 */
export function matchColour(
  reference: RgbaImage,
  frame: RgbaImage,
  options: { exclude?: GrayImage } = {},
): ColourMatch {
  const { cdl, stops, still } = fitColour(reference, frame, options.exclude);
  return { ...cdl, stops, before: apart(still), after: apart(still, cdl) };
}

/** One colour decision for a whole take, all of which has to look like one picture, as {@link matchViews} finds it. */
export const matchTake = (reference: RgbaImage, frames: readonly TimedPicture[]): TakeMatch | null =>
  matchViews(frames.map((frame) => ({ ...frame, reference })));

/**
 * One colour decision for a whole take, and how far apart its worst frame is without and with that decision: a light
 * that changes during the take is not followed by it.
 * @param views of the take, in turn; those that cannot be compared are passed over
 * @returns null where none can be compared
 * @throws CoreError `sizes-differ`
 */
export function matchViews(views: readonly MatchedView[]): TakeMatch | null {
  const fitted = views.flatMap(({ time, picture, reference }) => {
    try {
      return [{ ...fitColour(reference, picture), time }];
    } catch (error) {
      if (isCoreError(error) && error.code === 'nothing-still') return [];
      throw error;
    }
  });
  if (fitted.length === 0) return null;
  const light = fitted.map(({ time, stops }) => ({ time, stops }));
  fitted.sort((a, b) => a.stops - b.stops);
  const { cdl, stops } = fitted[fitted.length >> 1];
  return {
    ...cdl,
    stops,
    drift: fitted[fitted.length - 1].stops - fitted[0].stops,
    light,
    before: Math.max(...fitted.map(({ still }) => apart(still))),
    after: Math.max(...fitted.map(({ still }) => apart(still, cdl))),
  };
}
