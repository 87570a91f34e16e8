'use client';
import { useMemo, useState, type ReactNode } from 'react';
import { allowed } from '@/core/finding/allowed';
import {
  beatsBetween,
  isWithin,
  markNames,
  onSong,
  rhythmOf,
  sayMarks,
  shotsOf,
  type Apart,
  type FilmShot,
  type ShotSheet,
} from '@/core/footage/cuts/shots';
import { writeCutList } from '@/core/formats/cut-list';
import { fileName } from '@/core/formats/file-name';
import type { Take } from '@/core/model/records';
import { beatLabel } from '@/core/time/grid';
import { formatClock } from '@/core/time/timecode';
import { noteShot } from '@/store/commands/takes';
import { apartKey, apartOf, playbackOf } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Chart, type ChartProps } from '@/ui/chart';
import { LiveText } from '@/ui/live-text';
import { LongTable } from '@/ui/long-table';
import { saveFile } from '../save';
import { Empty, Station } from '../station';
import { FilmPart } from './film-part';
import { FilmStrip, type Song } from './film-strip';

const seconds = (value: number) => `${value.toFixed(value < 10 ? 2 : 1)} s`;
const signed = (value: number) => `${value < 0 ? '−' : '+'}${Math.abs(value * 1000).toFixed(0)} ms`;

