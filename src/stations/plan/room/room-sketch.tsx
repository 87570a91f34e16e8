'use client';
import { frameOf, type View } from '@/core/camera/view';
import type { Piece, Setup } from '@/core/model/plan-records';
import { useData } from '@/ui/bench-context';

const wallHeight = 2.6;

/** A plain drawing of the room as the lens sees it: wall, floor, and what stands there. */
export function RoomSketch({
  setup,
  view,
  width,
  height,
}: {
  setup: Setup;
  view: View;
  width: number;
  height: number;
}) {
  const snapshot = useData((data) => data.snapshot);
  const { walls } = setup;
  const at = (x: number, y: number, z: number) => {
    const shown = frameOf(view, { x, y: Math.max(0.05, y), z });
    return `${((shown?.x ?? 0.5) * width).toFixed(1)} ${((shown?.y ?? 2) * height).toFixed(1)}`;
  };
  const face = (points: readonly (readonly [number, number, number])[]) =>
    `M${points.map(([x, y, z]) => at(x, y, z)).join('L')}Z`;
  const { left, right, ahead } = walls;
  const outside = setup.place === 'outside';
  const pieces = snapshot.pieces
    .filter((piece) => piece.setup === setup.id && piece.y > 0.1)
    .sort((a, b) => b.y - a.y);
  return (
    <g>
      <rect width={width} height={height} fill={outside ? '#a9bccb' : '#b9ab92'} />
      <path
        d={face([
          [-left, ahead, 0],
          [right, ahead, 0],
          [right, 0.2, 0],
          [-left, 0.2, 0],
        ])}
        fill={outside ? '#77806a' : '#7d6b55'}
      />
      {!outside && (
        <>
          <path
            d={face([
              [-left, ahead, 0],
              [right, ahead, 0],
              [right, ahead, wallHeight],
              [-left, ahead, wallHeight],
            ])}
            fill="#c9bb9f"
            stroke="#8d8069"
          />
          {[-left, right].map((x) => (
            <path
              key={x}
              d={face([
                [x, 0.3, 0],
                [x, ahead, 0],
                [x, ahead, wallHeight],
                [x, 0.3, wallHeight],
              ])}
              fill="#a5977d"
              stroke="#8d8069"
            />
          ))}
        </>
      )}
      {pieces.map((piece) => (
        <PieceBox key={piece.id} piece={piece} face={face} />
      ))}
    </g>
  );
}

function PieceBox({
  piece,
  face,
}: {
  piece: Piece;
  face: (points: readonly (readonly [number, number, number])[]) => string;
}) {
  const [left, right] = [piece.x - piece.width / 2, piece.x + piece.width / 2];
  const [near, far] = [piece.y - piece.depth / 2, piece.y + piece.depth / 2];
  const { height } = piece;
  const fill = piece.what === 'backdrop' ? '#7a6a8f' : piece.what === 'door' ? '#8a5a44' : '#5d4a38';
  return (
    <g stroke="#3b2f25">
      <path
        d={face([
          [left, near, height],
          [right, near, height],
          [right, far, height],
          [left, far, height],
        ])}
        fill={fill}
        opacity="0.85"
      />
      <path
        d={face([
          [left, near, 0],
          [right, near, 0],
          [right, near, height],
          [left, near, height],
        ])}
        fill={fill}
      />
    </g>
  );
}
