import type { Finding } from '../../finding/finding';
import { meanStep } from '../../footage/picture-times';
import { plateSlot } from '../../model/slots';
import { timeOfBeat } from '../../time/grid';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { landsInTurn } from '../anchors';
import { cutoutIn, examineCutout } from '../cutouts';
import { shorter } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { cutBy, freezeAnchors, flightOf, freezeFrames, frozenAt, type FreezeMoment } from './build';
import { wholeFreeze } from './settings';
import { poseSlot } from './slots';
import type { FreezeCode } from './words';

/** What is wrong with a freeze stack as it stands, how much, and what to do. */
export function examineFreeze(moment: FreezeMoment, ruler: Ruler, material: Material): Finding<FreezeCode>[] {
  const { takes } = material;
  const { grid, project } = ruler;
  const { rate } = project;
  const findings: Finding<FreezeCode>[] = [];
  const add = (finding: Omit<Finding<FreezeCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const pose = takes[poseSlot.key] ?? null;
  if (!pose) add({ code: 'freeze.missing', severity: 'stop', facts: { slot: poseSlot.key } });
  if (!takes[plateSlot]) add({ code: 'freeze.missing', severity: 'fix', facts: { slot: plateSlot } });
  if (!landsInTurn(moment, ruler)) {
    add({ code: 'freeze.never-lands', severity: 'stop' });
    return findings;
  }
  const { start, lands, end } = freezeFrames(moment, ruler);
  const off = freezeAnchors(moment, ruler)
    .slice(1, -1)
    .map(({ frame, position }) => Math.abs(timeOfFrame(rate, frame) - timeOfBeat(grid, position)));
  add({
    code: 'freeze.lands',
    severity: 'fine',
    measured: { value: Math.max(...off), unit: 'seconds' },
    facts: { pieces: lands.length },
  });
  const flight = flightOf(moment, ruler);
  const { after } = wholeFreeze(moment.settings);
  const room = Math.min(...lands) - start;
  lands.forEach((frame, index) => {
    if (frame - start >= flight) return;
    add({
      code: 'freeze.cramped',
      severity: 'fix',
      measured: { value: frame - start, unit: 'frames' },
      allowed: { value: flight, unit: 'frames' },
      facts: { piece: index + 1 },
      ...(room > 0 ? { fix: shorter(moment, { flight: room }) } : {}),
    });
  });
  if (!pose?.measure) return findings;
  const cutout = wholeFreeze(moment.settings).outline ? null : cutoutIn(material, poseSlot.key);
  const by = cutBy(moment, material);
  if (cutout)
    for (const { code, ...rest } of examineCutout(cutout))
      add({ code: `freeze.${code}`, ...rest, facts: { slot: poseSlot.key, by } });
  const { times } = pose.measure;
  const last = times.last + meanStep(times);
  const at = frozenAt(moment);
  if (at > last)
    add({
      code: 'freeze.beyond',
      severity: 'stop',
      measured: { value: at, unit: 'seconds' },
      allowed: { value: last, unit: 'seconds' },
    });
  else if (after === 'runs') {
    const [has, needs] = [frameOfTime(rate, last - at), end - lands[lands.length - 1]];
    if (has < needs)
      add({
        code: 'freeze.short',
        severity: 'stop',
        measured: { value: has, unit: 'frames' },
        allowed: { value: needs, unit: 'frames' },
        facts: { earlier: 0 },
      });
  }
  return findings;
}
