'use client';
import { memo } from 'react';
import { beatOfTime, beatLabel } from '@/core/time/grid';
import { songMeasure } from '@/store/snapshot';
import type { MomentKind } from '@/core/recipes/films';
import { useData, useServices } from '../bench-context';
import { useSize } from '../use-size';
import { dyes } from './sections';
import { dyeOf, Weave } from './weave';

/** The whole song in one slim line: its sections and its moments, to choose one. */
export function Strip() {
  const snapshot = useData((data) => data.snapshot);
  const chosen = useData((data) => data.moment);
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
            <Stretch
              key={moment.id}
              id={moment.id}
              name={moment.name}
              kind={moment.recipe}
              at={beatLabel(grid, moment.start)}
              left={x(moment.start)}
              wide={Math.max(6, x(moment.end) - x(moment.start))}
              chosen={moment.id === chosen?.id}
            />
          ))}
        </svg>
      )}
    </div>
  );
}

/** A moment on the strip. */
const Stretch = memo(function Stretch({
  id,
  name,
  kind,
  at,
  left,
  wide,
  chosen,
}: {
  id: string;
  name: string;
  kind: MomentKind;
  /** where it begins, in words */
  at: string;
  /** pixels */
  left: number;
  wide: number;
  chosen: boolean;
}) {
  const { go } = useServices();
  return (
    <g
      role="button"
      tabIndex={0}
      aria-pressed={chosen}
      aria-label={`${name}, ${at}`}
      className="cursor-pointer"
      onClick={() => go({ moment: id })}
      onKeyDown={(event) => {
        if (event.key !== 'Enter' && event.key !== ' ') return;
        event.preventDefault();
        go({ moment: id });
      }}
    >
      <title>{name}</title>
      <defs>
        <Weave id={`strip-${id}`} kind={kind} />
      </defs>
      <rect
        x={left}
        y={16}
        width={wide}
        height={26}
        fill={`url(#strip-${id})`}
        stroke={dyeOf(kind)}
        strokeWidth={chosen ? 3 : 1}
      />
    </g>
  );
});
