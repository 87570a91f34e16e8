import { allowed } from '../finding/allowed';
import type { Finding, Severity } from '../finding/finding';
import type { Comparison, TakeMeasure } from '../model/measures';
import type { Take } from '../model/records';
import { perSecond, type Rate } from '../time/rate';
import { filmSlot, noSlot, plateSlot } from '../model/slots';
import { cutOff, type Size } from '../geometry/size';
import type { Placement } from '../geometry/placement';
import { meanStep } from './picture-times';
import { goesElsewhere, mostBeside } from './repeats/loose';
import type { TakeCode } from './take-words';

/** "to the right", "down" … by the larger part of a shift, as the picture shows it. */
function direction({ dx, dy }: Placement): string {
  if (Math.abs(dx) >= Math.abs(dy)) return dx > 0 ? 'to the right' : 'to the left';
  return dy > 0 ? 'down' : 'up';
}

/** What the film is made as. */
type Delivery = Size & { rate: Rate };

/** Whether a take has a picture for each of the film's. One whose rate varies is placed by its real times. */
function examineRate(take: Take, { times }: TakeMeasure, { rate }: Delivery): Finding<TakeCode>[] {
  // Times in whole milliseconds are off one by one, and right in the mean.
  const usual = meanStep(times);
  if (!(usual > 0) || times.longest - times.shortest > usual / 2 || isIdle(take)) return [];
  const ratio = 1 / (usual * perSecond(rate));
  const whole = Math.max(1, Math.round(ratio));
  if (Math.abs(ratio - whole) <= allowed.rate * whole) return [];
  return [
    {
      code: 'take.rate',
      severity: 'watch',
      where: { take: take.id },
      measured: { value: 1 / usual, unit: 'perSecond' },
      facts: { film: perSecond(rate), lacks: ratio < 1 ? 1 : 0 },
    },
  ];
}

/** True for a take that fills no slot: nobody knows what it is, or it is kept out, or taken apart. */
const isIdle = ({ slot }: Take): boolean => slot === null || slot === noSlot || slot === filmSlot;

/** Judges how a take can be read at all. One that nobody has a use for is only said to be open. */
function examineLight(take: Take, { light }: TakeMeasure): Finding<TakeCode>[] {
  if (!light || isIdle(take)) return [];
  const found = (code: TakeCode, severity: Severity, value: number, most: number): Finding<TakeCode> => ({
    code,
    severity,
    where: { take: take.id },
    measured: { value, unit: 'share' },
    allowed: { value: most, unit: 'share' },
  });
  const { dark, blown, flicker } = light;
  if (dark > allowed.dark) return [found('take.dark', 'stop', dark, allowed.dark)];
  return [
    ...(blown > allowed.blown
      ? [found('take.blown', blown > allowed.graveBlown ? 'stop' : 'watch', blown, allowed.blown)]
      : []),
    ...(flicker > allowed.flicker ? [found('take.flicker', 'watch', flicker, allowed.flicker)] : []),
  ];
}

/** How the camera of a take stood against its plate, or how it repeated that one's move. */
function examineCamera(
  take: Take,
  comparison: Comparison,
  size: Size,
  delivery: Delivery,
): Finding<TakeCode>[] {
  const { path, left, repeat } = comparison;
  const { furthest, leaves } = path;
  const factor = Math.max(delivery.width / size.width, delivery.height / size.height);
  const found = {
    where: { take: take.id, from: leaves ?? furthest.at },
    measured: { value: furthest.move * factor, unit: 'px' as const },
    facts: {
      direction: direction(furthest.placement),
      turn: furthest.placement.rotation,
      zoom: furthest.placement.scale - 1,
      during: leaves === null ? 0 : 1,
      left: left * factor,
      late: repeat?.late ?? 0,
    },
  };
  if (!repeat) return [examineLock(take, found, stood, true)];
  const beside = (mostBeside(comparison, size) ?? 0) * factor;
  if (goesElsewhere(comparison, size)) {
    const most = { value: beside, unit: 'px' as const };
    return [{ ...found, code: 'take.repeats-loosely', severity: 'stop', allowed: most }];
  }
  const { lead, own } = repeat.travels;
  const isPart = lead * factor > beside && own < mostOfWay * lead;
  const part: Finding<TakeCode>[] = isPart
    ? [
        {
          code: 'take.repeats-part',
          severity: 'watch',
          where: { take: take.id },
          measured: { value: own / lead, unit: 'share' },
        },
      ]
    : [];
  // That a pass lies a little beside the first one belongs to it, and is never too far to be mended.
  return [...part, examineLock(take, found, repeated, false)];
}

