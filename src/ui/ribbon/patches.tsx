'use client';
import { memo, type KeyboardEvent } from 'react';
import type { Moment } from '@/core/model/records';
import type { Severity } from '@/core/finding/finding';
import { beatLabel, type BeatGrid } from '@/core/time/grid';
import type { Span, SpanPart } from '@/core/time/span';
import { lineOf, patchBox, piecesOf, xOf, type RibbonLayout } from './layout';
import { dyeOf, Weave } from './weave';

const state: Record<Severity, string> = {
  stop: 'var(--madder)',
  fix: 'var(--saffron)',
  watch: 'var(--weld)',
  fine: 'var(--verdigris)',
};

type Props = {
  layout: RibbonLayout;
  grid: BeatGrid;
  moment: Moment;
  span: Span;
  gravity: Severity;
  selected: boolean;
  onKey: (moment: Moment, event: KeyboardEvent) => void;
};

/** A moment as a woven patch over its bars, with a pin on the beat where it lands and a paper tag below. */
export const Patch = memo(
  function Patch({ layout, grid, moment, span, gravity, selected, onKey }: Props) {
    const { height } = layout;
    const box = patchBox(height);
    const weave = `weave-${moment.id}`;
    const pieces = piecesOf(layout, span.start, span.end);
    const pinLine = lineOf(layout, span.lands);
    const pin = xOf(layout, pinLine, span.lands);
    const [head] = pieces;
    if (!head) return null;
    const tag = Math.max(70, moment.name.length * 6.5 + 26);
    const tagX = Math.max(2, Math.min(head.x0 + 4, layout.right + 30 - tag));
    const tagY = head.line.top + height;
    return (
      <g
        role="button"
        tabIndex={0}
        aria-pressed={selected}
        aria-label={`${moment.name}, ${beatLabel(grid, span.start)} to ${beatLabel(grid, span.end)}, lands on ${beatLabel(grid, span.lands)}. Arrow keys move it, with Shift its end, with Alt its beat; C copies it behind itself; Delete removes it.`}
        data-moment={moment.id}
        onKeyDown={(event) => onKey(moment, event)}
        className="cursor-grab outline-none focus-visible:[&_.patch]:stroke-[3.4]"
      >
        <defs>
          <Weave id={weave} kind={moment.recipe} />
        </defs>
        {pieces.map(({ line, x0, x1, first, last }) => (
          <g key={line.from}>
            <rect
              x={x0}
              y={line.top + box.top}
              width={x1 - x0}
              height={box.deep}
              fill="var(--raised)"
              opacity="0.55"
            />
            <rect
              className="patch"
              x={x0}
              y={line.top + box.top}
              width={x1 - x0}
              height={box.deep}
              fill={`url(#${weave})`}
              stroke={dyeOf(moment.recipe)}
              strokeWidth={selected ? 2.4 : 1}
            />
            {first && <End part="start" x={x0} line={line.top} height={height} />}
            {last && <End part="end" x={x1} line={line.top} height={height} />}
          </g>
        ))}
        <path
          d={`M${pin} ${pinLine.top - 4}V${pinLine.top + height + 2}`}
          stroke="var(--woad)"
          strokeWidth="1.8"
          pointerEvents="none"
        />
        <circle
          cx={pin}
          cy={pinLine.top - 4}
          r="5"
          fill="var(--woad)"
          stroke="var(--ground)"
          className="cursor-ew-resize touch-none"
          data-pin={moment.id}
          data-part="lands"
        />
        <path d={`M${tagX + 8} ${head.line.top + box.top + box.deep}V${tagY + 5}`} stroke="var(--ink2)" />
        <path
          d={`M${tagX} ${tagY + 9}l5-5h${tag - 5}v19h-${tag}z`}
          fill="var(--raised)"
          stroke={selected ? 'var(--woad)' : 'var(--line)'}
        />
        <circle cx={tagX + 9} cy={tagY + 13.5} r="2.6" fill={state[gravity]} />
        <text x={tagX + 17} y={tagY + 17.5} fontSize="11" fontWeight="600" fill="var(--ink)">
          {moment.name}
        </text>
      </g>
    );
  },
  (before, after) =>
    (['start', 'lands', 'end'] as const).every((key) => before.span[key] === after.span[key]) &&
    (['layout', 'grid', 'moment', 'gravity', 'selected', 'onKey'] as const).every(
      (key) => before[key] === after[key],
    ),
);

function End({ part, x, line, height }: { part: SpanPart; x: number; line: number; height: number }) {
  return (
    <rect
      x={x - 6}
      y={line + height * 0.26}
      width="12"
      height={height * 0.6}
      fill="transparent"
      className="cursor-ew-resize touch-none"
      data-part={part}
    />
  );
}
