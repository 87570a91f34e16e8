import type { ReactNode } from 'react';
import type { MomentKind } from '@/core/recipes/films';

type Drawn = { dye: string; size: [number, number]; marks: ReactNode };

const block = (x: number, y: number, width: number, height: number) => (
  <rect key={`${x} ${y}`} x={x} y={y} width={width} height={height} />
);
const line = (d: string, width = 2) => (
  <path key={d} d={d} fill="none" stroke="currentColor" strokeWidth={width} />
);
const dot = (x: number, y: number, r: number) => <circle key={`${x} ${y}`} cx={x} cy={y} r={r} />;

/** The weave of each kind of moment: its pattern tells it apart without colour, its dye comes second. */
const weaves: Record<MomentKind, Drawn> = {
  clone: { dye: 'woad', size: [12, 12], marks: [block(0, 1, 12, 3.4), block(0, 6.5, 12, 3.4)] },
  'masked-reveal': {
    dye: 'cochineal',
    size: [14, 14],
    marks: [line('M-2 16L16 -2', 4), line('M-9 9L9 -9', 1), line('M5 23L23 5', 1)],
  },
  'cover-swap': { dye: 'verdigris', size: [14, 14], marks: [block(1, 1, 6, 6), block(8, 8, 5, 5)] },
  'freeze-stack': {
    dye: 'saffron',
    size: [16, 16],
    marks: [block(0, 0, 7, 4), block(8, 4, 7, 4), block(1, 8, 7, 4), block(9, 12, 7, 4)],
  },
  'take-off': { dye: 'lichen', size: [12, 14], marks: [line('M0 12L6 3L12 12', 2.4)] },
  'built-whip': {
    dye: 'madder',
    size: [10, 12],
    marks: [line('M0 12L10 0'), line('M-5 6L5 -6'), line('M5 18L15 6')],
  },
  'camera-whip': {
    dye: 'madder',
    size: [18, 10],
    marks: [line('M0 3C6 -1 12 7 18 3', 2.4), line('M0 8C6 4 12 12 18 8', 1)],
  },
  'hidden-wipe': { dye: 'verdigris', size: [22, 12], marks: [block(0, 0, 11, 12)] },
  'speed-ramp': {
    dye: 'woad',
    size: [24, 12],
    marks: [
      block(0, 0, 4, 12),
      block(7, 0, 3, 12),
      block(12.5, 0, 2, 12),
      block(16.5, 0, 1.4, 12),
      block(20, 0, 1, 12),
    ],
  },
  'split-screen': {
    dye: 'saffron',
    size: [16, 16],
    marks: [line('M0 8H16', 2), line('M8 0V16', 2), block(0, 0, 8, 8)],
  },
  'ghost-trail': { dye: 'lichen', size: [18, 12], marks: [dot(3, 6, 3), dot(9, 6, 2), dot(14, 6, 1.2)] },
  flash: {
    dye: 'saffron',
    size: [14, 14],
    marks: [line('M7 0V14', 1.6), line('M0 7H14', 1.6), line('M2 2L12 12', 1), line('M12 2L2 12', 1)],
  },
  shake: { dye: 'madder', size: [12, 10], marks: [line('M0 7L3 2L6 8L9 2L12 7', 2)] },
  'push-pull': {
    dye: 'cochineal',
    size: [18, 18],
    marks: [
      <rect key="o" x="2" y="2" width="14" height="14" fill="none" stroke="currentColor" strokeWidth="1.6" />,
      block(6, 6, 6, 6),
    ],
  },
  vanish: {
    dye: 'lichen',
    size: [14, 14],
    marks: [
      <circle
        key="o"
        cx="7"
        cy="7"
        r="4.6"
        fill="none"
        stroke="currentColor"
        strokeWidth="1.6"
        strokeDasharray="3 2"
      />,
    ],
  },
  'flying-cutout': { dye: 'cochineal', size: [16, 12], marks: [line('M2 9L8 3L14 9Z', 1.8)] },
  'build-up': {
    dye: 'verdigris',
    size: [18, 14],
    marks: [block(0, 10, 4, 4), block(5, 7, 4, 7), block(10, 3, 4, 11)],
  },
  'light-hits': {
    dye: 'weld',
    size: [14, 14],
    marks: [
      dot(7, 7, 2.4),
      line('M7 0V3', 1.4),
      line('M7 11V14', 1.4),
      line('M0 7H3', 1.4),
      line('M11 7H14', 1.4),
    ],
  },
  isolate: {
    dye: 'weld',
    size: [12, 12],
    marks: [
      dot(3, 3, 2.6),
      <circle key="o" cx="9" cy="9" r="2.2" fill="none" stroke="currentColor" strokeWidth="1" />,
    ],
  },
  'creep-orbit': {
    dye: 'weld',
    size: [20, 12],
    marks: [line('M0 6H20', 1), line('M0 9H20', 2), line('M0 2.5H20', 0.6)],
  },
};

/** The dye of a kind, as a colour. */
export const dyeOf = (kind: MomentKind): string => `var(--${weaves[kind].dye})`;

/** The weave of a kind as an SVG pattern with the given id. */
export function Weave({ id, kind }: { id: string; kind: MomentKind }) {
  const { size, marks } = weaves[kind];
  const dye = dyeOf(kind);
  return (
    <pattern id={id} width={size[0]} height={size[1]} patternUnits="userSpaceOnUse">
      <rect width={size[0]} height={size[1]} fill={dye} opacity="0.2" />
      <g fill={dye} style={{ color: dye }}>
        {marks}
      </g>
    </pattern>
  );
}

/** A small piece of a kind's fabric. */
export function Swatch({
  id,
  kind,
  width = 40,
  height = 24,
}: {
  id: string;
  kind: MomentKind;
  width?: number;
  height?: number;
}) {
  return (
    <svg width={width} height={height} aria-hidden className="flex-none">
      <defs>
        <Weave id={id} kind={kind} />
      </defs>
      <rect width={width} height={height} fill={`url(#${id})`} stroke={dyeOf(kind)} />
    </svg>
  );
}
