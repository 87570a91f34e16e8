import type { Finding } from '../../finding/finding';
import { figureAt, type Figure } from '../../footage/figures';
import { meanStep } from '../../footage/picture-times';
import type { Point } from '../../geometry/size';
import { median } from '../../statistics';
import { timeOfBeat } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { landsInTurn } from '../anchors';
import { boxRound, cutoutBy, leastOfFrame, mostFaint } from '../cutouts';
import { shorter, tooShort } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { wholeGhost } from './settings';
import { moveSlot } from './slots';
import { figuresOf, frameShowing, ghostFrames, latenesses, trailRoom, type GhostMoment } from './trail';
import type { GhostCode } from './words';

/** share of the pictures in which nobody may be found before it counts as a fault; of a picture that may be cut out by a plate */
const [mostGaps, mostOfFrame] = [0.1, 0.6];
/** share of their own width by which a performer moves at least before a trail is seen behind them */
const leastShift = 0.3;

/** pictures before and after one whose cut-outs it is held against, and the share of their size by which it may differ; set by trial */
const [around, mostJump] = [3, 0.15];
/** pictures that may jump before it counts as a fault */
const mostJumps = 2;

/** The pictures whose cut-out is suddenly larger or smaller than those round it: a part of the performer is gone, or something else has come. */
const jumpsIn = (figures: readonly Figure[]): Figure[] =>
  figures.filter(({ share }, index) => {
    const usual = median(
      figures.slice(Math.max(0, index - around), index + around + 1).map((one) => one.share),
    );
    return Math.abs(share - usual) > mostJump * usual;
  });

/** How far the performer gets while the last copy is late, in their own widths: the most that there is. */
function furthest(figures: readonly Figure[], seconds: number): number {
  const places = figures.map(({ rings, seconds: at }) => ({ box: boxRound(rings.flat()), at }));
  const middle = (box: NonNullable<(typeof places)[number]['box']>): Point => [
    (box.left + box.right) / 2,
    (box.top + box.bottom) / 2,
  ];
  const shifts = places.map(({ box, at }) => {
    const later = boxRound(figureAt(figures, at + seconds)?.rings.flat() ?? []);
    if (!box || !later) return 0;
    const [[ax, ay], [bx, by]] = [middle(box), middle(later)];
    return Math.max(
      Math.abs(bx - ax) / Math.max(0.001, box.right - box.left),
      Math.abs(by - ay) / Math.max(0.001, box.bottom - box.top),
    );
  });
  return Math.max(0, ...shifts);
}

/** What is wrong with the cut-outs of a trail. */
function examineFigures(moment: GhostMoment, ruler: Ruler, material: Material): Finding<GhostCode>[] {
  const figures = figuresOf(material);
  if (!figures) return [];
  const where = { moment: moment.id };
  const by = cutoutBy(wholeGhost(moment.settings).by, material);
  const seen = figures.filter(({ share }) => share >= leastOfFrame);
  const gaps = figures.length === 0 ? 1 : 1 - seen.length / figures.length;
  const findings: Finding<GhostCode>[] = [];
  if (gaps > 0)
    findings.push({
      code: 'ghost.uncut',
      severity: gaps > mostGaps ? 'fix' : 'watch',
      where,
      measured: { value: gaps, unit: 'share' },
      facts: { by },
    });
  if (seen.length === 0) return findings;
  const share = seen.reduce((sum, one) => sum + one.share, 0) / seen.length;
  if (by === 'plate' && share > mostOfFrame)
    return [
      ...findings,
      { code: 'ghost.elsewhere', severity: 'fix', where, measured: { value: share, unit: 'share' } },
    ];
  const faint = median(seen.map((one) => one.faint));
  if (faint > mostFaint)
    findings.push({
      code: 'ghost.faint',
      severity: 'watch',
      where,
      measured: { value: faint, unit: 'share' },
      allowed: { value: mostFaint, unit: 'share' },
    });
  const jumps = jumpsIn(seen);
  if (jumps.length > 0)
    findings.push({
      code: 'ghost.jumps',
      severity: jumps.length > mostJumps ? 'fix' : 'watch',
      where,
      measured: { value: jumps.length, unit: 'count' },
      facts: { first: frameShowing(moment, ruler, jumps[0].seconds) },
    });
  const times = material.takes[moveSlot.key]?.measure?.times;
  const apart = (figures[figures.length - 1].seconds - figures[0].seconds) / Math.max(1, figures.length - 1);
  if (times && apart > 1.5 * meanStep(times))
    findings.push({
      code: 'ghost.sparse',
      severity: 'watch',
      where,
      measured: { value: Math.round(apart / meanStep(times)), unit: 'count' },
    });
  const late = latenesses(moment, ruler).at(-1) ?? 0;
  const shift = furthest(seen, timeOfFrame(ruler.project.rate, late));
  if (shift < leastShift)
    findings.push({
      code: 'ghost.hidden',
      severity: 'fix',
      where,
      measured: { value: shift, unit: 'share' },
    });
  return findings;
}

/** What is wrong with a ghost trail as it stands, how much, and what to do. */
export function examineGhost(moment: GhostMoment, ruler: Ruler, material: Material): Finding<GhostCode>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const where = { moment: moment.id };
  const chosen = material.takes[moveSlot.key] ?? null;
  const findings: Finding<GhostCode>[] = [];
  if (!chosen) findings.push({ code: 'ghost.missing', severity: 'stop', where });
  const { start, lands, end } = ghostFrames(moment, ruler);
  if (!landsInTurn(moment, ruler) || lands - start < 4)
    return [...findings, { code: 'ghost.never-lands', severity: 'stop', where }];
  findings.push({
    code: 'ghost.lands',
    severity: 'fine',
    where,
    measured: {
      value: Math.abs(timeOfFrame(rate, lands) - timeOfBeat(grid, moment.lands)),
      unit: 'seconds',
    },
    facts: { frame: lands },
  });
  const { copies, apart } = wholeGhost(moment.settings);
  const room = trailRoom(moment, ruler);
  if (copies * apart > room) {
    const fits = Math.max(1, Math.min(apart, Math.floor(room / 2)));
    findings.push({
      code: 'ghost.crowded',
      severity: 'fix',
      where,
      measured: { value: copies * apart, unit: 'frames' },
      allowed: { value: room, unit: 'frames' },
      fix: shorter(moment, { apart: fits, copies: Math.min(copies, Math.floor(room / fits)) }),
    });
  }
  return [
    ...findings,
    ...tooShort('ghost.short', moment, moveSlot.key, chosen, end - start, rate),
    ...examineFigures(moment, ruler, material),
  ];
}
