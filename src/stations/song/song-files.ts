import { refuse } from '@/core/error';
import { readBeatCsv, writeBeatCsv } from '@/core/formats/beat-csv';
import { readBeatText, type Mended, type ReadGrid } from '@/core/formats/labelled-beats';
import { readLyrics } from '@/core/formats/lyric-text';
import { readMidiMap, writeMidiMap } from '@/core/formats/midi';
import { gridToVtt, readVtt, readVttGrid, writeVtt, type TextCue } from '@/core/formats/webvtt';
import { cueChunks, gridToCues, headWithChunks, readCueGrid } from '@/core/formats/wav-cues';
import { timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { layCues, layReadBeats } from '@/store/commands/song';
import type { Store } from '@/store/db';
import { songMeasure, type Snapshot } from '@/store/snapshot';

/** Files that bring beats or words, by their ending; sounds and videos go through the import. */
export const isSongFile = (name: string): boolean => /\.(midi?|csv|vtt|lrc|txt)$/i.test(name);

function mendedText({ unsorted, doubled, negative }: Mended): string {
  const said = [
    unsorted > 0 && `${unsorted} out of order were sorted`,
    doubled > 0 && `${doubled} doubled were left out`,
    negative > 0 && `${negative} before the song were left out`,
  ].filter(Boolean);
  return said.length > 0 ? ` Of its times, ${said.join(', ')}.` : '';
}

/** A grid that runs past its song keeps only what the song has. */
function withinSong(read: ReadGrid, duration: number): { grid: BeatGrid; cut: number } {
  const beats = read.grid.beats.filter((time) => time <= duration);
  if (beats.length < 2)
    refuse(
      'beats-file',
      'All but one of these beats lie after the end of this song. Choose the file that belongs to it.',
    );
  return { grid: { ...read.grid, beats }, cut: read.grid.beats.length - beats.length };
}

async function readBeats(file: File): Promise<ReadGrid & { note: string }> {
  if (/\.midi?$/i.test(file.name)) {
    const { grid, tempo } = readMidiMap(new Uint8Array(await file.arrayBuffer()));
    const note = tempo ? '' : ' It names no tempo, so the standard’s 120 beats a minute were taken.';
    return { grid, mended: { unsorted: 0, doubled: 0, negative: 0 }, note };
  }
  if (/\.wav$/i.test(file.name)) return { ...readCueGrid(await file.arrayBuffer()), note: '' };
  const text = await file.text();
  return { ...(/^\uFEFF?WEBVTT/.test(text) ? readVttGrid(text) : readBeatCsv(text)), note: '' };
}

/** Lays a file's beats over the song. @returns a sentence on what was done */
export async function bringBeats(store: Store, snapshot: Snapshot, file: File): Promise<string> {
  const read = await readBeats(file);
  const duration = songMeasure(snapshot)?.song.duration ?? Infinity;
  const { grid, cut } = withinSong(read, duration);
  await layReadBeats(store, snapshot.project.id, { grid });
  const past = cut > 0 ? ` ${cut} after the end of the song were left out.` : '';
  return `${grid.beats.length} beats from ${file.name}.${read.note}${mendedText(read.mended)}${past}`;
}

/** Lays a file's words over the song. @returns a sentence on what was done */
export async function bringWords(store: Store, snapshot: Snapshot, file: File): Promise<string> {
  const text = await file.text();
  const cues: TextCue[] = /^\uFEFF?WEBVTT/.test(text) ? readVtt(text) : readLyrics(text);
  await layCues(store, snapshot.project.id, cues);
  return `${cues.length} lines of words from ${file.name}.`;
}

/** Brings a dropped file where it belongs: captions that name bars are beats, others are words. */
export async function bringSongFile(store: Store, snapshot: Snapshot, file: File): Promise<string> {
  if (/\.(lrc|txt)$/i.test(file.name)) return bringWords(store, snapshot, file);
  if (/\.vtt$/i.test(file.name)) {
    const named = readVtt(await file.text()).every(({ text }) => readBeatText(text).bar !== undefined);
    return named ? bringBeats(store, snapshot, file) : bringWords(store, snapshot, file);
  }
  return bringBeats(store, snapshot, file);
}

/** What can be written of the song's beats, under the name of each kind. */
export const beatFiles = {
  midi: (grid: BeatGrid) => new Blob([Uint8Array.from(writeMidiMap(grid))], { type: 'audio/midi' }),
  csv: (grid: BeatGrid, { project }: Snapshot) =>
    new Blob([writeBeatCsv(grid, project.rate)], { type: 'text/csv' }),
  vtt: (grid: BeatGrid) => new Blob([gridToVtt(grid)], { type: 'text/vtt' }),
  chapters: (grid: BeatGrid, { sections }: Snapshot) => {
    const end = grid.beats[grid.beats.length - 1];
    const cues = sections.map((section, index) => ({
      start: Math.max(0, timeOfBeat(grid, section.at)),
      end: sections[index + 1] ? timeOfBeat(grid, sections[index + 1].at) : end,
      text: section.name,
    }));
    return new Blob([writeVtt(cues)], { type: 'text/vtt' });
  },
};

/** The song's WAV with a cue point on every beat. @param wav as the bench keeps it: a plain head, then the data */
export async function wavWithCues(wav: Blob, grid: BeatGrid): Promise<Blob> {
  const head = new Uint8Array(await wav.slice(0, 44).arrayBuffer());
  const chunks = cueChunks(gridToCues(grid, 48_000));
  return new Blob([headWithChunks(head, chunks.length), wav.slice(44), chunks], { type: 'audio/wav' });
}
