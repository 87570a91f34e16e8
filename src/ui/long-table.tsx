'use client';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, type ReactNode } from 'react';

/** CSS pixels of a row: what a finger meets on a phone is as tall as a finger needs it. */
const rowHeight = () => (window.matchMedia('(pointer: coarse)').matches ? 44 : 26);

/** A table that may be hundreds of rows long: it scrolls by itself, and only the rows in sight are drawn. */
export function LongTable({
  label,
  heads,
  count,
  row,
}: {
  label: string;
  heads: readonly ReactNode[];
  count: number;
  /** the cells of a row, and whether something begins with it */
  row: (index: number) => { key: string; begins: boolean; cells: readonly ReactNode[] };
}) {
  const box = useRef<HTMLDivElement>(null);
  const virtual = useVirtualizer({
    count,
    getScrollElement: () => box.current,
    estimateSize: rowHeight,
    overscan: 12,
  });
  const seen = virtual.getVirtualItems();
  const above = seen[0]?.start ?? 0;
  const below = virtual.getTotalSize() - (seen.at(-1)?.end ?? 0);
  return (
    <div
      ref={box}
      className="relative max-h-[440px] overflow-auto"
      tabIndex={0}
      role="region"
      aria-label={label}
    >
      <table className="thread-table w-full" aria-rowcount={count + 1}>
        <thead className="sticky top-0 z-10 bg-ground">
          <tr>
            {heads.map((head, index) => (
              <th key={index} scope="col">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {above > 0 && <tr aria-hidden style={{ height: above }} />}
          {seen.map(({ index, size }) => {
            const { key, begins, cells } = row(index);
            return (
              <tr
                key={key}
                aria-rowindex={index + 2}
                className={begins ? 'bar-row' : undefined}
                style={{ height: size }}
              >
                {cells.map((cell, column) => (
                  <td key={column}>{cell}</td>
                ))}
              </tr>
            );
          })}
          {below > 0 && <tr aria-hidden style={{ height: below }} />}
        </tbody>
      </table>
    </div>
  );
}
