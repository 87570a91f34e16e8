'use client';
import { mapPoint } from '@/core/geometry/affine';
import type { Point } from '@/core/geometry/size';
import { describeFrame } from '@/core/picture/draw-list';
import type { Node } from '@/core/picture/node';
import type { Frame } from './stage';

/** The edges of every layer of a frame, and the outlines that it shows through, drawn over the picture. */
export function Outlines({
  tree,
  at,
  frame,
  delivery,
}: {
  tree: Node;
  at: number;
  frame: Frame;
  delivery: { width: number; height: number };
}) {
  const lists = describeFrame(tree, at) ?? [];
  const items = lists[Math.floor(lists.length / 2)] ?? [];
  const scale = frame.width / delivery.width;
  const pathOf = (ring: readonly Point[]) =>
    `M${ring.map(([x, y]) => `${(x * scale).toFixed(1)} ${(y * scale).toFixed(1)}`).join('L')}Z`;
  return (
    <svg
      className="pointer-events-none absolute overflow-hidden"
      style={frame}
      role="img"
      aria-label={`Edges of ${items.length} layers`}
      data-outlines={items.length}
    >
      {items.map(({ node, size, matrix, mask }, index) => {
        const corners: Point[] = [
          [0, 0],
          [size.width, 0],
          [size.width, size.height],
          [0, size.height],
        ];
        const edge = pathOf(corners.map((corner) => mapPoint(matrix, corner)));
        const outline = mask?.rings.map(pathOf).join('') ?? '';
        return (
          <g key={`${node} ${index}`} fill="none" strokeWidth="2">
            <path d={edge} stroke="#86b6df" strokeDasharray="8 5" />
            <path d={outline} stroke="#15182b" />
            <path d={outline} stroke="#f2b252" strokeDasharray="4 4" />
          </g>
        );
      })}
    </svg>
  );
}
