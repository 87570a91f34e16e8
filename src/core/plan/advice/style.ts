import { allowed } from '../../finding/allowed';
import type { Finding } from '../../finding/finding';
import { films, type MomentKind } from '../../recipes/films';
import type { PlannedMoment } from '../shots';
import type { AdviceCode } from './advice-words';

/** A section of the song with its energy, and what the pictures over it bring. */
export type SectionEnergy = { name: string; from: number; until: number; song: number };

/** How many kinds of effect there are, and how often each returns. */
export function kindsOf(
  planned: readonly PlannedMoment[],
): { kind: MomentKind; title: string; times: number }[] {
  const counts = new Map<MomentKind, number>();
  for (const { moment } of planned) counts.set(moment.recipe, (counts.get(moment.recipe) ?? 0) + 1);
  return [...counts]
    .map(([kind, times]) => ({ kind, title: films[kind].title, times }))
    .sort((a, b) => b.times - a.times || a.title.localeCompare(b.title));
}

/** Mean energy of the moments over a stretch of beats, weighed by length; rest counts as `bed`. */
export function pictureEnergy(
  planned: readonly PlannedMoment[],
  { from, until }: { from: number; until: number },
  bed: number,
): number {
  let [sum, covered] = [0, 0];
  for (const { moment, filming } of planned) {
    const shared = Math.max(0, Math.min(until, moment.end) - Math.max(from, moment.start));
    sum += shared * filming.energy;
    covered += shared;
  }
  const length = Math.max(1e-9, until - from);
  const rest = Math.max(0, length - covered);
  return (sum + rest * bed) / (covered + rest);
}

type Run = { from: number; until: number; count: number };

/** Moments on end without a rest between them, the longest run; they touch within a beat. */
function longestRun(planned: readonly PlannedMoment[]): Run | null {
  const runs: Run[] = [];
  for (const { moment } of [...planned].sort((a, b) => a.moment.start - b.moment.start)) {
    const run = runs.at(-1);
    if (run && moment.start <= run.until + 1) {
      run.until = Math.max(run.until, moment.end);
      run.count++;
    } else runs.push({ from: moment.start, until: moment.end, count: 1 });
  }
  return runs.sort((a, b) => b.count - a.count)[0] ?? null;
}

/** Advice about the whole film; never a block. `bed` is the energy of the performance between the moments. */
export function adviseStyle(
  planned: readonly PlannedMoment[],
  sections: readonly SectionEnergy[],
  options: { kinds?: number; bed: number },
): Finding<AdviceCode>[] {
  const findings: Finding<AdviceCode>[] = [];
  const kinds = kindsOf(planned);
  const mostKinds = options.kinds ?? allowed.kinds;
  if (kinds.length > mostKinds)
    findings.push({
      code: 'style.kinds',
      severity: 'watch',
      measured: { value: kinds.length, unit: 'count' },
      allowed: { value: mostKinds, unit: 'count' },
      where: {},
      facts: { once: kinds.filter(({ times }) => times === 1).length },
    });
  const run = longestRun(planned);
  if (run && run.count >= 3)
    findings.push({
      code: 'style.no-rest',
      severity: 'watch',
      measured: { value: run.count, unit: 'count' },
      where: {},
      facts: { from: run.from, until: run.until },
    });
  for (const section of sections) {
    const picture = pictureEnergy(planned, section, options.bed);
    const apart = section.song - picture;
    if (Math.abs(apart) < 0.4) continue;
    findings.push({
      code: apart > 0 ? 'style.too-calm' : 'style.too-wild',
      severity: 'watch',
      measured: { value: picture, unit: 'share' },
      allowed: { value: section.song, unit: 'share' },
      where: {},
      facts: { section: section.name },
    });
  }
  for (const { moment } of planned)
    if (!moment.story?.trim() && !moment.asked)
      findings.push({
        code: 'style.story',
        severity: 'watch',
        where: { moment: moment.id },
        facts: { name: moment.name },
        fix: { command: 'askedStory', args: { moment: moment.id } },
      });
  return findings;
}
