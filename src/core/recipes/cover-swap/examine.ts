import type { Finding } from '../../finding/finding';
import { fillOf } from '../../model/slots';
import { timeOfBeat } from '../../time/grid';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { examineFollow } from '../follow-point';
import { shorter, tooShort } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { coverFrames, patchTake, type CoverMoment } from './build';
import { wholeCover } from './settings';
import { patchSlot, swapSlot } from './slots';
import type { CoverCode } from './words';
import { underIn } from './works';

/** What is wrong with a cover swap as it stands, how much, and what to do. */
export function examineCover(moment: CoverMoment, ruler: Ruler, material: Material): Finding<CoverCode>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const findings: Finding<CoverCode>[] = [];
  const add = (finding: Omit<Finding<CoverCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const swap = material.takes[swapSlot.key] ?? null;
  if (!swap) add({ code: 'cover.missing', severity: 'stop', facts: { slot: swapSlot.key } });
  if (!patchTake(material)) add({ code: 'cover.missing', severity: 'stop', facts: { slot: patchSlot.key } });
  const { start, lands, gone, end } = coverFrames(moment, ruler);
  if (lands <= start || lands >= end) {
    add({ code: 'cover.never-lands', severity: 'stop' });
    return findings;
  }
  add({
    code: 'cover.lands',
    severity: 'fine',
    measured: { value: Math.abs(timeOfFrame(rate, lands) - timeOfBeat(grid, moment.lands)), unit: 'seconds' },
    facts: { frame: lands, position: moment.lands },
  });
  const { frames, patch } = wholeCover(moment.settings);
  if (lands + frames > end)
    add({
      code: 'cover.cramped',
      severity: 'fix',
      measured: { value: end - lands, unit: 'frames' },
      allowed: { value: frames, unit: 'frames' },
      fix: shorter(moment, { frames: end - lands }),
    });
  findings.push(...tooShort('cover.short', moment, swapSlot.key, swap, end - start, rate));
  if (!patch) add({ code: 'cover.not-drawn', severity: 'fix' });
  for (const { code, ...rest } of examineFollow(moment, material, swapSlot.key))
    add({ code: `cover.${code}`, ...rest });
  const shownAt = (seconds: number) =>
    start + frameOfTime(rate, Math.max(0, seconds - fillOf(moment, swapSlot.key).at));
  for (const { from, to, share } of underIn(material) ?? []) {
    const [first, last] = [shownAt(from), Math.min(gone, shownAt(to)) - 1];
    if (last < first) continue;
    add({
      code: 'cover.somebody',
      severity: 'fix',
      measured: { value: share, unit: 'share' },
      facts: { first, last },
    });
  }
  return findings;
}
