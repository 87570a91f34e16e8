'use client';
import { useMemo } from 'react';
import type { ShotSheet } from '@/core/footage/cuts/shots';
import type { FoundJoin } from '@/core/footage/found-joins';
import type { Severity } from '@/core/finding/finding';
import { jumpOf } from '@/core/footage/join-words';
import { formatClock } from '@/core/time/timecode';
import { GravityMark } from '@/ui/remark';
import { showSheet } from '../show-sheet';

const times = (join: FoundJoin) => `${jumpOf(join).toFixed(1)} ×`;

/** Joins as pairs of pictures, the one that is least seen first. Those of one row of the sheet belong together. */
export function JoinCards({
  joins,
  sheet,
  pictures,
  gravity,
  chosen,
  onChoose,
}: {
  joins: readonly FoundJoin[];
  sheet: ShotSheet;
  pictures: Blob;
  gravity: (join: FoundJoin) => Severity;
  chosen: number;
  onChoose: (index: number) => void;
}) {
  const show = useMemo(() => showSheet(pictures), [pictures]);
  return (
    <div
      ref={show}
      role="group"
      aria-label="Where to cut"
      className="grid grid-cols-[repeat(auto-fill,minmax(212px,1fr))] gap-3 phone:grid-cols-1"
    >
      {joins.map((join, index) => (
        <button
          key={`${join.a} ${join.b}`}
          type="button"
          aria-pressed={index === chosen}
          data-join={`${join.a} ${join.b}`}
          className={`flex flex-col gap-1.5 bg-raised px-2.5 py-2 text-left ${index === chosen ? 'outline-[2.5px] outline-ink' : 'outline outline-1 outline-line'}`}
          onClick={() => onChoose(index)}
        >
          <span
            aria-hidden
            className="block w-full bg-stage"
            style={{
              aspectRatio: `${2 * sheet.width} / ${sheet.height}`,
              backgroundImage: 'var(--sheet)',
              backgroundSize: '100% auto',
              backgroundPosition: `0 ${joins.length > 1 ? (100 * index) / (joins.length - 1) : 0}%`,
            }}
          />
          <span className="flex w-full items-baseline justify-between gap-2 text-[12.5px]">
            <span className="num">
              {formatClock(join.seconds[0])} → {formatClock(join.seconds[1])}
            </span>
            <GravityMark severity={gravity(join)} said={times(join)} />
          </span>
        </button>
      ))}
    </div>
  );
}
