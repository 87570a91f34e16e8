'use client';
import { useDrag } from '@use-gesture/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import type { Moment } from '@/core/model/records';
import type { Anchor, Ruler } from '@/core/recipes/recipe';
import { beatLabel, beatOfTime, timeOfBeat } from '@/core/time/grid';
import { frameOfTime, timeOfFrame } from '@/core/time/rate';
import { setMoment } from '@/store/commands/moments';
import { useAhead } from '@/ui/ahead';
import { useServices } from '@/ui/bench-context';
import { gripOf, type DragState } from '@/ui/drag-state';
import { useGesture } from '@/ui/gesture';
import { positionAt, xOf, type RibbonLayout } from '@/ui/ribbon/layout';
import { stepOfKey } from '@/ui/arrow-keys';

/**
 * The further instants of a moment as knots on its passage: dragged, they hold to half beats, with Alt to frames; the
 * arrow keys move them. Its beginning, its beat and its end are the ribbon's own.
 */
export function AnchorKnots({
  moment,
  anchors,
  ruler,
  layout,
}: {
  moment: Moment;
  anchors: readonly Anchor[];
  ruler: Ruler;
  layout: RibbonLayout;
}) {
  const { store, attempt } = useServices();
  const { grid, project } = ruler;
  const svg = useRef<SVGSVGElement>(null);
  const ahead = useAhead<number>();
  const asOne = useGesture();
  const [held, setHeld] = useState<{ name: string; position: number } | null>(null);
  const [line] = layout.lines;
  const y = line.top + layout.height * 0.5;

  const within = ({ limits }: Anchor, position: number) => Math.min(limits[1], Math.max(limits[0], position));
  const holdTo = ({ step }: Anchor, position: number, free: boolean) =>
    free
      ? beatOfTime(grid, timeOfFrame(project.rate, frameOfTime(project.rate, timeOfBeat(grid, position))))
      : Math.round(position / step) * step;
  const save = ({ name, field, title }: Anchor, position: number) =>
    ahead.send(
      name,
      position,
      attempt(() => setMoment(store, moment.project, moment.id, title, { [field]: position })),
    );
  const drag = useDrag(
    ({ args, initial, xy, tap, last, event, altKey }: DragState) => {
      const [anchor] = args as [Anchor];
      const box = svg.current?.getBoundingClientRect();
      if (tap || !box) return setHeld(null);
      const [pressed, now] = [initial, xy].map(([x, down]) =>
        positionAt(layout, x - box.left, down - box.top),
      );
      const position = within(anchor, holdTo(anchor, anchor.position + now - pressed, altKey));
      const grip = gripOf({ last, event });
      setHeld(grip === 'held' ? { name: anchor.name, position } : null);
      if (grip === 'done' && position !== anchor.position) save(anchor, position);
    },
    { filterTaps: true, threshold: 4, preventScroll: 250, preventScrollAxis: 'y', pointer: { keys: false } },
  );
  const onKey = (anchor: Anchor, event: KeyboardEvent) => {
    const by = stepOfKey(event.key);
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    const from = ahead.newest(anchor.name, anchor.position);
    asOne(event.nativeEvent, () => save(anchor, within(anchor, from + by * anchor.step)));
  };

  const pins = anchors.filter(({ field }) => field.startsWith('pins.'));
  if (pins.length === 0) return null;
  return (
    <svg
      ref={svg}
      className="pointer-events-none absolute inset-x-0 top-1 bottom-0 h-full w-full overflow-visible"
    >
      {pins.map((anchor) => {
        const position = held?.name === anchor.name ? held.position : anchor.position;
        const x = xOf(layout, line, position);
        return (
          <g
            key={anchor.name}
            role="slider"
            tabIndex={0}
            aria-label={`${anchor.title}; arrow keys move it`}
            aria-valuenow={position}
            aria-valuetext={beatLabel(grid, position)}
            data-anchor={anchor.name}
            className="pointer-events-auto cursor-ew-resize touch-pan-y"
            {...drag(anchor)}
            onKeyDown={(event) => onKey(anchor, event)}
          >
            <path
              d={`M${x} ${line.top + 8}V${line.top + layout.height}`}
              stroke="var(--woad)"
              strokeDasharray="2 3"
            />
            <circle cx={x} cy={y} className="[r:12px] pointer-coarse:[r:22px]" fill="transparent" />
            <circle cx={x} cy={y} r="6" fill="var(--raised)" stroke="var(--woad)" strokeWidth="2.5" />
          </g>
        );
      })}
    </svg>
  );
}
