import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import { fitWithin, type Point } from '../../geometry/size';
import { coverOfRings } from '../../picture/mask';
import { fillFrame } from '../../picture/node';
import { timeOfBeat } from '../../time/grid';
import { frameOfTime, timeOfFrame } from '../../time/rate';
import { shorter, tooShort } from '../length';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { drawnKeys } from './edge';
import { beginsAt, revealFrames, type RevealMoment } from './takes';
import { carrier, trackUnderEdge } from './follow';
import { wholeReveal } from './settings';
import { beforeSlot, fallSlot, revealedSlot } from './slots';
import type { RevealCode } from './words';
import { fallIn } from './works';

/** share of the height by which what falls may be elsewhere than its edge: less than the sheet is thick. No published source */
const mostOff = 0.06;

/** a drawn edge that leaves less than this of the frame uncovered has left nothing */
const wholeFrame = 0.998;

/** The share of the frame that a drawn edge has come over at last. */
function comeOver({ settings }: RevealMoment, { project }: Ruler): number {
  const size = fitWithin(project, 200);
  const last = drawnKeys(settings, project).at(-1)?.ring ?? [];
  const cover = coverOfRings([last.map(([x, y]): Point => [x * size.width, y * size.height])], size);
  return cover.reduce((sum, one) => sum + one, 0) / cover.length;
}

/** What is wrong with a reveal as it stands, how much, and what to do. */
export function examineReveal(
  moment: RevealMoment,
  ruler: Ruler,
  { takes, solved }: Material,
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
      ...(moment.settings.edge === 'drawn' ? {} : { fix: shorter(moment, { frames: end - lands }) }),
    });
  if (moment.settings.edge === 'drawn' && !carrier(moment)) {
    const share = comeOver(moment, ruler);
    if (share < wholeFrame)
      add({ code: 'reveal.partial', severity: 'watch', measured: { value: share, unit: 'share' } });
  }
  const since = timeOfFrame(rate, lands - start);
  const { edge, falls, fast, closer, follows, shape } = wholeReveal(moment.settings);
  if (edge === 'drawn' && follows !== 'nothing' && !shape) add({ code: 'reveal.not-drawn', severity: 'fix' });
  const track = carrier(moment) ? trackUnderEdge(solved) : null;
  // Found in one picture alone it was lost at once.
  const lost = track && track.points.length < 2 ? track.points.map(({ time }) => time) : (track?.lost ?? []);
  if (track && lost.length === 0 && track.points.length > 1)
    add({
      code: 'reveal.carried',
      severity: 'fine',
      measured: { value: track.points.length, unit: 'count' },
    });
  for (const second of lost)
    add({ code: 'reveal.lost', severity: 'fix', measured: { value: second, unit: 'seconds' } });
  const changing = Math.min(done, end) - lands;
  // While it runs faster it shows more than it lasts, and then jumps back to where the song is.
  const most = (frames: number, during: number) => Math.max(frames, frames - during + (during * fast) / 100);
  const spans = [
    [beforeSlot.key, Math.ceil(most(Math.min(end, done) - start, changing))],
    [into.key, Math.max(end - lands, Math.ceil((changing * fast) / 100))],
  ] as const;
  for (const [key, needed] of spans)
    findings.push(
      ...tooShort(
        'reveal.short',
        moment,
        key,
        takes[key] ?? null,
        needed,
        rate,
        beginsAt(moment, ruler, key),
      ),
    );
  if (fast !== 100 && closer === 0 && done < end)
    add({
      code: 'reveal.jumps',
      severity: 'watch',
      measured: { value: Math.round(Math.abs(changing * (fast / 100 - 1))), unit: 'frames' },
    });
  const source = takes[into.key]?.measure?.size;
  const scale = source ? fillFrame(source, project).matrix[0] * (1 + closer / 100) : 1;
  if (closer > 0 && scale > allowed.enlarged)
    add({
      code: 'reveal.soft',
      severity: 'watch',
      measured: { value: scale, unit: 'scale' },
      allowed: { value: allowed.enlarged, unit: 'scale' },
    });
  const first = edge === 'falling' ? falls[beforeSlot.key] : null;
  if (typeof first === 'number' && first < since)
    add({
      code: 'reveal.early',
      severity: 'fix',
      measured: { value: first, unit: 'seconds' },
      allowed: { value: since, unit: 'seconds' },
    });
  const fall = edge === 'falling' && takes[into.key] ? fallIn(solved) : undefined;
  if (fall === null) add({ code: 'reveal.no-fall', severity: 'watch' });
  if (fall) {
    const measured = Math.max(1, frameOfTime(rate, fall.lasts));
    const late = Math.abs(beginsAt(moment, ruler, into.key) - fall.begins);
    const follows = Math.abs(measured - moment.settings.frames) <= 1 && late <= timeOfFrame(rate, 1);
    add({
      code: follows ? 'reveal.follows' : 'reveal.fall-differs',
      severity: follows ? 'fine' : 'fix',
      measured: { value: fall.begins, unit: 'seconds' },
      facts: { frames: measured, set: moment.settings.frames },
      ...(follows
        ? {}
        : {
            fix: {
              command: 'followFall',
              args: { moment: moment.id, slot: fallSlot.key, begins: fall.begins, frames: measured },
            },
          }),
    });
    if (fall.off > mostOff)
      add({
        code: 'reveal.not-free',
        severity: 'watch',
        measured: { value: fall.off * project.height, unit: 'px' },
        allowed: { value: mostOff * project.height, unit: 'px' },
      });
  }
  const apart = beginsAt(moment, ruler, into.key) - beginsAt(moment, ruler, beforeSlot.key) - since;
  const [one, other] = [takes[beforeSlot.key], takes[into.key]];
  if (one && other && one.take.id === other.take.id && Math.abs(apart) < timeOfFrame(rate, 1))
    add({ code: 'reveal.same-take', severity: 'fix' });
  return findings;
}
