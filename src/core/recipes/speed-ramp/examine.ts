import type { Finding } from '../../finding/finding';
import { meanStep } from '../../footage/picture-times';
import { sourceAt } from '../../motion/time-map';
import { timeOfBeat } from '../../time/grid';
import { deliveryRates, frameOfTime, perSecond, timeOfFrame } from '../../time/rate';
import { examineFollow } from '../follow-point';
import type { ChosenTake, Material } from '../material';
import type { Ruler } from '../recipe';
import { tearsIn } from './works';
import { instantOf, posesOf, rampAnchors, rampBlend, rampFollow, rampTime, type RampMoment } from './build';
import { wholeRamp } from './settings';
import { passSlot } from './slots';
import type { RampWord } from './words';

/** Frames that show the same picture of their take as the frame before. */
function repeatsOf(seconds: readonly number[], { measure }: ChosenTake): number {
  const step = measure ? meanStep(measure.times) : 0;
  if (!measure || step === 0) return 0;
  const shown = seconds.map((one) => Math.floor((one - measure.times.first) / step + 0.5));
  return shown.filter((picture, index) => index > 0 && picture === shown[index - 1]).length;
}

/** pixels of the delivery for one that was filmed, beyond which it looks soft. From memory, no published source */
const softBeyond = 1.15;

/** Rates that cameras film at, pictures a second, rising. */
const captureRates = [...deliveryRates.map(perSecond), 100, 120, 240].sort((a, b) => a - b);

/** What is wrong with a ramp as it stands, how much, and what to do. */
export function examineRamp(
  moment: RampMoment,
  ruler: Ruler,
  { takes, solved: solvedWorks }: Material,
): Finding<RampWord>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const { slow, zoom, lacking } = wholeRamp(moment.settings);
  const findings: Finding<RampWord>[] = [];
  const add = (finding: Omit<Finding<RampWord>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const chosen = takes[passSlot.key] ?? null;
  if (!chosen) add({ code: 'ramp.missing', severity: 'stop' });
  const solved = rampTime(moment, ruler);
  if (!solved) {
    add({ code: 'ramp.never-lands', severity: 'stop' });
    return findings;
  }
  for (const one of solved.findings) add(one);
  const anchors = rampAnchors(moment, ruler);
  const poses = anchors.slice(1, -1);
  if (!solved.findings.some(({ code }) => code === 'ramp.out-of-reach')) {
    const off = poses.map((one) => Math.abs(timeOfFrame(rate, one.frame) - timeOfBeat(grid, one.position)));
    add({
      code: 'ramp.lands',
      severity: 'fine',
      measured: { value: Math.max(...off), unit: 'seconds' },
      facts: { poses: poses.length },
    });
  }
  const unmarked = posesOf(moment).filter((pose) => !instantOf(moment, ruler, pose).marked);
  if (chosen && unmarked.length > 0)
    add({ code: 'ramp.unmarked', severity: 'fix', facts: { poses: unmarked.join(' and ') } });
  if (!chosen?.measure) return findings;
  const [start, end] = [anchors[0].frame, anchors[anchors.length - 1].frame];
  const seconds = Array.from({ length: end - start }, (_, index) =>
    sourceAt(solved.map, timeOfFrame(rate, start + index)),
  );
  const { times } = chosen.measure;
  const has = times.last + meanStep(times) - seconds[0];
  const needs = seconds[seconds.length - 1] - seconds[0];
  if (has < needs)
    add({
      code: 'ramp.short',
      severity: 'stop',
      measured: { value: frameOfTime(rate, Math.max(0, has)), unit: 'frames' },
      allowed: { value: frameOfTime(rate, needs), unit: 'frames' },
      facts: { earlier: 0 },
    });
  for (const { code, ...rest } of examineFollow(moment, { solved: solvedWorks }, passSlot.key))
    add({ code: `ramp.${code}`, ...rest });
  const repeated = repeatsOf(seconds, chosen);
  const enough = captureRates.find((one) => one >= (perSecond(rate) / slow) * 100 * 0.999);
  const blend = rampBlend(moment, ruler, { takes, solved: {} });
  if (blend || repeated > 0)
    add({
      code: blend ? (lacking === 'moves' ? 'ramp.makes' : 'ramp.blends') : 'ramp.repeats',
      severity: 'watch',
      measured: { value: blend?.mixed ?? repeated, unit: 'frames' },
      facts: { rate: Math.round(enough ?? captureRates[captureRates.length - 1]) },
    });
  const torn = lacking === 'moves' ? tearsIn(solvedWorks) : [];
  const worst = torn.reduce((most, one) => Math.max(most, one.share), 0);
  if (torn.length > 0)
    add({
      code: 'ramp.tears',
      severity: 'fix',
      measured: { value: torn.length, unit: 'frames' },
      facts: { first: torn[0].frame, last: torn[torn.length - 1].frame, share: worst },
    });
  const { width, height } = chosen.measure.size;
  const fill = Math.max(project.width / width, project.height / height);
  const followed = rampFollow(moment, ruler, { takes, solved: solvedWorks }).enlarged;
  const enlarged = fill * (1 + zoom / 100) * followed;
  if ((zoom > 0 || followed > 1) && enlarged > softBeyond)
    add({
      code: 'ramp.soft',
      severity: 'watch',
      measured: { value: enlarged, unit: 'share' },
      allowed: { value: softBeyond, unit: 'share' },
    });
  return findings;
}
