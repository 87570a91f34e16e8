import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import { type CloneMoment, cloneMaterial, sides } from './material';
import { timeOfFrame } from '../../time/rate';
import { timeOfBeat } from '../../time/grid';
import type { Ruler } from '../recipe';
import { landsInTurn } from '../anchors';
import { cloneFrames } from './build';
import { plateSlot } from '../../model/slots';
import { tooShort } from '../length';
import type { Material } from '../material';
import type { CloneCode } from './words';

/** share of the frame that each side shows at least */
const leastShare = 0.005;

/** What is wrong with a clone as it stands, how much, and what to do. */
export function examineClone(moment: CloneMoment, ruler: Ruler, given: Material): Finding<CloneCode>[] {
  const material = cloneMaterial(given);
  const findings: Finding<CloneCode>[] = [];
  const { rate } = ruler.project;
  const add = (finding: Omit<Finding<CloneCode>, 'where'>, place = {}) =>
    findings.push({ ...finding, where: { moment: moment.id, ...place } });
  const frames = cloneFrames(moment, ruler);
  for (const role of [plateSlot, ...sides] as const) {
    if (!material[role])
      add({ code: 'clone.missing', severity: role === 'plate' ? 'fix' : 'stop', facts: { slot: role } });
  }
  if (material.left && material.left.take.id === material.right?.take.id) {
    add({ code: 'clone.same-take', severity: 'stop' });
  }
  const inTurn = landsInTurn(moment, ruler);
  if (!inTurn) add({ code: 'clone.never-lands', severity: 'stop' });
  const off = Math.abs(timeOfFrame(rate, frames.lands) - timeOfBeat(ruler.grid, moment.lands));
  if (inTurn) {
    add({
      code: 'clone.lands',
      severity: 'fine',
      measured: { value: off, unit: 'seconds' },
      facts: { frame: frames.lands, position: moment.lands },
    });
  }
  for (const role of sides) {
    const from = role === moment.settings.first ? frames.start : frames.lands;
    findings.push(...tooShort('clone.short', moment, role, material[role], frames.end - from, rate));
  }
  const { seam } = material;
  if (!seam) return findings;
  for (const role of sides) {
    if (material[role] && !seam.found[sides.indexOf(role)])
      add({ code: 'clone.no-performer', severity: 'watch', facts: { slot: role } });
  }
  const lacking = sides.find((_, side) => seam.shares[side] < leastShare);
  if (lacking) {
    add({
      code: 'clone.one-sided',
      severity: 'stop',
      measured: { value: seam.shares[sides.indexOf(lacking)], unit: 'share' },
      facts: { slot: lacking },
    });
  }
  for (const { side, kept, whole, share, frames: lost, at } of seam.losses) {
    const code = kept
      ? whole
        ? 'clone.loses'
        : 'clone.cuts'
      : whole
        ? 'clone.leaves-out'
        : 'clone.cuts-other';
    add({
      code,
      severity: kept ? 'stop' : whole ? 'watch' : 'fix',
      measured: { value: lost.count, unit: 'frames' },
      facts: { slot: sides[side], first: lost.first, last: lost.last, across: at[0], share },
    });
  }
  for (const [side, difference] of seam.borders.entries()) {
    if (difference === null || difference <= allowed.difference) continue;
    add({
      code: 'clone.border',
      severity: 'fix',
      measured: { value: difference, unit: 'deltaE' },
      allowed: { value: allowed.difference, unit: 'deltaE' },
      facts: { slot: sides[side] },
    });
  }
  if (seam.crossing.length > 0) {
    add({
      code: 'clone.crossing',
      severity: 'fix',
      measured: { value: seam.crossing.length, unit: 'frames' },
      facts: { first: seam.crossing[0], last: seam.crossing[seam.crossing.length - 1] },
    });
  }
  // Where one side does not show there is no join to be judged.
  if (lacking) return findings;
  const worst = seam.visible.reduce((most, one) => (one.difference > most.difference ? one : most), {
    frame: 0,
    difference: 0,
  });
  add({
    code: worst.difference > allowed.difference ? 'clone.join-shows' : 'clone.join-hidden',
    severity:
      worst.difference > allowed.difference
        ? worst.difference > allowed.graveDifference * allowed.difference
          ? 'fix'
          : 'watch'
        : 'fine',
    measured: { value: worst.difference, unit: 'deltaE' },
    allowed: { value: allowed.difference, unit: 'deltaE' },
    facts: { frame: worst.frame, hand: moment.settings.seam ? 1 : 0 },
  });
  return findings;
}
