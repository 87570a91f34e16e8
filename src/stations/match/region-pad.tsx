'use client';
import { useRef, useState, type PointerEvent } from 'react';
import { leastRegion, regionBetween, type Region } from '@/core/geometry/region';
import type { Point } from '@/core/geometry/size';
import type { Take } from '@/core/model/records';
import { readNumber } from '@/core/read-number';
import { takeMeasure } from '@/store/snapshot';
import { useData } from '@/ui/bench-context';
import { LiveNumber } from '@/ui/live-number';
import { Poster } from './swatch';

const css = (value: number) => `${100 * value}%`;
const share = (value: number) => `${Math.round(100 * value)} %`;

/** A part of a take's picture, drawn on it from corner to corner, or said in numbers. */
export function RegionPad({
  take,
  region,
  onChange,
}: {
  take: Take;
  region: Region;
  onChange: (region: Region) => void;
}) {
  const measure = useData((data) => takeMeasure(data.snapshot, take));
  const [drawn, setDrawn] = useState<Region | null>(null);
  const corner = useRef<Point | null>(null);
  const at = ({ currentTarget, clientX, clientY }: PointerEvent): Point => {
    const box = currentTarget.getBoundingClientRect();
    return [(clientX - box.left) / box.width, (clientY - box.top) / box.height];
  };
  const { x, y, width, height } = drawn ?? region;
  const between = (low: Point, high: Point) => onChange(regionBetween(low, high));
  const edge = (name: string, value: number, min: number, max: number, change: (next: number) => void) => (
    <LiveNumber
      label={`${name} edge of the part`}
      value={value}
      step={0.01}
      min={min}
      max={max}
      show={share}
      read={(text) => {
        const percent = readNumber(text);
        return percent === null ? null : percent / 100;
      }}
      onChange={change}
    />
  );
  if (!measure) return null;
  return (
    <div className="flex flex-col gap-1.5">
      <div
        data-testid="region"
        className="relative w-[320px] max-w-full cursor-crosshair touch-none overflow-hidden bg-stage select-none"
        style={{ aspectRatio: `${measure.size.width} / ${measure.size.height}` }}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          corner.current = at(event);
        }}
        onPointerMove={(event) => corner.current && setDrawn(regionBetween(corner.current, at(event)))}
        onPointerUp={(event) => {
          if (corner.current && drawn) onChange(regionBetween(corner.current, at(event)));
          corner.current = null;
          setDrawn(null);
        }}
        onPointerCancel={() => {
          corner.current = null;
          setDrawn(null);
        }}
      >
        <div className="pointer-events-none h-full w-full">
          <Poster blob={measure.poster} alt={`A picture of ${take.name}`} />
        </div>
        <span
          aria-hidden
          data-testid="region drawn"
          className="pointer-events-none absolute outline-2 outline-offset-0 outline-raised outline-dashed"
          style={{
            left: css(x),
            top: css(y),
            width: css(width),
            height: css(height),
            boxShadow: '0 0 0 2000px rgb(0 0 0 / 0.45)',
          }}
        />
      </div>
      <p className="text-[13px] leading-[1.9]">
        Draw it on the picture, or say it: from{' '}
        {edge('Left', x, 0, x + width - leastRegion, (next) => between([next, y], [x + width, y + height]))}{' '}
        to {edge('Right', x + width, x + leastRegion, 1, (next) => between([x, y], [next, y + height]))}{' '}
        across, from{' '}
        {edge('Upper', y, 0, y + height - leastRegion, (next) => between([x, next], [x + width, y + height]))}{' '}
        to {edge('Lower', y + height, y + leastRegion, 1, (next) => between([x, y], [x + width, next]))} down.
      </p>
    </div>
  );
}
