import { refuse } from '../error';
import type { BeatGrid } from '../time/grid';
import { beatText, gridOfLabels, labelBeats, readBeatText, type ReadGrid } from './labelled-beats';

/** Words that stand from one second to another. */
export type TextCue = { start: number; end: number; text: string };

/** "01:02:03.456", from absolute time to the millisecond. */
function stamp(seconds: number): string {
  const milli = Math.round(Math.max(0, seconds) * 1000);
  const two = (value: number) => String(value).padStart(2, '0');
  const [s, m, h] = [
    Math.floor(milli / 1000) % 60,
    Math.floor(milli / 60_000) % 60,
    Math.floor(milli / 3_600_000),
  ];
  return `${two(h)}:${two(m)}:${two(s)}.${String(milli % 1000).padStart(3, '0')}`;
}

const escaped = (text: string) => text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');
const unescaped = (text: string) =>
  text
    .replace(/<[^>]*>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&nbsp;/g, ' ')
    .replace(/&amp;/g, '&');

/** Captions, chapters or beats as WebVTT. @see W3C WebVTT, section 4 */
export const writeVtt = (cues: readonly TextCue[]): string =>
  [
    'WEBVTT',
    ...cues.map(
      ({ start, end, text }) =>
        `${stamp(start)} --> ${stamp(Math.max(end, start + 0.001))}\n${
          escaped(text)
            .replace(/\s*\n\s*/g, '\n')
            .trim() || '–'
        }`,
    ),
  ].join('\n\n') + '\n';

const seconds = (text: string) => {
  const parts = text.split(':').map(Number);
  return Math.round(parts.reduce((sum, part) => sum * 60 + part, 0) * 1000) / 1000;
};

/**
 * Reads the cues of a WebVTT file; settings, styles and notes are passed over.
 * @throws CoreError `vtt` where the file does not begin as one or holds no cue
 */
export function readVtt(text: string): TextCue[] {
  const lines = text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n');
  if (!/^WEBVTT(?:[ \t\n]|$)/.test(lines))
    refuse(
      'vtt',
      'This is no WebVTT file: its first line should say WEBVTT. Export the captions as WebVTT again.',
    );
  const cues: TextCue[] = [];
  for (const block of lines.split(/\n{2,}/)) {
    const rows = block.split('\n');
    const at = rows.findIndex((row) => row.includes('-->'));
    const times = /((?:\d+:)?\d\d:\d\d\.\d{3})\s+-->\s+((?:\d+:)?\d\d:\d\d\.\d{3})/.exec(rows[at] ?? '');
    if (!times) continue;
    cues.push({
      start: seconds(times[1]),
      end: seconds(times[2]),
      text: unescaped(
        rows
          .slice(at + 1)
          .join('\n')
          .trimEnd(),
      ),
    });
  }
  if (cues.length === 0)
    refuse('vtt', 'This WebVTT file holds no cue with a time. Export the captions again.');
  return cues;
}

/** Beats as cues, each until the next one. */
export function gridToVtt(grid: BeatGrid): string {
  const beats = labelBeats(grid);
  return writeVtt(
    beats.map((beat, index) => ({
      start: beat.time,
      end: beats[index + 1]?.time ?? beat.time + 0.1,
      text: beatText(beat),
    })),
  );
}

/** Beats from cues: each start is a beat. */
export const readVttGrid = (text: string): ReadGrid =>
  gridOfLabels(readVtt(text).map((cue) => ({ time: cue.start, ...readBeatText(cue.text) })));
