import type { Finding } from '@/core/finding/finding';
import { examineTake } from '@/core/footage/take-findings';
import { clone } from '@/core/recipes/clone';
import type { Plan } from './plan';
import {
  comparisonOf,
  materialOf,
  plateOf,
  rulerOf,
  songMeasure,
  takeMeasure,
  type Snapshot,
} from './snapshot';

export type StationName = 'song' | 'plan' | 'match' | 'build' | 'deliver';

/** Findings of each station, computed from what is there now. */
export function findingsOf(snapshot: Snapshot, plan: Plan): Record<StationName, Finding[]> {
  return {
    song: songFindings(snapshot),
    plan: plan.findings,
    match: takeFindings(snapshot),
    build: momentFindings(snapshot),
    deliver:
      snapshot.clones.length === 0 ? [] : momentFindings(snapshot).filter((one) => one.severity === 'stop'),
  };
}

function songFindings(snapshot: Snapshot): Finding[] {
  const measure = songMeasure(snapshot);
  const findings = problems(snapshot, (media) => media.type.startsWith('audio'));
  const { song } = snapshot;
  if (!song?.media || !measure) return findings;
  const where = { media: song.media };
  if (measure.song.silent) findings.push({ code: 'song.silent', severity: 'fix', where });
  else if (song.grid && song.confidence !== null && song.confidence < 0.35) {
    findings.push({
      code: 'song.unsure',
      severity: 'watch',
      measured: { value: song.confidence, unit: 'share' },
      where,
    });
  } else if (!song.grid) findings.push({ code: 'song.no-beats', severity: 'fix', where });
  return findings;
}

/** Files that could not be used, in the words they were refused with. */
function problems(snapshot: Snapshot, belongs: (media: { type: string }) => boolean): Finding[] {
  return [...snapshot.media.values()]
    .filter((media) => media.problem && belongs(media))
    .map((media) => ({
      code: media.problem?.code ?? '',
      severity: 'stop' as const,
      where: { media: media.id },
      facts: { name: media.name, message: media.problem?.message ?? '' },
      fix: { command: 'dropMedia', args: { media: media.id } },
    }));
}

function takeFindings(snapshot: Snapshot): Finding[] {
  const findings = problems(snapshot, (media) => !media.type.startsWith('audio'));
  const plate = plateOf(snapshot);
  const { project, takes } = snapshot;
  if (takes.length > 0 && !plate) findings.push({ code: 'setup.no-plate', severity: 'fix', where: {} });
  for (const take of takes) {
    const measure = takeMeasure(snapshot, take);
    const media = snapshot.media.get(take.media);
    if (!measure || !media) continue;
    if (!measure.complete) {
      const last = measure.times[measure.times.length - 1];
      findings.push({ code: 'take.cut-off', severity: 'fix', where: { take: take.id, from: last } });
    }
    if (media.probe?.video?.turned) {
      findings.push({
        code: 'take.turned',
        severity: 'watch',
        where: { take: take.id },
        facts: { degrees: media.probe.video.turned },
      });
    }
    const comparison = take.role === 'none' ? null : comparisonOf(snapshot, take, plate);
    findings.push(
      ...examineTake(
        take,
        measure,
        comparison,
        plate === take ? null : takeMeasure(snapshot, plate),
        project,
      ),
    );
  }
  return findings;
}

function momentFindings(snapshot: Snapshot): Finding[] {
  const ruler = rulerOf(snapshot);
  if (!ruler) return [];
  return snapshot.clones.flatMap((moment) => {
    const { material, fresh } = materialOf(snapshot, moment);
    return clone.examine(moment, ruler, fresh ? material : { ...material, seam: null });
  });
}
