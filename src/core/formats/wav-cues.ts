import { refuse } from '../error';
import type { BeatGrid } from '../time/grid';
import { beatText, gridOfLabels, labelBeats, readBeatText, type ReadGrid } from './labelled-beats';

/** A named place in a sound, in sample frames. */
export type Cue = { frame: number; label: string };

const text = (view: DataView, at: number, value: string) =>
  [...value].forEach((letter, index) => view.setUint8(at + index, letter.charCodeAt(0) & 0x7f));

/** The `cue ` chunk and its `LIST` of labels, to stand after the data. @see RIFF WAVE, cue and adtl list chunks */
export function cueChunks(cues: readonly Cue[]): Uint8Array<ArrayBuffer> {
  const labels = cues.map(({ label }) => 12 + 2 * Math.ceil((label.length + 1) / 2));
  const listBytes = 4 + labels.reduce((sum, bytes) => sum + bytes, 0);
  const view = new DataView(new ArrayBuffer(12 + 24 * cues.length + 8 + listBytes));
  text(view, 0, 'cue ');
  view.setUint32(4, 4 + 24 * cues.length, true);
  view.setUint32(8, cues.length, true);
  cues.forEach(({ frame }, index) => {
    const at = 12 + 24 * index;
    view.setUint32(at, index + 1, true);
    view.setUint32(at + 4, frame, true);
    text(view, at + 8, 'data');
    view.setUint32(at + 20, frame, true);
  });
  let at = 12 + 24 * cues.length;
  text(view, at, 'LIST');
  view.setUint32(at + 4, listBytes, true);
  text(view, at + 8, 'adtl');
  at += 12;
  cues.forEach(({ label }, index) => {
    text(view, at, 'labl');
    view.setUint32(at + 4, 4 + label.length + 1, true);
    view.setUint32(at + 8, index + 1, true);
    text(view, at + 12, label);
    at += labels[index];
  });
  return new Uint8Array(view.buffer);
}

/** A WAV's head whose size counts chunks that follow its data. @param head 44 bytes of a file in plain order */
export function headWithChunks(head: Uint8Array, extra: number): Uint8Array<ArrayBuffer> {
  const out = new Uint8Array(head);
  const view = new DataView(out.buffer);
  view.setUint32(4, view.getUint32(4, true) + extra, true);
  return out;
}

/**
 * The cues of a WAV file and its sample rate.
 * @throws CoreError `wav` where it is none; `wav-cues` where it holds no cue
 */
function readCues(bytes: ArrayBuffer): { cues: Cue[]; sampleRate: number } {
  const view = new DataView(bytes);
  const name = (at: number) => String.fromCharCode(...new Uint8Array(bytes, at, 4));
  if (bytes.byteLength < 12 || name(0) !== 'RIFF' || name(8) !== 'WAVE')
    refuse('wav', 'This is not a WAV file. Choose a WAV file with cue points.');
  let sampleRate = 0;
  const frames = new Map<number, number>();
  const labels = new Map<number, string>();
  const readList = (from: number, end: number) => {
    for (let at = from; at + 12 <= end;) {
      const size = view.getUint32(at + 4, true);
      if (name(at) === 'labl') {
        const letters = new Uint8Array(bytes, at + 12, Math.max(0, Math.min(size - 4, end - at - 12)));
        labels.set(view.getUint32(at + 8, true), String.fromCharCode(...letters).replace(/\0.*$/s, ''));
      }
      at += 8 + size + (size % 2);
    }
  };
  for (let at = 12; at + 8 <= bytes.byteLength;) {
    const size = view.getUint32(at + 4, true);
    const end = Math.min(bytes.byteLength, at + 8 + size);
    if (name(at) === 'fmt ' && at + 16 <= end) sampleRate = view.getUint32(at + 12, true);
    if (name(at) === 'cue ')
      for (let cue = at + 12; cue + 24 <= end; cue += 24)
        frames.set(view.getUint32(cue, true), view.getUint32(cue + 20, true));
    if (name(at) === 'LIST' && name(at + 8) === 'adtl') readList(at + 12, end);
    at += 8 + size + (size % 2);
  }
  if (frames.size === 0 || sampleRate === 0)
    refuse('wav-cues', 'This WAV file holds no cue points. Set cues on its beats, or choose another file.');
  return { sampleRate, cues: [...frames].map(([id, frame]) => ({ frame, label: labels.get(id) ?? '' })) };
}

/** A cue on every beat. */
export const gridToCues = (grid: BeatGrid, sampleRate: number): Cue[] =>
  labelBeats(grid).map((beat) => ({ frame: Math.round(beat.time * sampleRate), label: beatText(beat) }));

/** Beats from a WAV file's cue points. */
export function readCueGrid(bytes: ArrayBuffer): ReadGrid {
  const { cues, sampleRate } = readCues(bytes);
  return gridOfLabels(cues.map(({ frame, label }) => ({ time: frame / sampleRate, ...readBeatText(label) })));
}