/** How a finished film is cut: its shots against the beats of the song that is heard in it. */
export function TakenApart({ take, onBack }: { take: Take; onBack: () => void }) {
  const { runner, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const found = apartOf(snapshot, take);
  const heard = playbackOf(snapshot, take);
  const grid = snapshot.song?.grid ?? null;
  const song = useMemo(
    (): Song => (grid && heard && heard.confidence >= allowed.heard ? { grid, heard } : null),
    [grid, heard],
  );
  const ended = snapshot.halted.get(apartKey(take))?.reason;
  const back = (
    <button type="button" className="knob" onClick={onBack}>
      Back to the takes
    </button>
  );
  if (!found)
    return (
      <Station question="How is it cut?" sub={take.name} tools={back}>
        <Empty title={ended ? 'It was not taken apart' : 'It is being taken apart'}>
          <p>
            {ended
              ? ended === 'cancelled'
                ? 'That was cancelled.'
                : ended.message
              : 'Every picture is held against the one before it: cuts, dissolves, flashes and freezes are found.'}
          </p>
          {ended && (
            <button
              type="button"
              className="knob main"
              onClick={() => attempt(async () => runner.again(apartKey(take)))}
            >
              Do it again
            </button>
          )}
        </Empty>
      </Station>
    );
  return <Shots take={take} {...found} song={song} back={back} />;
}

/** What the shots have in common, in a sentence. */
function Said({ apart, song }: { apart: Apart; song: Song }) {
  const { shots, usual, shortest, longest, onBeat } = rhythmOf(apart, allowed.onBeat, song);
  const more = sayMarks(apart.marks);
  return (
    <p className="max-w-[68ch] text-[16px] leading-relaxed" data-rhythm={shots}>
      <b>{shots === 1 ? 'One shot' : `${shots} shots`}</b> in {formatClock(apart.seconds)}
      {shots > 1 &&
        `: most last about ${seconds(usual)}, the shortest ${seconds(shortest)}, the longest ${seconds(longest)}`}
      {more.length > 0 && `, with ${new Intl.ListFormat('en').format(more)}`}.{' '}
      {onBeat && onBeat.of > 0 ? (
        <>
          <b>
            {onBeat.count} of {onBeat.of} joins lie on a beat
          </b>
          ; half of them within {(onBeat.off * 1000).toFixed(0)} ms of it.
        </>
      ) : (
        !song && 'The project’s song is not heard in it, so beats are not counted.'
      )}
    </p>
  );
}

function Shots({
  take,
  song,
  back,
  ...found
}: {
  take: Take;
  song: Song;
  back: ReactNode;
  apart: Apart;
  sheet: ShotSheet;
  pictures: Blob;
}) {
  const { apart } = found;
  const { store, attempt } = useServices();
  const project = useData((data) => data.snapshot.project.id);
  const shots = useMemo(() => shotsOf(apart), [apart]);
  const [chosen, choose] = useState(0);
  const shot = shots[Math.min(chosen, shots.length - 1)];
  const marksIn = ({ from, until }: FilmShot) =>
    apart.marks.filter((mark) => isWithin(mark) && mark.frame >= from && mark.frame < until);
  const chart = useMemo((): ChartProps => {
    const long = (from: number, until: number) =>
      song ? beatsBetween(song.grid, song.heard, from, until) : until - from;
    const lengths = shots.map(({ seconds: { from, until } }) => [from, long(from, until)] as const);
    const last = lengths[lengths.length - 1][1];
    return {
      label: `How long each of ${shots.length} shots lasts. A press goes to the shot.`,
      curves: [
        { name: 'Shot', dye: '--woad', steps: true, points: [...lengths, [apart.seconds, last] as const] },
      ],
      across: formatClock,
      down: (value) => `${Number(value.toFixed(1))} ${song ? 'beats' : 's'}`,
      height: 150,
      span: [0, Math.ceil(Math.max(...lengths.map(([, length]) => length)))],
      onPick: (at) =>
        choose(
          Math.max(
            0,
            shots.findLastIndex(({ seconds: { from } }) => from <= at),
          ),
        ),
    };
  }, [shots, song, apart.seconds]);
  return (
    <Station
      question="How is it cut?"
      sub={take.name}
      tools={
        <>
          {back}
          <button
            type="button"
            className="knob"
            onClick={() =>
              saveFile(
                `${fileName(take.name)}-shots.csv`,
                writeCutList(apart, song, take.notes ?? {}),
                'text/csv',
              )
            }
          >
            Save the list
          </button>
        </>
      }
    >
      <div className="flex flex-col gap-4 px-5 py-4 phone:px-3">
        <Said apart={apart} song={song} />
        <div className="flex flex-wrap gap-4">
          <FilmPart take={take} stretch={shot.seconds} play="Play this shot" />
          <div className="min-w-[260px] flex-1">
            <h2 className="font-semibold">How long each shot lasts</h2>
            <Chart {...chart} />
          </div>
        </div>
        <FilmStrip {...found} shots={shots} song={song} chosen={shot} onChoose={choose} />
        <LongTable
          label="Shots"
          heads={[
            'Shot',
            'Begins',
            'Frame',
            'With',
            'Frames',
            ...(song ? ['Beats', 'Nearest beat', 'Off it'] : []),
            'Note',
          ]}
          count={shots.length}
          row={(index) => {
            const one = shots[index];
            const near = song && onSong(song.grid, song.heard, one.seconds.from);
            const inside = marksIn(one).map(({ kind }) => markNames[kind][0]);
            return {
              key: String(one.from),
              begins: one === shot,
              cells: [
                <button
                  key="shot"
                  type="button"
                  aria-pressed={one === shot}
                  className={`num min-w-11 text-left hover:underline pointer-fine:min-h-6 ${one === shot ? 'font-bold' : ''}`}
                  onClick={() => choose(index)}
                >
                  {index + 1}
                </button>,
                formatClock(one.seconds.from),
                one.from,
                [markNames[one.begins][0], ...inside].join(', '),
                one.until - one.from,
                ...(song && near
                  ? [
                      beatsBetween(song.grid, song.heard, one.seconds.from, one.seconds.until).toFixed(2),
                      beatLabel(song.grid, near.beat),
                      index === 0 ? '' : signed(near.late),
                    ]
                  : []),
                <LiveText
                  key="note"
                  label={`Note on shot ${index + 1}`}
                  value={take.notes?.[one.from] ?? ''}
                  empty="note"
                  onChange={(text) => attempt(() => noteShot(store, project, take.id, one.from, text))}
                />,
              ],
            };
          }}
        />
      </div>
    </Station>
  );
}
