'use client';
import type { Point } from '@/core/geometry/size';
import type { Frame } from '@/ui/stage/stage';

/** The thread from a beat on the ribbon above down to what lands on it. `to` in shares of the picture. */
export function Thread({ from, frame, to, text }: { from: number; frame: Frame; to: Point; text: string }) {
  const x = frame.left + to[0] * frame.width;
  const y = frame.top + to[1] * frame.height;
  const wide = text.length * 7.4 + 14;
  // The label stands at the head of the thread, over the upper edge of the picture, where nobody is covered by it.
  const label = Math.max(4, Math.min(from + 8, frame.left * 2 + frame.width - wide - 4));
  const top = Math.max(2, frame.top - 12);
  return (
    <svg
      className="pointer-events-none absolute inset-0 h-full w-full overflow-visible"
      aria-hidden
      data-thread=""
    >
      <path
        d={`M${from} -40V${Math.min(14, frame.top)}C${from} ${y * 0.6} ${x} ${y * 0.4} ${x} ${y - 6}`}
        stroke="#86b6df"
        strokeWidth="1.8"
        fill="none"
      />
      <circle cx={x} cy={y} r="5.5" fill="#15182b" stroke="#86b6df" strokeWidth="2.2" />
      <rect x={label} y={top} width={wide} height="19" rx="2" fill="#15182b" />
      <text x={label + 7} y={top + 14} fontSize="11" fill="#efe6d6" className="num">
        {text}
      </text>
    </svg>
  );
}
