'use client';
import { beatOfTime, beatLabel } from '@/core/time/grid';
import { songMeasure } from '@/store/snapshot';
import { useBench } from '../bench-context';
import { useSize } from '../use-size';
import { dyes } from './sections';
import { dyeOf, Weave } from './weave';

/** The whole song in one slim line: its sections and its moments, to choose one. */
export function Strip() {
  const { snapshot, moment: chosen, go } = useBench();
  const [ref, { width }] = useSize<HTMLDivElement>();
  const { sections, moments, song } = snapshot;
  const grid = song?.grid;
  if (!grid) return null;
  const length = songMeasure(snapshot)?.song.duration;
  const last = Math.max(length ? beatOfTime(grid, length) : 0, ...moments.map(({ end }) => end), 16);
  const x = (beat: number) => (Math.max(0, beat) / last) * Math.max(0, width - 2) + 1;
  return (
    <div ref={ref} className="h-[46px] flex-none border-b border-line bg-raised px-0">
      {width > 0 && (
        <svg width={width} height={46} role="group" aria-label="The song and its moments">
          {sections.map((section, index) => (
            <g key={section.id}>
              <rect
                x={x(section.at)}
                y={0}
                width={Math.max(0, x(sections[index + 1]?.at ?? last) - x(section.at))}
                height={46}
                fill={dyes[section.dye]}
                opacity="0.13"
              />
              <text x={x(section.at) + 4} y={11} fontSize="10" fill="var(--ink2)">
                {section.name}
              </text>
            </g>
          ))}
          {moments.map((moment) => (
            <g
              key={moment.id}
              role="button"
              tabIndex={0}
              aria-pressed={moment.id === chosen?.id}
              aria-label={`${moment.name}, ${beatLabel(grid, moment.start)}`}
              className="cursor-pointer"
              onClick={() => go({ moment: moment.id })}
              onKeyDown={(event) => {
                if (event.key !== 'Enter' && event.key !== ' ') return;
                event.preventDefault();
                go({ moment: moment.id });
              }}
            >
              <title>{moment.name}</title>
              <defs>
                <Weave id={`strip-${moment.id}`} kind={moment.recipe} />
              </defs>
              <rect
                x={x(moment.start)}
                y={16}
                width={Math.max(6, x(moment.end) - x(moment.start))}
                height={26}
                fill={`url(#strip-${moment.id})`}
                stroke={dyeOf(moment.recipe)}
                strokeWidth={moment.id === chosen?.id ? 3 : 1}
              />
            </g>
          ))}
        </svg>
      )}
    </div>
  );
}
