import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import { hardEdge } from '../../footage/shadow/edge';
import type { SeamMeasure, SideShadow } from '../../model/measures';
import { usualStature } from '../../model/plan-records';
import { usualBody } from '../../people/bodies';
import type { BodyCode } from '../../people/body-words';
import { examineMeeting } from '../../people/examine-bodies';
import { drawnFurther, furtherAnchors, furtherOf, furtherSeamIn } from './copies';
import { drawnHanded, handedAnchors, handedSeam, handsOver } from './hand-over';
import { type CloneMoment, cloneMaterial, otherSide, shadowsOf, sides } from './material';
import { timeOfFrame } from '../../time/rate';
import { timeOfBeat } from '../../time/grid';
import type { Ruler } from '../recipe';
import { landsInTurn } from '../anchors';
import { cloneFrames } from './build';
import { fillOf, plateSlot } from '../../model/slots';
import { mostFaint } from '../cutouts';
import { tooShort } from '../length';
import { crossed, sideInFront, type Crossed } from './where-crossing';
import type { Material } from '../material';
import type { CloneCode } from './words';

/** share of the frame that each side shows at least */
const leastShare = 0.005;

/** share of the frame's width between two who touch: as little as the measurement tells apart, about. No published source */
const touching = 0.006;

/** True where two slots show one take. */
const sameTake = ({ takes }: Material, one: string, other: string): boolean =>
  Boolean(takes[one] && takes[one]?.take.id === takes[other]?.take.id);

/**
 * What is wrong with one join.
 * @param called what its two sides are called
 * @param byHand whether it was drawn by hand
 * @param frame delivery pixels
 * @param cut how they were cut out where no join parts them; null where they were not
 */
function examineJoin(
  moment: CloneMoment,
  seam: SeamMeasure,
  called: readonly string[],
  byHand: boolean,
  { width }: { width: number },
  cut: Crossed | null = null,
): Finding<CloneCode>[] {
  const findings: Finding<CloneCode>[] = [];
  const add = (finding: Omit<Finding<CloneCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  for (const [index, role] of called.entries()) {
    if (!seam.found[index]) add({ code: 'clone.no-performer', severity: 'watch', facts: { slot: role } });
  }
  const lacking = called.find((_, side) => seam.shares[side] < leastShare);
  if (lacking) {
    add({
      code: 'clone.one-sided',
      severity: 'stop',
      measured: { value: seam.shares[called.indexOf(lacking)], unit: 'share' },
      facts: { slot: lacking },
    });
  }
  for (const { side, kept, whole, share, frames: lost, at } of seam.losses) {
    // Whom the join cuts where they cross is laid over it whole, or hidden by who is in front.
    const laid = cut?.lays(sides[side], lost, at) ?? 'not';
    if (laid === 'surely') continue;
    const code = kept
      ? whole
        ? 'clone.loses'
        : 'clone.cuts'
      : whole
        ? 'clone.leaves-out'
        : 'clone.cuts-other';
    add({
      code,
      severity: laid === 'maybe' ? 'watch' : kept ? 'stop' : whole ? 'watch' : 'fix',
      measured: { value: lost.count, unit: 'frames' },
      facts: { slot: called[side], first: lost.first, last: lost.last, across: at[0], share },
    });
  }
  for (const [side, difference] of seam.borders.entries()) {
    if (difference === null || difference <= allowed.difference) continue;
    add({
      code: 'clone.border',
      severity: difference > allowed.graveDifference * allowed.difference ? 'fix' : 'watch',
      measured: { value: difference, unit: 'deltaE' },
      allowed: { value: allowed.difference, unit: 'deltaE' },
      facts: { slot: called[side] },
    });
  }
  if (seam.crossing.length > 0) {
    add({
      code: cut ? (cut.faint > mostFaint ? 'clone.crossed-faint' : 'clone.crossed') : 'clone.crossing',
      severity: cut ? (cut.faint > mostFaint ? 'watch' : 'fine') : 'fix',
      measured: { value: seam.crossing.length, unit: 'frames' },
      facts: {
        first: seam.crossing[0],
        last: seam.crossing[seam.crossing.length - 1],
        front: sideInFront(moment),
        faint: cut?.faint ?? 0,
      },
    });
  }
  for (const [side, shadow] of seam.shadows.entries())
    if (shadow) findings.push(examineShadow(moment, called[side], shadow));
  if (moment.settings.way === 'contact' && seam.contact) {
    const { apart, frame, at } = seam.contact;
    const px = apart * width;
    add({
      code: apart <= touching ? 'clone.contact' : 'clone.apart',
      severity: apart <= touching ? 'fine' : 'watch',
      measured: { value: px, unit: 'px' },
      allowed: { value: touching * width, unit: 'px' },
      facts: { frame, across: at[0], down: at[1] },
    });
  }
  if (seam.moves.length > 0 && !byHand)
    add({
      code: 'clone.moves',
      severity: 'fine',
      measured: { value: seam.moves.length, unit: 'count' },
      facts: { first: seam.moves[0].frame, last: seam.moves[seam.moves.length - 1].frame },
    });
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
    facts: { frame: worst.frame, hand: byHand ? 1 : 0 },
  });
  return findings;
}

/** share of a shadow that may be cut off unseen: its faint rim */
const shadowRim = 0.1;

