import type { Finding } from '../../finding/finding';
import type { Pass } from '../../model/plan-records';
import type { SectionEnergy } from './style';
import type { AdviceCode } from './advice-words';

/** Energy that a way of filming carries: close and handheld is wild, a locked wide is still. Common practice. */
export function passEnergy({ size, steadiness }: Pick<Pass, 'size' | 'steadiness'>): number {
  const near = { wide: 0.1, medium: 0.3, close: 0.5 }[size];
  const moves = { steady: 0, moving: 0.3, handheld: 0.5 }[steadiness];
  return near + moves;
}

/** Mean energy of all performance passes; a locked wide where there are none. */
export const bedEnergy = (passes: readonly Pass[]): number => {
  const bed = passes.filter(({ what }) => what !== 'whip');
  return bed.length === 0 ? 0.1 : bed.reduce((sum, pass) => sum + passEnergy(pass), 0) / bed.length;
};

/** How many different pictures a stretch can be cut from: angles and sizes count, repeats do not. */
function picturesOver(passes: readonly Pass[], from: number, until: number): Pass[] {
  const over = passes.filter(
    (pass) => pass.what !== 'whip' && (pass.from ?? -Infinity) <= from && (pass.until ?? Infinity) >= until,
  );
  const key = (pass: Pass) => `${pass.angle} ${pass.size} ${pass.steadiness}`;
  return over.filter((pass, index) => over.findIndex((other) => key(other) === key(pass)) === index);
}

/** Pictures that a section wants, by its energy: 2 for the calmest, 5 for the wildest. Common practice. */
export const picturesWanted = (energy: number): number => 2 + Math.round(3 * energy);

/** Each section with what there is and what its energy asks for. */
export function coverageOf(passes: readonly Pass[], sections: readonly SectionEnergy[]) {
  return sections.map((section) => {
    const there = picturesOver(passes, section.from, section.until);
    const liveliest = Math.max(0, ...there.map(passEnergy));
    return { section, there, wanted: picturesWanted(section.song), liveliest };
  });
}

/** What the performance lacks, section by section. */
export function examineCoverage(
  passes: readonly Pass[],
  sections: readonly SectionEnergy[],
): Finding<AdviceCode>[] {
  if (passes.length === 0) return [{ code: 'coverage.none', severity: 'watch', where: {} }];
  return coverageOf(passes, sections).flatMap(
    ({ section, there, wanted, liveliest }): Finding<AdviceCode>[] => {
      const facts = { section: section.name };
      if (there.length < wanted)
        return [
          {
            code: 'coverage.few',
            severity: 'watch',
            measured: { value: there.length, unit: 'count' },
            allowed: { value: wanted, unit: 'count' },
            where: {},
            facts,
          },
        ];
      if (section.song > 0.6 && liveliest < 0.6)
        return [{ code: 'coverage.still', severity: 'watch', where: {}, facts }];
      return [];
    },
  );
}
