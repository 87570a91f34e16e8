import type { Finding } from '../../finding/finding';
import { meanStep } from '../../footage/picture-times';
import { plateSlot } from '../../model/slots';
import { timeOfBeat } from '../../time/grid';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { landsInTurn } from '../anchors';
import { cutoutBy, cutoutIn, examineCutout } from '../cutouts';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { flightIn, hitsOf, leapAnchors, leapFrames, leftAt, metAt, pushOf, type LeapMoment } from './build';
import { beyondTop, raisedFigures, raisedSpan } from './raised';
import { wholeLeap } from './settings';
import { cutoutOfSlot, downSlot, leavesPin, upSlot } from './slots';
import type { LeapCode } from './words';

/** What is wrong with a jump that is raised: pictures in which nobody stands out, or that end above the frame. */
function examineRaised(moment: LeapMoment, ruler: Ruler, material: Material): Finding<LeapCode>[] {
  const where = { moment: moment.id };
  const span = raisedSpan(moment, ruler, material);
  const figures = raisedFigures(moment, ruler, material);
  const flight = flightIn(material, upSlot.key);
  if (flight && !span) return [{ code: 'leap.half', severity: 'fix', where }];
  if (!span || !figures) return [];
  const lacking = span.until - span.from - figures.length;
  if (lacking > 0)
    return [
      {
        code: 'leap.not-raised',
        severity: 'fix',
        where,
        measured: { value: lacking, unit: 'frames' },
      },
    ];
  const beyond = beyondTop(moment, ruler, material);
  const faint = Math.max(0, ...figures.map(({ figure }) => figure.faint));
  const told = examineCutout({ share: 1, faint, rings: [] });
  return [
    ...(beyond > 0
      ? [
          {
            code: 'leap.too-high' as const,
            severity: 'watch' as const,
            where,
            measured: { value: beyond, unit: 'share' as const },
          },
        ]
      : []),
    ...told.map(({ code, ...rest }) => ({
      code: `leap.${code}` as const,
      ...rest,
      where,
      facts: { slot: upSlot.key },
    })),
  ];
}

/** What is wrong with a leap as it stands, how much, and what to do. */
export function examineLeap(moment: LeapMoment, ruler: Ruler, material: Material): Finding<LeapCode>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const { takes } = material;
  const findings: Finding<LeapCode>[] = [];
  const add = (finding: Omit<Finding<LeapCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const { way, streak, left, met } = wholeLeap(moment.settings);
  const { start, leaves, meets, end } = leapFrames(moment, ruler);
  const used = [
    ...(leaves === null ? [] : [{ slot: upSlot.key, marked: left }]),
    ...(meets === null || way === 'raised' ? [] : [{ slot: downSlot.key, marked: met }]),
    ...(way === 'raised' ? [{ slot: upSlot.key, marked: null }] : []),
  ];
  for (const { slot } of used)
    if (!takes[slot]) add({ code: 'leap.missing', severity: 'stop', facts: { slot } });
  if (!takes[plateSlot]) add({ code: 'leap.missing', severity: 'fix', facts: { slot: plateSlot, way } });
  const push = pushOf(moment, ruler);
  const inTurn = way !== 'both' || (leaves !== null && meets !== null && leaves > start && meets > leaves);
  if (!landsInTurn(moment, ruler) || !inTurn) {
    add({ code: 'leap.never-lands', severity: 'stop' });
    return findings;
  }
  const hits = leapAnchors(moment, ruler).filter(({ name }) => name === 'lands' || name === leavesPin);
  add({
    code: 'leap.lands',
    severity: 'fine',
    measured: {
      value: Math.max(
        ...hits.map(({ frame, position }) => Math.abs(timeOfFrame(rate, frame) - timeOfBeat(grid, position))),
      ),
      unit: 'seconds',
    },
    facts: { way, frames: hitsOf(moment, ruler).join(' and ') },
  });
  if (leaves !== null && meets !== null) {
    const empty = meets - push.frames - streak - (leaves + streak);
    if (empty < 1)
      add({ code: 'leap.crowded', severity: 'fix', measured: { value: 1 - empty, unit: 'frames' } });
  } else if (way !== 'raised' && meets !== null && meets - push.frames - streak < start) {
    const room = start - (meets - push.frames - streak);
    add({ code: 'leap.crowded', severity: 'fix', measured: { value: room, unit: 'frames' } });
  }
  for (const { slot, marked } of used) {
    const chosen = takes[slot];
    if (!chosen?.measure) continue;
    if (marked === null && flightIn(material, slot) === null)
      add({ code: 'leap.no-flight', severity: 'fix', facts: { slot } });
    const cutout = cutoutIn(material, cutoutOfSlot(slot));
    if (cutout)
      for (const { code, ...rest } of examineCutout(cutout))
        add({ code: `leap.${code}`, ...rest, facts: { slot, by: cutoutBy('plate', material) } });
    if (way === 'raised') {
      findings.push(...examineRaised(moment, ruler, material));
      continue;
    }
    const { times } = chosen.measure;
    const ends = times.last + meanStep(times);
    const instant = slot === upSlot.key ? leftAt(moment, material) : metAt(moment, material);
    if (instant > ends) {
      add({
        code: 'leap.beyond',
        severity: 'stop',
        measured: { value: instant, unit: 'seconds' },
        allowed: { value: ends, unit: 'seconds' },
        facts: { slot },
      });
      continue;
    }
    // Before the jump its first picture stands, which is seen; after a landing its last one.
    const span = slot === upSlot.key ? (leaves ?? 0) - start : end - (meets ?? 0);
    const seconds = timeOfFrame(rate, span) - (slot === upSlot.key ? timeOfFrame(rate, push.frames) : 0);
    const has = slot === upSlot.key ? instant - push.seconds : ends - instant;
    if (has + 1e-6 < seconds)
      add({
        code: 'leap.short',
        severity: 'fix',
        measured: { value: Math.max(0, frameOfTime(rate, has)), unit: 'frames' },
        allowed: { value: frameOfTime(rate, seconds), unit: 'frames' },
        facts: { slot },
      });
  }
  return findings;
}
