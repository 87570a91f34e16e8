'use client';
import { useMemo, useState } from 'react';
import type { Song } from '@/core/model/records';
import { regularGrid } from '@/core/time/grid';
import { laySeconds } from '@/store/commands/song';
import { songMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveNumber } from '@/ui/live-number';
import { barsFor, foldSong } from '@/ui/ribbon/layout';
import { Ribbon } from '@/ui/ribbon/ribbon';
import { usePhone } from '@/ui/use-phone';
import { useSize } from '@/ui/use-size';
import { Empty, Station } from '../station';
import { FramesView } from './frames-view';
import { SongSide } from './song-side';
import { Transport, type Passage } from './transport';

const question = 'What should happen when?';

/** The whole song, folded down the page, and what sets its beats right. */
export function SongStation() {
  const { openFiles, store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const { song } = snapshot;
  if (song) return <LaidSong song={song} />;
  return (
    <Station question={question} side={findings.song.length > 0 && <Findings findings={findings.song} />}>
      <Empty title="Lay a song on the bench">
        <p>
          Here a music video is planned to the beat, watched over while it is filmed, and built from its
          takes: clones, reveals, freezes, whips, ramps and split screens.
        </p>
        <p>
          Begin with the song: choose it
          <span className="pointer-coarse:hidden phone:hidden">, or drop it anywhere on this page</span>. Its
          beats are found here, on this device; then every moment is pinned to them.
        </p>
        <div className="flex flex-wrap gap-2">
          <button type="button" className="knob main" onClick={openFiles}>
            Choose files
          </button>
          <button
            type="button"
            className="knob"
            onClick={() => attempt(() => laySeconds(store, snapshot.project.id))}
          >
            Work without a song
          </button>
        </div>
        <p className="text-ink2">
          Without a song the ribbon counts seconds. One that is laid under later leaves every moment where it
          is.
        </p>
      </Empty>
    </Station>
  );
}

function LaidSong({ song }: { song: Song }) {
  const snapshot = useData((data) => data.snapshot);
  const [ref, { width, height: area }] = useSize<HTMLDivElement>();
  const phone = usePhone();
  const [bars, setBars] = useState<number | null>(null);
  const [tall, setTall] = useState(1.2);
  const [close, setClose] = useState<Passage | null>(null);
  const [view, setView] = useState<'ribbon' | 'frames'>('ribbon');
  const [setting, setSetting] = useState<'moments' | 'beats'>('moments');
  const measure = songMeasure(snapshot);
  const media = song.media ? snapshot.media.get(song.media) : undefined;
  const seconds = measure?.song.duration ?? media?.probe?.duration ?? song.grid?.beats.at(-1) ?? 10;
  const grid = useMemo(() => song.grid ?? regularGrid(60, 0, seconds), [song.grid, seconds]);
  const perLine = close ? Math.min(4, barsFor(width)) : (bars ?? barsFor(width));
  const gap = snapshot.cues.length > 0 ? 50 : 38;
  const tallLine = close ? 170 : width < 520 ? 56 : 62;
  const layout = useMemo(() => {
    const fold = (tall: number) =>
      foldSong(grid, seconds, Math.max(240, width), perLine, tall, gap, close ?? undefined);
    const usual = fold(tallLine);
    // Lines of a short song take the height that is there; on a phone the page is as high as they are.
    const room = phone ? 0 : Math.floor((area - 30) / usual.lines.length) - gap;
    return room > tallLine ? fold(Math.min(2 * tallLine, room)) : usual;
  }, [grid, seconds, width, area, phone, perLine, tallLine, gap, close]);
  const height = layout.lines[layout.lines.length - 1].top + layout.pitch + 6;
  const name = media?.name ?? 'No song: a ruler of seconds';
  return (
    <Station
      question={question}
      sub={song.media ? `${name} · ${grid.beatsPerBar} beats to a bar` : name}
      tools={
        <>
          {view === 'ribbon' && (
            <>
              <label className="flex items-center gap-2 text-ink2 phone:hidden">
                Bars a line
                <LiveNumber
                  label="Bars a line"
                  value={perLine}
                  step={1}
                  min={1}
                  max={16}
                  show={String}
                  onChange={setBars}
                />
              </label>
              <label className="flex items-center gap-2 text-ink2 phone:hidden">
                Waveform
                <LiveNumber
                  label="Height of the waveform"
                  value={Math.round(tall * 100)}
                  step={10}
                  min={20}
                  max={400}
                  show={(value) => `${value} %`}
                  onChange={(value) => setTall(value / 100)}
                />
              </label>
            </>
          )}
          {song.grid && (
            <button
              type="button"
              className="knob"
              aria-pressed={view === 'frames'}
              onClick={() => setView(view === 'frames' ? 'ribbon' : 'frames')}
            >
              Beats and frames
            </button>
          )}
        </>
      }
      side={<SongSide setting={setting} onSetting={setSetting} />}
    >
      {view === 'frames' && song.grid ? (
        <FramesView grid={song.grid} rate={snapshot.project.rate} />
      ) : (
        <div
          ref={ref}
          className="min-h-0 flex-1 overflow-x-hidden py-2 pr-1 pl-3 phone:overflow-visible phone:pl-1 desk:overflow-y-auto"
        >
          {width > 0 && (
            <Ribbon
              layout={layout}
              grid={grid}
              beats={Boolean(song.grid)}
              tall={tall}
              width={width}
              height={height}
              setting={setting}
              label={
                setting === 'beats'
                  ? 'The song. Drag a stitch to move its beat; double-click one to begin a bar there. Arrow keys move the needle; M brings the nearest beat to it.'
                  : 'The song. Arrow keys move the needle by a beat or a line; drag over bars to make a moment.'
              }
            />
          )}
        </div>
      )}
      <Transport close={close} onClose={setClose} />
    </Station>
  );
}
