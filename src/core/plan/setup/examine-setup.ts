import { steadyShutter } from '../../camera/exposure';
import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import type { Piece, Setup } from '../../model/plan-records';
import { rateLabel } from '../../time/rate';
import type { SetupNumbers } from './numbers';
import type { PlanInput } from '../plan';
import type { SetupCode } from './setup-words';

/** Metres that a rig needs round the lens, and its width through a door. Common sizes, no published source. */
export const rigs: Record<Setup['rig'], { name: string; room: number; width: number }> = {
  tripod: { name: 'tripod', room: 0.5, width: 0.3 },
  slider: { name: 'slider', room: 0.7, width: 0.35 },
  dolly: { name: 'dolly', room: 0.6, width: 0.75 },
  clamp: { name: 'clamp', room: 0.15, width: 0.2 },
};

type Examined = { input: PlanInput; setup: Setup; numbers: SetupNumbers };

function depthFindings({ setup, numbers }: Examined): Finding<SetupCode>[] {
  const { sharp, needed, marks } = numbers;
  const where = { setup: setup.id };
  const findings: Finding<SetupCode>[] = [];
  for (const { mark, depth, feet, top } of marks) {
    if (depth <= setup.focal / 1000)
      findings.push({ code: 'plan.mark-behind', severity: 'stop', where, facts: { name: mark.name } });
    else if (!feet || !top || feet.x < 0 || feet.x > 1 || top.y > 1 || feet.y < 0)
      findings.push({ code: 'plan.mark-outside', severity: 'fix', where, facts: { name: mark.name } });
  }
  if (!needed) return findings;
  const blurred = marks.find(
    ({ depth }) => depth > 0 && (depth < sharp.near - 1e-6 || depth > sharp.far + 1e-6),
  );
  if (!blurred)
    findings.push({
      code: 'plan.sharp',
      severity: 'fine',
      where,
      allowed: { value: Math.max(1, needed.aperture), unit: 'fNumber' },
      facts: { ...sharp, focus: needed.focus },
    });
  else if (needed.marked === null)
    findings.push({
      code: 'plan.too-deep',
      severity: 'stop',
      where,
      facts: { near: needed.near, far: needed.far },
    });
  else {
    const aperture = Math.max(needed.marked, setup.aperture);
    findings.push({
      code: 'plan.unsharp',
      severity: 'fix',
      where,
      measured: { value: blurred.depth, unit: 'metres' },
      facts: {
        ...sharp,
        name: blurred.mark.name,
        aperture,
        focus: needed.focus,
        stops: needed.stops,
        iso: needed.iso,
      },
      fix: {
        command: 'setSetup',
        args: { setup: setup.id, set: { aperture, focus: Number(needed.focus.toFixed(3)), iso: needed.iso } },
      },
    });
  }
  return findings;
}

/** A touch needs both eyes at one height and both feet at one distance. */
function contactFindings({ setup, numbers }: Examined): Finding<SetupCode>[] {
  const touching = numbers.planned.some(({ filming }) => filming.touching);
  const [one, other] = numbers.marks;
  if (!touching || !one || !other) return [];
  const facts = { name: `${one.mark.name} and ${other.mark.name}` };
  const check = (code: SetupCode, apart: number, most: number): Finding<SetupCode>[] =>
    apart <= most
      ? []
      : [
          {
            code,
            severity: 'fix',
            where: { setup: setup.id },
            measured: { value: apart, unit: 'metres' },
            allowed: { value: most, unit: 'metres' },
            facts,
          },
        ];
  return [
    ...check('plan.eye-height', Math.abs(one.eyeHeight - other.eyeHeight), allowed.eyes),
    ...check('plan.distance', Math.abs(one.depth - other.depth), allowed.depth),
  ];
}

function exposureFindings({ setup, numbers }: Examined): Finding<SetupCode>[] {
  const { shutter } = numbers;
  const where = { setup: setup.id };
  const findings: Finding<SetupCode>[] = [];
  const rate = rateLabel(setup.capture.rate);
  const fix = (value: number): Finding['fix'] => ({
    command: 'setSetup',
    args: { setup: setup.id, set: { shutter: value } },
  });
  if (shutter.angle > 360.5) {
    const steady = steadyShutter(0.5 / (setup.capture.rate.num / setup.capture.rate.den), shutter.mains);
    findings.push({
      code: 'plan.shutter-long',
      severity: 'stop',
      where,
      facts: { shutter: setup.shutter, rate, steady },
      fix: fix(steady),
    });
  } else if (shutter.angle < 80 || shutter.angle > 280)
    findings.push({
      code: 'plan.shutter',
      severity: 'watch',
      where,
      measured: { value: shutter.angle, unit: 'degrees' },
      facts: { wide: shutter.angle > 280 ? 1 : 0 },
    });
  if (setup.place === 'inside' && shutter.flicker > allowed.flicker)
    findings.push({
      code: 'plan.flicker',
      severity: 'fix',
      where,
      measured: { value: shutter.flicker, unit: 'share' },
      allowed: { value: allowed.flicker, unit: 'share' },
      facts: { mains: shutter.mains, shutter: setup.shutter, steady: shutter.steady },
      fix: fix(shutter.steady),
    });
  return findings;
}

