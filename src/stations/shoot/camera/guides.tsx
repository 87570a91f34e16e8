'use client';
import { useEffect, useState } from 'react';
import { frameOf } from '@/core/camera/view';
import type { Mark, Setup, Zone } from '@/core/model/plan-records';
import { viewOf } from '@/core/plan/setup/numbers';
import { boxOf } from '@/core/plan/setup/zones';
import type { Reading } from '@/core/watch/reading';
import { cellGrid } from '@/core/watch/cells';
import { markDyes, zoneDyes } from '../../plan/dyes';

export const guideKinds = ['zones', 'marks', 'safe areas', 'upright', 'thirds', 'level'] as const;
export type GuideKind = (typeof guideKinds)[number];

/** Some phones tell how they lie only once the person allows it; that may be asked for on a press. */
export async function askForLean(): Promise<void> {
  const events = globalThis.DeviceOrientationEvent as unknown as {
    requestPermission?: () => Promise<string>;
  };
  await events?.requestPermission?.().catch(() => undefined);
}

/** How far the device leans to a side, degrees; null where it does not tell. */
function useLean(on: boolean): number | null {
  const [lean, setLean] = useState<number | null>(null);
  useEffect(() => {
    if (!on) return;
    const turn = ({ beta, gamma }: DeviceOrientationEvent) => {
      if (beta === null || gamma === null) return;
      const across = Math.abs(screen.orientation?.angle ?? 0) % 180 === 90;
      setLean(across ? beta : gamma);
    };
    window.addEventListener('deviceorientation', turn);
    return () => window.removeEventListener('deviceorientation', turn);
  }, [on]);
  return on ? lean : null;
}

/** What was planned, drawn over the viewfinder; in shares of the frame, a hundred wide. */
export function Guides({
  kinds,
  setup,
  zones,
  marks,
  reading,
  ratio,
}: {
  kinds: ReadonlySet<GuideKind>;
  setup: Setup;
  zones: readonly Zone[];
  marks: readonly Mark[];
  reading: Reading | null;
  ratio: number;
}) {
  const lean = useLean(kinds.has('level'));
  const [w, h] = [160, 160 / ratio];
  const upright = (h * 9) / 16;
  const view = viewOf(setup);
  const inset = (share: number) => ({
    x: w * share,
    y: h * share,
    width: w * (1 - 2 * share),
    height: h * (1 - 2 * share),
  });
  return (
    <svg viewBox={`0 0 ${w} ${h}`} className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden>
      {kinds.has('thirds') &&
        [1, 2].map((third) => (
          <g key={third} stroke="#ffffff" strokeOpacity="0.5" strokeWidth="0.3">
            <line x1={(w * third) / 3} x2={(w * third) / 3} y1="0" y2={h} />
            <line y1={(h * third) / 3} y2={(h * third) / 3} x1="0" x2={w} />
          </g>
        ))}
      {kinds.has('safe areas') && (
        // EBU R 95: action 3.5 %, graphics 5 % in from each edge.
        <g fill="none" stroke="#ffffff" strokeWidth="0.4">
          <rect {...inset(0.035)} />
          <rect {...inset(0.05)} strokeDasharray="2 1.4" />
        </g>
      )}
      {kinds.has('upright') && (
        <g fill="#000000" fillOpacity="0.45">
          <rect x="0" y="0" width={(w - upright) / 2} height={h} />
          <rect x={(w + upright) / 2} y="0" width={(w - upright) / 2} height={h} />
        </g>
      )}
      {kinds.has('upright') && kinds.has('safe areas') && (
        <rect
          x={(w - upright * 0.9) / 2}
          y={h * 0.05}
          width={upright * 0.9}
          height={h * 0.9}
          fill="none"
          stroke="#ffffff"
          strokeWidth="0.4"
          strokeDasharray="2 1.4"
        />
      )}
      {kinds.has('zones') &&
        zones.map((zone) =>
          zone.what === 'seam' ? (
            <line
              key={zone.id}
              x1={zone.from[0] * w}
              y1={zone.from[1] * h}
              x2={zone.to[0] * w}
              y2={zone.to[1] * h}
              stroke="#f2b252"
              strokeWidth="0.8"
              strokeDasharray="2.4 1.8"
            />
          ) : (
            <rect
              key={zone.id}
              x={boxOf(zone).left * w}
              y={boxOf(zone).top * h}
              width={(boxOf(zone).right - boxOf(zone).left) * w}
              height={(boxOf(zone).bottom - boxOf(zone).top) * h}
              fill="none"
              stroke={zone.what === 'copy' ? '#ffffff' : zoneDyes[zone.what]}
              strokeWidth="0.6"
            />
          ),
        )}
      {kinds.has('marks') &&
        marks.map((mark, index) => {
          const at = frameOf(view, { x: mark.x, y: mark.y, z: 0 });
          return (
            at && (
              <g key={mark.id} stroke={markDyes[index % markDyes.length]} strokeWidth="0.9">
                <line x1={at.x * w - 3} x2={at.x * w + 3} y1={at.y * h - 3} y2={at.y * h + 3} />
                <line x1={at.x * w - 3} x2={at.x * w + 3} y1={at.y * h + 3} y2={at.y * h - 3} />
              </g>
            )
          );
        })}
      {reading &&
        zones
          .filter(({ what }) => what === 'seam')
          .flatMap((zone) => touching(reading, zone).map((cell) => ({ zone, cell })))
          .map(({ zone, cell }) => (
            <rect
              key={`${zone.id}-${cell}`}
              x={((cell % cellGrid.width) / cellGrid.width) * w}
              y={(Math.floor(cell / cellGrid.width) / cellGrid.height) * h}
              width={w / cellGrid.width}
              height={h / cellGrid.height}
              fill={reading.shadow[cell] ? '#6c478c' : '#f08a75'}
              fillOpacity="0.75"
            />
          ))}
      {kinds.has('level') && lean !== null && (
        <g
          transform={`rotate(${-lean} ${w / 2} ${h / 2})`}
          stroke={Math.abs(lean) < 0.5 ? '#72cab6' : '#f2b252'}
          strokeWidth="0.6"
        >
          <line x1={w * 0.3} x2={w * 0.46} y1={h / 2} y2={h / 2} />
          <line x1={w * 0.54} x2={w * 0.7} y1={h / 2} y2={h / 2} />
        </g>
      )}
    </svg>
  );
}

/** Cells along a line in which something stands. */
function touching(reading: Reading, { from, to }: Zone): number[] {
  const out = new Set<number>();
  for (let step = 0; step < 72; step++) {
    const share = (step + 0.5) / 72;
    const x = Math.floor((from[0] + (to[0] - from[0]) * share) * cellGrid.width);
    const y = Math.floor((from[1] + (to[1] - from[1]) * share) * cellGrid.height);
    if (x < 0 || y < 0 || x >= cellGrid.width || y >= cellGrid.height) continue;
    if (reading.present[y * cellGrid.width + x]) out.add(y * cellGrid.width + x);
  }
  return [...out];
}
