import type { Finding } from '../../finding/finding';
import { fillOf } from '../../model/slots';
import { timeOfBeat } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { tooShort } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { revealFrames, type RevealMoment } from './build';
import { beforeSlot, revealedSlot } from './slots';
import type { RevealCode } from './words';

/** What is wrong with a reveal as it stands, how much, and what to do. */
export function examineReveal(
  moment: RevealMoment,
  ruler: Ruler,
  { takes }: Material,
): Finding<RevealCode>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const findings: Finding<RevealCode>[] = [];
  const add = (finding: Omit<Finding<RevealCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const { start, lands, done, end } = revealFrames(moment, ruler);
  const into = revealedSlot(moment.settings);
  for (const { key } of [beforeSlot, into])
    if (!takes[key]) add({ code: 'reveal.missing', severity: 'stop', facts: { slot: key } });
  if (lands <= start || lands >= end) {
    add({ code: 'reveal.never-lands', severity: 'stop' });
    return findings;
  }
  add({
    code: 'reveal.lands',
    severity: 'fine',
    measured: { value: Math.abs(timeOfFrame(rate, lands) - timeOfBeat(grid, moment.lands)), unit: 'seconds' },
    facts: { frame: lands, position: moment.lands },
  });
  if (done > end)
    add({
      code: 'reveal.cramped',
      severity: 'fix',
      measured: { value: end - lands, unit: 'frames' },
      allowed: { value: done - lands, unit: 'frames' },
    });
  const spans = [
    [beforeSlot.key, Math.min(end, done) - start],
    [into.key, end - lands],
  ] as const;
  for (const [key, needed] of spans)
    findings.push(...tooShort('reveal.short', moment, key, takes[key] ?? null, needed, rate));
  const since = timeOfFrame(rate, lands - start);
  const apart = fillOf(moment, into.key).at - fillOf(moment, beforeSlot.key).at - since;
  const [one, other] = [takes[beforeSlot.key], takes[into.key]];
  if (one && other && one.take.id === other.take.id && Math.abs(apart) < timeOfFrame(rate, 1))
    add({ code: 'reveal.same-take', severity: 'fix' });
  return findings;
}