/** Whether the join lets a shadow show whole, hides it, or cuts it. */
function examineShadow(moment: CloneMoment, slot: string, shadow: SideShadow): Finding<CloneCode> {
  const { edge, covers, falls, lost } = shadow;
  const wanted = shadowsOf(moment);
  const isHard = edge !== null && edge < hardEdge;
  const told = { slot, covers, edge: isHard ? 'hard' : 'soft', ...(falls ? { falls } : {}) };
  const where = { moment: moment.id };
  const wrong = lost.filter(({ share }) => (wanted === 'kept' ? share : 1 - share) > shadowRim);
  if (wrong.length === 0) return { code: `clone.shadow-${wanted}`, severity: 'fine', where, facts: told };
  const share = Math.max(...wrong.map((one) => (wanted === 'kept' ? one.share : 1 - one.share)));
  return {
    code: wanted === 'kept' ? 'clone.shadow-cut' : 'clone.shadow-left',
    severity: isHard ? 'fix' : 'watch',
    where,
    measured: { value: wrong.length, unit: 'frames' },
    facts: { ...told, share, first: wrong[0].frame, last: wrong[wrong.length - 1].frame },
    fix: { command: wanted === 'kept' ? 'hideShadows' : 'keepShadows', args: { moment: moment.id } },
  };
}

/** seconds to each side of a touch in which both are looked at */
const roundTouch = 0.6;

/** Whether the eyes of two who are to touch are at one height as they do, once they were looked for. */
function examineTouch(moment: CloneMoment, ruler: Ruler, given: Material): Finding<BodyCode>[] {
  const { seam, left, right } = cloneMaterial(given);
  if (moment.settings.way !== 'contact' || !seam?.contact || !left?.bodies || !right?.bodies) return [];
  const { start, lands } = cloneFrames(moment, ruler);
  const { frame } = seam.contact;
  const standing = sides.map((side) => {
    const from = side === moment.settings.first ? start : lands;
    const touch = fillOf(moment, side).at + timeOfFrame(ruler.project.rate, frame - from);
    const { take, bodies } = { left, right }[side];
    const body = bodies ? usualBody(bodies, touch - roundTouch, touch + roundTouch) : null;
    return { take: take.id, name: take.name, body };
  });
  return examineMeeting(standing[0], standing[1], usualStature, { moment: moment.id });
}

/** What is wrong with a clone as it stands, how much, and what to do. */
export function examineClone(
  moment: CloneMoment,
  ruler: Ruler,
  given: Material,
): Finding<CloneCode | BodyCode>[] {
  const material = cloneMaterial(given);
  const findings: Finding<CloneCode | BodyCode>[] = [];
  const { rate } = ruler.project;
  const add = (finding: Omit<Finding<CloneCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const frames = cloneFrames(moment, ruler);
  const further = furtherOf(moment);
  const copies = [...sides.map((side) => ({ key: side, title: side })), ...further];
  for (const { key, title } of [{ key: plateSlot, title: plateSlot }, ...copies]) {
    if (!given.takes[key])
      add({ code: 'clone.missing', severity: key === plateSlot ? 'fix' : 'stop', facts: { slot: title } });
  }
  for (const [index, { key, title }] of copies.entries()) {
    const twin = copies.slice(0, index).find((one) => sameTake(given, one.key, key));
    const answers = moment.settings.way === 'mirror' && index === 1;
    if (twin && !answers)
      add({ code: 'clone.same-take', severity: 'stop', facts: { one: twin.title, other: title } });
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
  for (const { frame, position } of handedAnchors(moment, ruler)) {
    const turns = frame > frames.lands && frame < frames.end;
    const late = Math.abs(timeOfFrame(rate, frame) - timeOfBeat(ruler.grid, position));
    add(
      turns
        ? {
            code: 'clone.handed',
            severity: 'fine',
            measured: { value: late, unit: 'seconds' },
            facts: { frame, position },
          }
        : { code: 'clone.handed-out', severity: 'fix' },
    );
  }
  const [one, other] = sides.map((side) => given.takes[side]);
  if (moment.settings.way === 'mirror' && one && one.take.id === other?.take.id) {
    const since = timeOfFrame(rate, frames.lands - frames.start);
    const [mine, answer] = [moment.settings.first, otherSide(moment.settings.first)].map(
      (side) => fillOf(moment, side).at,
    );
    if (Math.abs(answer - mine - since) < timeOfFrame(rate, frames.end - frames.lands))
      add({
        code: 'clone.same-words',
        severity: 'watch',
        measured: { value: Math.abs(answer - mine - since), unit: 'seconds' },
      });
  }
  const instants = furtherAnchors(moment, ruler);
  further.forEach(({ key, title }, index) => {
    const { frame, position } = instants[index];
    if (frame < frames.lands || frame >= frames.end) {
      add({ code: 'clone.out-of-turn', severity: 'stop', facts: { slot: title } });
      return;
    }
    const late = Math.abs(timeOfFrame(rate, frame) - timeOfBeat(ruler.grid, position));
    add({
      code: 'clone.further-lands',
      severity: 'fine',
      measured: { value: late, unit: 'seconds' },
      facts: { slot: title, frame, position },
    });
    const short = tooShort('clone.short', moment, key, given.takes[key] ?? null, frames.end - frame, rate);
    findings.push(...short.map((one) => ({ ...one, facts: { ...one.facts, slot: title } })));
  });
  if (material.seam)
    findings.push(
      ...examineJoin(
        moment,
        material.seam,
        sides,
        Boolean(moment.settings.seam),
        ruler.project,
        crossed(moment, ruler, frames, given),
      ),
    );
  findings.push(...examineTouch(moment, ruler, given));
  const after = handsOver(moment) ? handedSeam(given) : null;
  if (after) findings.push(...examineJoin(moment, after, sides, Boolean(drawnHanded(moment)), ruler.project));
  for (const { key, title } of further) {
    const seam = furtherSeamIn(given, key);
    if (seam)
      findings.push(
        ...examineJoin(moment, seam, ['others', title], Boolean(drawnFurther(moment, key)), ruler.project),
      );
  }
  return findings;
}
