import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import { fillOf } from '../../model/slots';
import { fitWithin, type Point, type Size } from '../../geometry/size';
import { coverOfRings } from '../../picture/mask';
import { timeOfBeat } from '../../time/grid';
import { timeOfFrame } from '../../time/rate';
import { landsInTurn } from '../anchors';
import { tooShort } from '../length';
import { examineFollow } from '../follow-point';
import type { Material } from '../material';
import type { Ruler } from '../recipe';
import { placedIn, scaleIn, slotsOf, splitAnchors, splitFrames, type SplitMoment } from './build';
import { followingIn } from './follow';
import { panelsOf } from './panels';
import { wholeSplit } from './settings';
import type { SplitCode } from './words';

/** more of the frame than this that no panel covers is more than gutters. Common practice, no published source */
const mostOpen = 0.08;

/** The share of the frame that no panel covers, looked at on a small picture. */
function openOf(rings: readonly Point[][], frame: Size): number {
  const small = fitWithin(frame, 200);
  const scale = small.width / frame.width;
  const covers = rings.map((ring) =>
    coverOfRings([ring.map(([x, y]): Point => [x * scale, y * scale])], small),
  );
  const open = covers[0].filter((_, at) => covers.every((cover) => cover[at] < 0.5));
  return open.length / covers[0].length;
}

/** What is wrong with a split as it stands, how much, and what to do. */
export function examineSplit(
  moment: SplitMoment,
  ruler: Ruler,
  { takes, solved }: Material,
): Finding<SplitCode>[] {
  const { grid, project } = ruler;
  const { rate } = project;
  const findings: Finding<SplitCode>[] = [];
  const add = (finding: Omit<Finding<SplitCode>, 'where'>) =>
    findings.push({ ...finding, where: { moment: moment.id } });
  const slots = slotsOf(moment);
  for (const { key } of slots)
    if (!takes[key]) add({ code: 'split.missing', severity: 'stop', facts: { slot: key } });
  const { comes, end } = splitFrames(moment, ruler);
  if (!landsInTurn(moment, ruler)) {
    add({ code: 'split.never-lands', severity: 'stop' });
    return findings;
  }
  const off = splitAnchors(moment, ruler).map(({ frame, position }) =>
    Math.abs(timeOfFrame(rate, frame) - timeOfBeat(grid, position)),
  );
  add({ code: 'split.lands', severity: 'fine', measured: { value: Math.max(...off), unit: 'seconds' } });
  const panels = panelsOf(moment.settings, project);
  const open = openOf(
    panelsOf(moment.settings, project).map(({ ring }) => ring),
    project,
  );
  if (Object.values(wholeSplit(moment.settings).drawn).some(Boolean) && open > mostOpen)
    add({ code: 'split.open', severity: 'watch', measured: { value: open, unit: 'share' } });
  const shown = new Map<string, string>();
  slots.forEach(({ key, title }, index) => {
    const chosen = takes[key] ?? null;
    findings.push(...tooShort('split.short', moment, key, chosen, end - comes[index], rate));
    for (const { code, ...rest } of examineFollow(moment, { solved }, key))
      add({ code: `split.${code}`, ...rest });
    const placed = placedIn(moment, ruler, { takes, solved }, index);
    const outside = placed ? (followingIn(placed, moment, ruler, { takes, solved })?.outside ?? 0) : 0;
    if (outside > 0)
      add({
        code: 'split.leaves',
        severity: 'fix',
        measured: { value: outside, unit: 'frames' },
        facts: { slot: key },
      });
    if (!chosen?.measure) return;
    const scale = scaleIn(panels[index], chosen.measure.size);
    if (scale > allowed.enlarged)
      add({
        code: 'split.soft',
        severity: 'watch',
        measured: { value: scale, unit: 'scale' },
        allowed: { value: allowed.enlarged, unit: 'scale' },
        facts: { slot: key },
      });
    const same = `${chosen.take.id} ${(fillOf(moment, key).at - timeOfFrame(rate, comes[index])).toFixed(2)}`;
    const twin = shown.get(same);
    if (twin)
      add({ code: 'split.twice', severity: 'watch', facts: { panels: `The ${twin} and the ${title}` } });
    shown.set(same, title);
  });
  return findings;
}
