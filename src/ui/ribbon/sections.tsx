'use client';
import { memo } from 'react';
import type { Cue, Section } from '@/core/model/records';
import { piecesOf, type RibbonLayout } from './layout';

export const dyes = ['woad', 'saffron', 'weld', 'cochineal', 'lichen', 'verdigris'].map(
  (name) => `var(--${name})`,
);

type Props = { layout: RibbonLayout; sections: readonly Section[]; cues: readonly Cue[]; end: number };

/** What tints the fabric: sections with their tabs, and the words above the line. */
export const Sections = memo(function Sections({ layout, sections, cues, end }: Props) {
  return (
    <g pointerEvents="none">
      {sections.map((section, index) =>
        piecesOf(layout, section.at, sections[index + 1]?.at ?? end).map(({ line, x0, x1, first }) => (
          <g key={`${section.id}${line.from}`} data-section={section.name}>
            <rect
              x={x0}
              y={line.top}
              width={x1 - x0}
              height={layout.height}
              fill={dyes[section.dye]}
              opacity="0.13"
            />
            <rect x={x0} y={line.top - 2} width={x1 - x0} height="2" fill={dyes[section.dye]} opacity="0.8" />
            {(first || line === layout.lines[0]) && (
              <>
                <path
                  d={`M${x0} ${line.top - 1}v-13h${section.name.length * 5.9 + 10}l4 13z`}
                  fill={dyes[section.dye]}
                />
                <text x={x0 + 5} y={line.top - 4.5} fontSize="10" fontWeight="650" fill="var(--ground)">
                  {section.name}
                </text>
              </>
            )}
          </g>
        )),
      )}
      {cues.map((cue) =>
        piecesOf(layout, cue.at, cue.until)
          .slice(0, 1)
          .map(({ line, x0 }) => (
            <text
              key={cue.id}
              x={x0}
              y={line.top - 18}
              fontSize="10.5"
              fontStyle="italic"
              fill="var(--ink2)"
              data-cue=""
            >
              {cue.text.length > 28 ? `${cue.text.slice(0, 27)}…` : cue.text}
            </text>
          )),
      )}
    </g>
  );
});
