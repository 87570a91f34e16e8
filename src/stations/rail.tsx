'use client';
import { AudioWaveform, Blend, Camera, Gift, ScrollText, Spline, type LucideIcon } from 'lucide-react';
import { memo } from 'react';
import { openCount } from '@/core/finding/finding';
import type { StationName } from '@/store/findings';
import { useData, useServices } from '@/ui/bench-context';

export const stations: { name: StationName; title: string; question: string; icon: LucideIcon }[] = [
  { name: 'song', title: 'Song', question: 'What should happen when?', icon: AudioWaveform },
  { name: 'plan', title: 'Plan', question: 'What must be filmed, and how?', icon: ScrollText },
  {
    name: 'shoot',
    title: 'Shoot',
    question: 'What is still missing before this set is struck?',
    icon: Camera,
  },
  { name: 'match', title: 'Match', question: 'Which takes belong together?', icon: Blend },
  { name: 'build', title: 'Build', question: 'Does it land?', icon: Spline },
  { name: 'deliver', title: 'Hand over', question: 'Is it ready to leave?', icon: Gift },
];

/**
 * The stations in the order of the work: a rail at the left on a desk; on a phone tags and knots on one thread, along
 * the bottom or, held sideways, down the left.
 */
export const Rail = memo(function Rail({ here }: { here: StationName }) {
  const { go } = useServices();
  const findings = useData((data) => data.findings);
  return (
    <nav
      aria-label="Stations"
      className="relative flex bg-raised phone:order-last phone:border-t phone:border-line phone:px-1 phone:pb-2 low:order-first low:w-[92px] low:flex-col low:border-t-0 low:border-r low:px-0 low:pb-0 desk:w-[76px] desk:flex-col desk:gap-0.5 desk:border-r desk:border-line desk:py-2.5"
    >
      <span
        aria-hidden
        className="stitched-flat absolute inset-x-0 top-[15px] h-[2px] low:hidden desk:hidden"
      />
      <span aria-hidden className="stitched absolute inset-y-0 left-[15px] hidden w-[2px] low:block" />
      {stations.map((station, index) => {
        const open = openCount(findings[station.name]);
        const on = station.name === here;
        return (
          <button
            key={station.name}
            type="button"
            aria-current={on ? 'page' : undefined}
            title={`${station.title} (${index + 1})`}
            onClick={() => go({ station: station.name })}
            className={`relative flex min-w-0 flex-1 font-semibold phone:min-h-[52px] phone:flex-col phone:items-center phone:gap-1.5 phone:pt-2 phone:text-[13px] phone:leading-4 low:min-h-11 low:flex-row low:gap-2 low:px-2 low:pt-0 desk:flex-none desk:flex-col desk:items-center desk:gap-1 desk:px-1 desk:py-2 desk:text-[11px] ${on ? 'text-ink phone:font-serif phone:text-raised' : 'text-ink2'}`}
          >
            {on && <span className="stitched absolute inset-y-1.5 left-0 w-[5px] phone:hidden" />}
            {on && (
              <span
                aria-hidden
                className="tag absolute inset-x-0 top-1 bottom-0 bg-ink low:inset-x-1 low:inset-y-1 desk:hidden"
              />
            )}
            <station.icon size={22} strokeWidth={1.6} aria-hidden className="phone:hidden" />
            <span
              className={`num relative grid min-w-4 flex-none place-items-center rounded-full px-0.5 !text-[10px] !leading-4 text-raised desk:absolute desk:top-1 desk:right-3 ${open > 0 ? 'bg-saffron' : `phone:mx-1 phone:my-1 phone:size-2 phone:min-w-0 desk:hidden ${on ? 'bg-raised' : 'bg-madder'}`}`}
            >
              {open > 0 && open}
              {open > 0 && <span className="sr-only"> open findings</span>}
            </span>
            <span className="relative text-center [overflow-wrap:anywhere]">{station.title}</span>
          </button>
        );
      })}
    </nav>
  );
});
