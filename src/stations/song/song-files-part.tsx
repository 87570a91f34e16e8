'use client';
import { useRef, useState } from 'react';
import { say } from '@/ui/say';
import { fileName } from '@/core/formats/file-name';
import { clicksOf } from '@/core/song/click';
import { meterAt, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { songMeasure } from '@/store/snapshot';
import { openMedia } from '@/workers/clients';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { saveFile } from '../save';
import { Part } from '../station';
import { beatFiles, bringBeats, bringWords, wavWithCues } from './song-files';

/** Shooting speeds at which slowed pictures play right, and what the playback on the set must be. */
const speeds = [
  { value: '1', text: '100 %' },
  { value: '1.25', text: '125 %, for 80 %' },
  { value: '2', text: '200 %, for 50 %' },
  { value: '2.5', text: '250 %, for 40 %' },
  { value: '5', text: '500 %, for 20 %' },
];

/** Beats and words in and out, and the click track for playback on the set. */
export function SongFiles({ grid }: { grid: BeatGrid }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const beats = useRef<HTMLInputElement>(null);
  const words = useRef<HTMLInputElement>(null);
  const [speed, setSpeed] = useState('1');
  const [pitch, setPitch] = useState('kept');
  const [what, setWhat] = useState('song');
  const [making, setMaking] = useState(false);
  const media = snapshot.song?.media ?? null;
  const base = fileName(snapshot.project.name);
  const bring = (work: typeof bringBeats, file: File | undefined) =>
    file && attempt(async () => say('done', await work(store, snapshot, file)));
  const wavOf = async () => {
    const row = media && (await store.proxies.get(media));
    return row ? row.blob : null;
  };
  const passage = what === 'moment' ? moment : null;
  const makeClicks = async () => {
    const wav = await wavOf();
    const end = songMeasure(snapshot)?.song.duration ?? grid.beats[grid.beats.length - 1];
    const start = passage ? passage.start : -grid.firstDownbeat;
    const from = Math.max(0, timeOfBeat(grid, start));
    setMaking(true);
    const worker = openMedia();
    try {
      const blob = await worker.api.clickTrack({
        wav,
        clicks: clicksOf(grid, 0, Infinity),
        from,
        to: passage ? Math.min(end, timeOfBeat(grid, passage.end)) : end,
        speed: Number(speed),
        keepPitch: pitch === 'kept',
        beat: timeOfBeat(grid, start + 1) - timeOfBeat(grid, start),
        beatsPerBar: meterAt(grid, start).beatsPerBar,
      });
      saveFile(`${base}-click-${Math.round(Number(speed) * 100)}.wav`, blob);
    } finally {
      worker.end();
      setMaking(false);
    }
  };
  return (
    <>
      <Part title="For playback on the set">
        <p className="leading-[1.9]">
          A count, then{' '}
          <LiveChoice
            label="What is played"
            value={passage ? 'moment' : 'song'}
            options={[
              { value: 'song', text: 'the whole song' },
              ...(moment ? [{ value: 'moment', text: moment.name }] : []),
            ]}
            onChange={setWhat}
          />{' '}
          at <LiveChoice label="Speed on the set" value={speed} options={speeds} onChange={setSpeed} />, its
          pitch{' '}
          <LiveChoice
            label="Pitch on the set"
            value={pitch}
            options={[
              { value: 'kept', text: 'kept' },
              { value: 'moves', text: 'moving along' },
            ]}
            onChange={setPitch}
          />
          ; song left, clicks right.
        </p>
        <button type="button" className="knob" disabled={making} onClick={() => attempt(makeClicks)}>
          {making ? 'Making it…' : 'Click track (WAV)'}
        </button>
      </Part>
      <Part title="Beats and words in files">
        <div className="flex flex-wrap gap-1.5">
          <button type="button" className="knob" onClick={() => beats.current?.click()}>
            Bring beats
          </button>
          <button type="button" className="knob" onClick={() => words.current?.click()}>
            Bring words
          </button>
          <button
            type="button"
            className="knob"
            onClick={() => saveFile(`${base}-beats.mid`, beatFiles.midi(grid))}
          >
            MIDI tempo map
          </button>
          <button
            type="button"
            className="knob"
            onClick={() => saveFile(`${base}-beats.csv`, beatFiles.csv(grid, snapshot))}
          >
            Beats (CSV)
          </button>
          <button
            type="button"
            className="knob"
            onClick={() => saveFile(`${base}-beats.vtt`, beatFiles.vtt(grid))}
          >
            Beats (WebVTT)
          </button>
          {snapshot.sections.length > 0 && (
            <button
              type="button"
              className="knob"
              onClick={() => saveFile(`${base}-chapters.vtt`, beatFiles.chapters(grid, snapshot))}
            >
              Chapters (WebVTT)
            </button>
          )}
          {media && (
            <button
              type="button"
              className="knob"
              onClick={() =>
                attempt(async () => {
                  const wav = await wavOf();
                  if (wav) saveFile(`${base}-cues.wav`, await wavWithCues(wav, grid));
                })
              }
            >
              WAV with cues
            </button>
          )}
        </div>
        <p className="mt-1 text-[12px] text-ink2">
          Beats come from MIDI, CSV, WAV cue points or WebVTT; words from WebVTT or lines like [01:23.45].
          <span className="pointer-coarse:hidden phone:hidden"> All but WAV can be dropped anywhere.</span>
        </p>
      </Part>
      <input
        ref={beats}
        type="file"
        hidden
        accept=".mid,.midi,.csv,.vtt,.wav"
        data-testid="beats-file"
        onChange={(event) => {
          void bring(bringBeats, event.target.files?.[0]);
          event.target.value = '';
        }}
      />
      <input
        ref={words}
        type="file"
        hidden
        accept=".vtt,.lrc,.txt"
        data-testid="words-file"
        onChange={(event) => {
          void bring(bringWords, event.target.files?.[0]);
          event.target.value = '';
        }}
      />
    </>
  );
}