function speedFindings({ setup, numbers }: Examined): Finding<SetupCode>[] {
  const { speed, shutter } = numbers;
  const where = { setup: setup.id };
  const measured = { value: speed.slowest, unit: 'speed' as const };
  if (speed.slowest < speed.possible - 1e-3) {
    if (!speed.needed) return [{ code: 'plan.no-rate', severity: 'watch', where, measured }];
    const picture = speed.needed.den / speed.needed.num;
    // A shutter for the old rate may be longer than a picture of the new one.
    const faster = 1 / setup.shutter > picture ? { shutter: steadyShutter(picture / 2, shutter.mains) } : {};
    return [
      {
        code: 'plan.too-slow',
        severity: 'fix',
        where,
        measured,
        allowed: { value: speed.possible, unit: 'speed' },
        facts: { rate: rateLabel(setup.capture.rate), needed: rateLabel(speed.needed) },
        fix: {
          command: 'setSetup',
          args: { setup: setup.id, set: { 'capture.rate': speed.needed, ...faster } },
        },
      },
    ];
  }
  if (speed.playback > 1.005)
    return [
      { code: 'plan.playback', severity: 'fine', where, measured: { value: speed.playback, unit: 'speed' } },
    ];
  return [];
}

function pictureFindings({ input, setup, numbers }: Examined): Finding<SetupCode>[] {
  const { reserve, backdrops, match } = numbers;
  const where = { setup: setup.id };
  const findings: Finding<SetupCode>[] = [];
  if (reserve.sharpness < 0.999)
    findings.push({
      code: 'plan.reserve',
      severity: 'watch',
      where,
      measured: { value: reserve.needed, unit: 'scale' },
      allowed: { value: reserve.there, unit: 'scale' },
    });
  if (input.project.upright)
    findings.push({
      code: 'plan.upright',
      severity: 'watch',
      where,
      measured: { value: reserve.upright, unit: 'share' },
      facts: { pixels: Math.round(reserve.upright * input.project.width) },
    });
  for (const { piece, gaps } of backdrops) {
    const [side, open] = Object.entries(gaps).reduce((most, one) => (one[1] > most[1] ? one : most));
    if (open > 0.001)
      findings.push({
        code: 'plan.backdrop',
        severity: 'fix',
        where,
        measured: { value: open, unit: 'share' },
        facts: { name: piece.name, side },
      });
  }
  if (match && Math.abs(match.size - 1) > 0.02)
    findings.push({
      code: 'plan.second-place',
      severity: 'fix',
      where,
      measured: { value: match.size, unit: 'share' },
      facts: {
        name: input.setups.find((one) => one.id === match.model)?.name ?? '',
        distance: match.distance,
        height: match.height,
      },
    });
  return findings;
}

/** Does the rig stand clear of walls and furniture, and does it fit through the door? */
function footprintFindings({ input, setup }: Examined): Finding<SetupCode>[] {
  const rig = rigs[setup.rig];
  const where = { setup: setup.id };
  const away = ({ x, y, width, depth }: Piece) =>
    Math.hypot(Math.max(0, Math.abs(x) - width / 2), Math.max(0, Math.abs(y) - depth / 2));
  const near = [
    ...Object.entries(setup.walls).map(([side, distance]) => ({ name: `the wall ${sides[side]}`, distance })),
    ...input.pieces
      .filter((piece) => piece.setup === setup.id && piece.what === 'furniture')
      .map((piece) => ({ name: piece.name, distance: away(piece) })),
  ].filter(({ distance }) => distance < rig.room);
  return [
    ...near.map(({ name, distance }): Finding<SetupCode> => ({
      code: 'plan.footprint',
      severity: 'fix',
      where,
      measured: { value: distance, unit: 'metres' },
      allowed: { value: rig.room, unit: 'metres' },
      facts: { name, rig: rig.name },
    })),
    ...input.pieces
      .filter((piece) => piece.setup === setup.id && piece.what === 'door' && piece.width < rig.width)
      .map((piece): Finding<SetupCode> => ({
        code: 'plan.door',
        severity: 'fix',
        where,
        measured: { value: piece.width, unit: 'metres' },
        allowed: { value: rig.width, unit: 'metres' },
        facts: { name: piece.name, rig: rig.name },
      })),
  ];
}
const sides: Record<string, string> = {
  left: 'on the left',
  right: 'on the right',
  ahead: 'ahead',
  behind: 'behind the camera',
};

function supplyFindings({ setup, numbers }: Examined): Finding<SetupCode>[] {
  const { supplies } = numbers;
  const where = { setup: setup.id };
  const findings: Finding<SetupCode>[] = [];
  if (supplies.card > 1)
    findings.push({
      code: 'plan.storage',
      severity: 'fix',
      where,
      measured: { value: supplies.needed, unit: 'gigabytes' },
      allowed: { value: setup.card, unit: 'gigabytes' },
      facts: { minutes: Math.ceil(supplies.minutes) },
    });
  if (supplies.battery > 1)
    findings.push({
      code: 'plan.battery',
      severity: 'fix',
      where,
      measured: { value: supplies.minutes, unit: 'minutes' },
      allowed: { value: setup.battery, unit: 'minutes' },
    });
  return findings;
}

/** Everything about one setup that is wrong, worth watching, or good to know. */
export function examineSetup(input: PlanInput, setup: Setup, numbers: SetupNumbers): Finding<SetupCode>[] {
  const examined = { input, setup, numbers };
  return [
    ...depthFindings(examined),
    ...contactFindings(examined),
    ...exposureFindings(examined),
    ...speedFindings(examined),
    ...pictureFindings(examined),
    ...footprintFindings(examined),
    ...supplyFindings(examined),
  ];
}