/** a take that goes less of its plate's way is said to go a part of it */
const mostOfWay = 0.8;

/**
 * How far a camera was off, and what is done about it.
 * @param codes what that is called
 * @param canBeGrave whether it can be off too far to be mended well
 */
function examineLock(
  take: Take,
  found: Pick<Finding, 'where' | 'measured'> & { measured: { value: number }; facts: { left: number } },
  codes: typeof stood | typeof repeated,
  canBeGrave: boolean,
): Finding<TakeCode> {
  const most = { value: allowed.move, unit: 'px' as const };
  const move = found.measured.value;
  if (move <= allowed.move)
    return { ...found, allowed: most, code: codes.still, severity: 'fine', where: { take: take.id } };
  if (take.steady) {
    const isLeft = found.facts.left > allowed.move;
    return {
      ...found,
      allowed: most,
      code: isLeft ? codes.inPart : codes.steadied,
      severity: isLeft ? 'fix' : 'fine',
      fix: { command: 'unsteadyTake', args: { take: take.id } },
    };
  }
  return {
    ...found,
    allowed: most,
    code: codes.moved,
    severity: canBeGrave && move > allowed.graveMove * allowed.move ? 'stop' : 'fix',
    fix: { command: 'steadyTake', args: { take: take.id } },
  };
}

/** What is found of a camera that should stand, and of one that should repeat a move. */
const stood = {
  still: 'take.still',
  steadied: 'take.steadied',
  inPart: 'take.steadied-in-part',
  moved: 'take.moved',
} as const;
const repeated = {
  still: 'take.repeats',
  steadied: 'take.repeats-corrected',
  inPart: 'take.repeats-in-part',
  moved: 'take.repeats-beside',
} as const;

/** Whether a take is as sharp as its plate. */
function examineSharpness(
  take: Take,
  { softer = [] }: Comparison,
  size: Size,
  delivery: Delivery,
): Finding<TakeCode>[] {
  if (softer.length === 0) return [];
  const factor = Math.max(delivery.width / size.width, delivery.height / size.height);
  const least = allowed.unsharp * size.width;
  const furthest = softer.reduce((most, one) => (Math.abs(one.by) > Math.abs(most.by) ? one : most));
  const off = Math.abs(furthest.by);
  if (off < least) return [];
  const isSofter = furthest.by > 0;
  const all = softer.every(({ by }) => (isSofter ? by : -by) >= least);
  return [
    {
      code: isSofter ? 'take.soft' : 'take.sharper',
      severity: isSofter && off >= allowed.graveUnsharp * least ? 'fix' : 'watch',
      where: { take: take.id, ...(all ? {} : { from: furthest.time }) },
      measured: { value: off * factor, unit: 'px' },
      allowed: { value: least * factor, unit: 'px' },
    },
  ];
}

/** Whether the camera of a plate stands, or moves as it should. */
function examinePlate({ id, moves }: Take, { motion }: TakeMeasure): Finding<TakeCode>[] {
  const where = { take: id };
  const args = { take: id };
  if (moves) return [{ code: 'take.moves', severity: 'fine', where, fix: { command: 'standStill', args } }];
  if (!motion || motion.share <= allowed.plateMoves) return [];
  return [
    {
      code: 'take.plate-moves',
      severity: 'fix',
      where,
      measured: { value: motion.share, unit: 'share' },
      allowed: { value: allowed.plateMoves, unit: 'share' },
      fix: { command: 'repeatMove', args },
    },
  ];
}

/**
 * Judges a take against its plate and the delivery.
 * @param measure what decoding measured
 * @param comparison null while there is no plate, or for the plate itself
 * @param plate what decoding measured of the plate
 */
