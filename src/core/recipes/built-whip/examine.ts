import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import { timeOfBeat } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { shorter, tooShort } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { scaleAtCut, whipFrames, type WhipMoment } from './build';
import { whipSlots } from './slots';
import type { WhipCode } from './words';

/** What is wrong with a whip as it stands, how much, and what to do. */
export function examineWhip(moment: WhipMoment, ruler: Ruler, { takes }: Material): Finding<WhipCode>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const findings: Finding<WhipCode>[] = [];
  const add = (finding: Omit<Finding<WhipCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const { start, cut, end, first, last } = whipFrames(moment, ruler);
  for (const { key } of whipSlots)
    if (!takes[key]) add({ code: 'whip.missing', severity: 'stop', facts: { slot: key } });
  if (cut <= start || cut >= end) {
    add({ code: 'whip.never-cuts', severity: 'stop' });
    return findings;
  }
  const off = Math.abs(timeOfFrame(rate, cut) - timeOfBeat(grid, moment.lands));
  add({
    code: 'whip.cuts',
    severity: 'fine',
    measured: { value: off, unit: 'seconds' },
    facts: { frame: cut, position: moment.lands },
  });
  const missing = Math.max(0, start - first) + Math.max(0, last - end);
  if (missing > 0)
    add({
      code: 'whip.cramped',
      severity: 'fix',
      measured: { value: last - first - missing, unit: 'frames' },
      allowed: { value: last - first, unit: 'frames' },
      fix: shorter(moment, { frames: 2 * Math.min(cut - start, end - cut) }),
    });
  const spans = { out: cut - start, in: end - cut };
  for (const { key } of whipSlots) {
    const chosen = takes[key] ?? null;
    findings.push(...tooShort('whip.short', moment, key, chosen, spans[key], rate));
    const measure = chosen?.measure;
    if (!measure) continue;
    const fitted = Math.max(project.width / measure.size.width, project.height / measure.size.height);
    const scale = fitted * scaleAtCut(moment);
    if (scale > allowed.enlarged)
      add({
        code: 'whip.soft',
        severity: 'watch',
        measured: { value: scale, unit: 'scale' },
        allowed: { value: allowed.enlarged, unit: 'scale' },
        facts: { slot: key },
      });
  }
  return findings;
}
