import type { Finding } from '../../finding/finding';
import { coveredCells as cells } from '../../footage/presence';
import type { Point } from '../../geometry/size';
import { coverOfRings } from '../../picture/mask';
import { timeOfBeat } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { tooShort } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { coverFrames, patchOf, patchTake, type CoverMoment } from './build';
import { wholeCover } from './settings';
import { patchSlot, swapSlot } from './slots';
import type { CoverCode } from './words';

/** share of the patch under which something may move unsaid: the object itself does on its beat */
const mostMoving = 0.6;

/** Share of an outline in which a take ever differs from its plate. */
function movingIn(ring: readonly Point[], covered: Uint8Array): number {
  const inside = coverOfRings([ring.map(([x, y]): Point => [x * cells.width, y * cells.height])], cells);
  let [area, moving] = [0, 0];
  inside.forEach((share, cell) => {
    area += share;
    if (covered[cell]) moving += share;
  });
  return area > 0 ? moving / area : 0;
}

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
  const { start, lands, end } = coverFrames(moment, ruler);
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
    });
  findings.push(...tooShort('cover.short', moment, swapSlot.key, swap, end - start, rate));
  if (!patch) add({ code: 'cover.not-drawn', severity: 'fix' });
  const moving = swap?.comparison ? movingIn(patchOf(moment), swap.comparison.covered) : 0;
  if (moving > mostMoving)
    add({ code: 'cover.somebody', severity: 'watch', measured: { value: moving, unit: 'share' } });
  return findings;
}