export function examineTake(
  take: Take,
  measure: TakeMeasure,
  comparison: Comparison | null,
  plate: TakeMeasure | null,
  delivery: Delivery,
): Finding<TakeCode>[] {
  const findings: Finding<TakeCode>[] = [];
  const where = { take: take.id };
  const add = (finding: Omit<Finding<TakeCode>, 'where'>, place = {}) =>
    findings.push({ ...finding, where: { ...where, ...place } });
  if (take.sketch) {
    // A drawing has neither a camera nor a light that could be right or wrong.
    add({ code: 'take.sketch', severity: 'fix' });
    return findings;
  }
  const { usual, shortest, longest } = measure.times;
  const uneven = Math.max(longest - usual, usual - shortest);
  if (usual > 0 && uneven > usual * 0.4) {
    add({
      code: 'take.varying-rate',
      severity: 'watch',
      measured: { value: 1 / usual, unit: 'perSecond' },
      facts: { least: 1 / longest, most: 1 / shortest },
    });
  }
  if (plate && (plate.size.width !== measure.size.width || plate.size.height !== measure.size.height)) {
    add({
      code: 'take.size',
      severity: 'stop',
      facts: {
        size: `${measure.size.width} × ${measure.size.height}`,
        plate: `${plate.size.width} × ${plate.size.height}`,
        smaller: measure.size.width * measure.size.height < plate.size.width * plate.size.height ? 1 : 0,
      },
    });
  }
  findings.push(...examineRate(take, measure, delivery));
  const cut = cutOff(measure.size, delivery);
  if (cut.share > allowed.cropped && take.slot !== filmSlot) {
    add({
      code: 'take.cropped',
      severity: 'watch',
      measured: { value: cut.share, unit: 'share' },
      facts: { of: cut.of, film: `${delivery.width} × ${delivery.height}` },
    });
  }
  findings.push(...examineLight(take, measure));
  const { colours } = measure;
  if (colours.assumed) {
    const other = colours.matrix === 'bt601' ? 'bt709' : 'bt601';
    add({
      code: take.matrix ? 'take.colours-chosen' : 'take.colours-assumed',
      severity: take.matrix ? 'fine' : 'watch',
      facts: { matrix: colours.matrix, lines: measure.size.height },
      fix: { command: 'readColours', args: { take: take.id, matrix: other } },
    });
  }
  if (take.slot === plateSlot) findings.push(...examinePlate(take, measure));
  if (!comparison) return findings;
  if (comparison.agreement < allowed.agreement) {
    add({
      code: comparison.repeat ? 'take.other-move' : 'take.other-view',
      severity: 'stop',
      measured: { value: comparison.agreement, unit: 'share' },
      allowed: { value: allowed.agreement, unit: 'share' },
    });
    return findings;
  }
  findings.push(...examineCamera(take, comparison, measure.size, delivery));
  findings.push(...examineSharpness(take, comparison, measure.size, delivery));
  const { unplaced } = comparison.path;
  if (unplaced) {
    add(
      { code: 'take.unplaced', severity: 'watch', measured: { value: unplaced.pictures, unit: 'count' } },
      { from: unplaced.at },
    );
  }
  const { colour } = comparison;
  const gone = colour !== null && colour.after <= allowed.difference;
  if (!colour) {
    add({ code: 'take.colour-unknown', severity: 'watch' });
  } else if (Math.abs(colour.stops) > allowed.stops || colour.before > allowed.difference) {
    add({
      code: !take.match ? 'take.light' : gone ? 'take.matched' : 'take.matched-in-part',
      severity: take.match && gone ? 'fine' : 'fix',
      measured: { value: colour.stops, unit: 'stops' },
      allowed: { value: allowed.stops, unit: 'stops' },
      facts: { before: colour.before, after: colour.after, drift: colour.drift },
      fix: { command: take.match ? 'unmatchTake' : 'matchTake', args: { take: take.id } },
    });
  } else {
    add({
      code: 'take.same-light',
      severity: 'fine',
      measured: { value: colour.stops, unit: 'stops' },
      facts: { before: colour.before },
    });
  }
  return findings;
}
