import { refuse } from '../error';
import type { TextCue } from './webvtt';

const tag = /\[(\d+):(\d{1,2}(?:[.:]\d{1,3})?)\]/g;

/**
 * Reads lines of words with time tags, `[01:23.45]words`; several tags repeat a line, `[offset:+250]` moves all
 * earlier by milliseconds. Each line stands until the next one.
 * @throws CoreError `lyrics` where no line carries a time
 */
export function readLyrics(text: string): TextCue[] {
  const offset = Number(/\[offset:\s*([+-]?\d+)\s*\]/i.exec(text)?.[1] ?? 0) / 1000;
  const lines = text.split(/\r\n?|\n/).flatMap((line) => {
    const words = line
      .replace(tag, '')
      .replace(/^\[[a-z]+:[^\]]*\]/i, '')
      .trim();
    return [...line.matchAll(tag)].map(([, minutes, rest]) => ({
      start: Math.max(0, Number(minutes) * 60 + Number(rest.replace(':', '.')) - offset),
      text: words,
    }));
  });
  if (lines.length === 0)
    refuse('lyrics', 'No line of this text carries a time such as [01:23.45]. Add times, or choose WebVTT.');
  const sorted = lines.sort((a, b) => a.start - b.start);
  return sorted
    .map((line, index) => ({ ...line, end: sorted[index + 1]?.start ?? line.start + 4 }))
    .filter((line) => line.text !== '');
}
