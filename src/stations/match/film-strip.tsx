'use client';
import { useMemo } from 'react';
import { allowed } from '@/core/finding/allowed';
import type { Alignment } from '@/core/footage/align-sound';
import { onSong, type Apart, type FilmShot, type ShotSheet } from '@/core/footage/cuts/shots';
import { beatOfTime, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { showSheet } from './show-sheet';

/** The beats, and where the song is heard in a film; null where it is not. */
export type Song = { grid: BeatGrid; heard: Alignment } | null;

/** How what happens within a shot is marked on the strip. */
const within = { flash: { y: 4, dye: 'var(--weld)' }, freeze: { y: 48, dye: 'var(--lichen)' } };
/** CSS pixels down of the strip's pictures */
const tall = 52;

/** A picture of each shot in the middle of its piece of the strip, as far as there is room for it. */
function Pictures({
  shots,
  whole,
  sheet,
  pictures,
}: {
  shots: readonly FilmShot[];
  whole: number;
  sheet: ShotSheet;
  pictures: Blob;
}) {
  const show = useMemo(() => showSheet(pictures), [pictures]);
  const wide = (tall * sheet.width) / sheet.height;
  return (
    <div ref={show} className="absolute inset-x-0 top-1 flex" style={{ height: tall }} aria-hidden>
      {shots.map((shot, index) => (
        <div
          key={shot.from}
          className={`relative overflow-hidden ${index % 2 === 0 ? 'bg-fabric' : 'bg-line'}`}
          style={{ width: `${(100 * (shot.seconds.until - shot.seconds.from)) / whole}%` }}
        >
          {index < sheet.count && (
            <div
              className="absolute top-0 left-1/2 -translate-x-1/2"
              style={{
                width: wide,
                height: tall,
                backgroundImage: 'var(--sheet)',
                backgroundSize: sheet.columns * wide,
                backgroundPosition: `${-(index % sheet.columns) * wide}px ${-Math.floor(index / sheet.columns) * tall}px`,
              }}
            />
          )}
        </div>
      ))}
    </div>
  );
}

/** A film as a strip of cloth: each shot as long as it lasts, the beats under it, and the joins that lie beside one. */
export function FilmStrip({
  apart,
  sheet,
  pictures,
  shots,
  song,
  chosen,
  onChoose,
}: {
  apart: Apart;
  sheet: ShotSheet;
  pictures: Blob;
  shots: readonly FilmShot[];
  song: Song;
  chosen: FilmShot;
  onChoose: (index: number) => void;
}) {
  const place = (at: number) => (1000 * at) / apart.seconds;
  const beats = useMemo(() => {
    if (!song) return [];
    const first = Math.ceil(beatOfTime(song.grid, song.heard.offset));
    const last = Math.floor(beatOfTime(song.grid, song.heard.offset + apart.seconds));
    return Array.from({ length: Math.max(0, last - first + 1) }, (_, index) => first + index).map((beat) => ({
      beat,
      at: timeOfBeat(song.grid, beat) - song.heard.offset,
    }));
  }, [song, apart.seconds]);
  return (
    <div>
      <div className="relative">
        <Pictures shots={shots} whole={apart.seconds} sheet={sheet} pictures={pictures} />
        <svg
          viewBox="0 0 1000 84"
          preserveAspectRatio="none"
          className="relative h-[84px] w-full"
          role="img"
          aria-label={`${shots.length} shots in a row, each as long as it lasts`}
        >
          {shots.map((shot, index) => {
            const [from, until] = [place(shot.seconds.from), place(shot.seconds.until)];
            return (
              <rect
                key={shot.from}
                x={from}
                y={4}
                width={Math.max(0.5, until - from)}
                height={52}
                fill="transparent"
                stroke={shot === chosen ? 'var(--ink)' : 'none'}
                strokeWidth={3}
                vectorEffect="non-scaling-stroke"
                className="cursor-pointer"
                onClick={() => onChoose(index)}
              />
            );
          })}
          {beats.map(({ beat, at }) => (
            <line
              key={beat}
              x1={place(at)}
              x2={place(at)}
              y1={62}
              y2={beat % (song?.grid.beatsPerBar ?? 4) === 0 ? 82 : 72}
              stroke="var(--ink2)"
              vectorEffect="non-scaling-stroke"
            />
          ))}
          {shots.slice(1).map((shot) => {
            const late = song ? Math.abs(onSong(song.grid, song.heard, shot.seconds.from).late) : null;
            const dye =
              late === null ? 'var(--ink2)' : late <= allowed.onBeat ? 'var(--verdigris)' : 'var(--madder)';
            return (
              <line
                key={shot.from}
                x1={place(shot.seconds.from)}
                x2={place(shot.seconds.from)}
                y1={0}
                y2={60}
                stroke={dye}
                strokeWidth={2}
                strokeDasharray={late !== null && late > allowed.onBeat ? '3 3' : undefined}
                vectorEffect="non-scaling-stroke"
              />
            );
          })}
          {apart.marks.map(({ frame, seconds: at, kind }) => {
            if (!(kind in within)) return null;
            const { y, dye } = within[kind as keyof typeof within];
            return <rect key={`${kind}${frame}`} x={place(at) - 1} y={y} width={3} height={8} fill={dye} />;
          })}
        </svg>
      </div>
      <p className="text-[12px] text-ink2">
        {song &&
          'Below: the song’s beats, its bars longer. A whole line is a join on a beat, a broken one lies beside it. '}
        A jump within one view in which little changes is not seen as a join, and something that falls over
        the whole view may be taken for one.
      </p>
    </div>
  );
}
