'use client';
import { memo } from 'react';
import { openCount } from '@/core/finding/finding';
import type { StationName } from '@/store/findings';
import { useBench } from '@/ui/bench-context';

export const stations: { name: StationName; title: string; question: string; icon: string }[] = [
  { name: 'song', title: 'Song', question: 'What should happen when?', icon: 'M4 14c6-8 6 8 12 0s6-8 8-4' },
  {
    name: 'plan',
    title: 'Plan',
    question: 'What must be filmed, and how?',
    icon: 'M5 4h14v16H5zM8 9h8M8 13h8M8 17h4',
  },
  {
    name: 'shoot',
    title: 'Shoot',
    question: 'What is still missing before this set is struck?',
    icon: 'M4 8h4l1.5-3h5L16 8h4v11H4z',
  },
  {
    name: 'match',
    title: 'Match',
    question: 'Which takes belong together?',
    icon: 'M4 6h9v12H4zM11 9h9v12h-9z',
  },
  { name: 'build', title: 'Build', question: 'Does it land?', icon: 'M4 18c4 0 6-12 16-12M4 18h2M20 6h-2' },
  {
    name: 'deliver',
    title: 'Hand over',
    question: 'Is it ready to leave?',
    icon: 'M12 4v11M7 10l5 5 5-5M5 20h14',
  },
];

/** The stations in the order of the work: at the left on a desktop, below on a phone. */
export const Rail = memo(function Rail({ here }: { here: StationName }) {
  const { findings, go } = useBench();
  return (
    <nav
      aria-label="Stations"
      className="flex bg-raised max-sm:order-last max-sm:border-t max-sm:border-line max-sm:pb-2 sm:w-[76px] sm:flex-col sm:gap-0.5 sm:border-r sm:border-line sm:py-2.5"
    >
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
            className={`relative flex flex-1 flex-col items-center gap-1 px-1 py-2 text-[11px] font-semibold sm:flex-none ${on ? 'text-ink' : 'text-ink2'}`}
          >
            {on && <span className="stitched absolute inset-y-1.5 left-0 w-[5px] max-sm:hidden" />}
            {on && <span className="stitched-flat absolute inset-x-4 top-0 h-[4px] sm:hidden" />}
            <svg
              width="24"
              height="24"
              fill="none"
              stroke="currentColor"
              strokeWidth="1.6"
              strokeLinecap="round"
              strokeLinejoin="round"
              aria-hidden
            >
              <path d={station.icon} />
            </svg>
            {station.title}
            {open > 0 && (
              <span
                className="num absolute top-1 right-3 min-w-4 rounded-full bg-saffron text-center !text-[10px] !leading-4 text-raised"
                aria-label={`${open} open findings`}
              >
                {open}
              </span>
            )}
          </button>
        );
      })}
    </nav>
  );
});
