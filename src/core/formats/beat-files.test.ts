import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import fc from 'fast-check';
import { parseMidi, writeMidi, type MidiEvent } from 'midi-file';
import { afterAll, describe, expect, it } from 'vitest';
import { regularGrid, type BeatGrid } from '../time/grid';
import { setMeter } from '../time/grid-change';
import { readBeatCsv, writeBeatCsv } from './beat-csv';
import { gridOfLabels } from './labelled-beats';
import { readLyrics } from './lyric-text';
import { readMidiMap, writeMidiMap } from './midi';
import { gridToVtt, readVtt, readVttGrid, writeVtt } from './webvtt';
import { toPcm, wavHead } from './wav';
import { cueChunks, gridToCues, headWithChunks, readCueGrid } from './wav-cues';

const film = { num: 24000, den: 1001 };
const folder = mkdtempSync(join(tmpdir(), 'beats-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** Grids whose bars breathe, with pickups and changes of metre on bars. */
const grids = fc
  .record({
    gaps: fc.array(fc.double({ min: 0.2, max: 1.4, noNaN: true }), { minLength: 24, maxLength: 90 }),
    start: fc.double({ min: 0, max: 9, noNaN: true }),
    beatsPerBar: fc.integer({ min: 2, max: 7 }),
    pickup: fc.nat(6),
    change: fc.option(
      fc.record({ bar: fc.integer({ min: 1, max: 3 }), beatsPerBar: fc.integer({ min: 2, max: 5 }) }),
    ),
  })
  .map(({ gaps, start, beatsPerBar, pickup, change }): BeatGrid => {
    let time = start;
    const beats = [start, ...gaps.map((gap) => (time += gap))];
    const grid = { beats, beatsPerBar, firstDownbeat: pickup % beatsPerBar };
    const at = change ? change.bar * beatsPerBar : 0;
    // A change shows only where a whole bar follows it.
    const fits = change && grid.firstDownbeat + at + change.beatsPerBar < beats.length;
    const changed = fits && change.beatsPerBar !== beatsPerBar;
    return changed ? { ...grid, changes: [{ at, beatsPerBar: change.beatsPerBar }] } : grid;
  });

function wavWithCues(grid: BeatGrid, sampleRate: number): Uint8Array<ArrayBuffer> {
  const chunks = cueChunks(gridToCues(grid, sampleRate));
  const pcm = new Uint8Array(toPcm([new Float32Array(sampleRate)]).buffer);
  const head = headWithChunks(wavHead(sampleRate, 1, sampleRate), chunks.length);
  return Uint8Array.from([...head, ...pcm, ...chunks]);
}

describe('beat grids in files', () => {
  it.each<[string, number, (grid: BeatGrid) => BeatGrid]>([
    ['MIDI', 0.6e-6, (grid) => readMidiMap(writeMidiMap(grid)).grid],
    ['CSV', 0.6e-6, (grid) => readBeatCsv(writeBeatCsv(grid, film)).grid],
    ['WebVTT', 0.51e-3, (grid) => readVttGrid(gridToVtt(grid)).grid],
    ['WAV cue points', 0.51 / 8000, (grid) => readCueGrid(wavWithCues(grid, 8000).buffer).grid],
  ])('%s gives back what was written, to its own resolution', (_, resolution, pass) => {
    fc.assert(
      fc.property(grids, (grid) => {
        const back = pass(grid);
        expect(back.beats).toHaveLength(grid.beats.length);
        back.beats.forEach((beat, index) =>
          expect(Math.abs(beat - grid.beats[index])).toBeLessThanOrEqual(resolution),
        );
        expect({ ...back, beats: [] }).toEqual({ ...grid, beats: [] });
      }),
      { numRuns: 60 },
    );
  });

  it('does not add up rounding in MIDI over an hour', () => {
    const grid = regularGrid(128.37, 0.211, 3600);
    const back = readMidiMap(writeMidiMap(grid)).grid;
    const last = grid.beats.length - 1;
    expect(Math.abs(back.beats[last] - grid.beats[last])).toBeLessThan(1e-6);
  });
});

describe('MIDI', () => {
  // Standard MIDI File 1.0: 500 000 µs a quarter note is 120 beats a minute, as FF 51 03 07 A1 20.
  it('writes the tempo as the standard says', () => {
    const bytes = writeMidiMap(regularGrid(120, 0, 10));
    expect(Buffer.from(bytes).toString('hex')).toContain('ff510307a120');
    expect(Buffer.from(bytes.subarray(0, 4)).toString()).toBe('MThd');
  });

  it('is read alike by the package midi-file', () => {
    const grid = setMeter(regularGrid(97.3, 0.4, 30), 8, 3).grid;
    const { header, tracks } = parseMidi(writeMidiMap(grid));
    expect(header.ticksPerBeat).toBe(480);
    const [, ...tempos] = tracks[0].filter((event) => event.type === 'setTempo');
    tempos.forEach((event) =>
      expect(Math.abs(event.microsecondsPerBeat - 60e6 / 97.3)).toBeLessThanOrEqual(1),
    );
    const signatures = tracks[0].filter((event) => event.type === 'timeSignature');
    expect(signatures.map((event) => event.numerator)).toEqual([1, 4, 3]);
  });

  const file = (events: Record<string, unknown>[], head: Record<string, unknown> = { ticksPerBeat: 96 }) =>
    Uint8Array.from(
      writeMidi({
        header: { format: 0, numTracks: 1, ...head },
        tracks: [events.map((event) => ({ deltaTime: 0, meta: true, ...event })) as MidiEvent[]],
      } as Parameters<typeof writeMidi>[0]),
    );

  it('takes 120 beats a minute where none are written, and says so', () => {
    const { grid, tempo } = readMidiMap(file([{ deltaTime: 960, type: 'endOfTrack' }]));
    expect(tempo).toBe(false);
    expect(grid.beats[4]).toBe(2);
  });

  it('counts eighths where bars are not whole in quarters', () => {
    const seven = { type: 'timeSignature', numerator: 7, denominator: 8, metronome: 24, thirtyseconds: 8 };
    const { grid } = readMidiMap(file([seven, { deltaTime: 960, type: 'endOfTrack' }]));
    expect(grid.beatsPerBar).toBe(7);
    expect(grid.beats[1]).toBe(0.25);
  });

  it('refuses what is none, or holds nothing', () => {
    const code = (bytes: Uint8Array) => {
      try {
        readMidiMap(bytes);
      } catch (error) {
        return (error as { code: string }).code;
      }
    };
    expect(code(new TextEncoder().encode('Dear bench'))).toBe('midi');
    const whole = writeMidiMap(regularGrid(120, 0, 10));
    for (const end of [6, 20, 40, 60, whole.length - 1]) expect(code(whole.subarray(0, end))).toBe('midi');
    expect(code(file([{ type: 'endOfTrack' }]))).toBe('midi');
  });
});

describe('CSV', () => {
  it('reads a plain column, commas for points, and other orders of columns', () => {
    expect(readBeatCsv('0.5\n1.0\n1.5').grid.beats).toEqual([0.5, 1, 1.5]);
    expect(readBeatCsv('beat;bar;time\n1;1;"0,5"\n2;1;"1,25"').grid).toMatchObject({
      beats: [0.5, 1.25],
      firstDownbeat: 0,
    });
  });

  it('names the line that holds a word', () => {
    expect(() => readBeatCsv('seconds\n0.5\nsoon\n1.5')).toThrow(
      expect.objectContaining({ code: 'beats-file', message: expect.stringContaining('Line 3 says “soon”') }),
    );
    expect(() => readBeatCsv('')).toThrow(expect.objectContaining({ code: 'beats-file' }));
  });

  it('sorts, leaves out doubles and what lies before the song, and says how many', () => {
    const { grid, mended } = readBeatCsv('-1\n0.5\n1.5\n1.0\n1.001\n2');
    expect(grid.beats).toEqual([0.5, 1, 1.5, 2]);
    expect(mended).toEqual({ unsorted: 1, doubled: 1, negative: 1 });
  });
});

describe('WAV with cues', () => {
  it('is read by ffprobe, sound and all', () => {
    const path = join(folder, 'cues.wav');
    writeFileSync(path, wavWithCues(regularGrid(240, 0.1, 0.9), 8000));
    const args = [
      '-v',
      'error',
      '-show_entries',
      'stream=codec_name,sample_rate,duration',
      '-of',
      'json',
      path,
    ];
    const [stream] = JSON.parse(execFileSync('ffprobe', args, { encoding: 'utf8' })).streams;
    expect(stream).toMatchObject({ codec_name: 'pcm_s16le', sample_rate: '8000' });
    expect(Number(stream.duration)).toBeCloseTo(1, 6);
    expect(readFileSync(path).readUInt32LE(4)).toBe(readFileSync(path).length - 8);
  });

  it('says what is missing', () => {
    const plain = new Uint8Array([...wavHead(10, 1, 8000), ...new Uint8Array(20)]);
    expect(() => readCueGrid(plain.buffer)).toThrow(expect.objectContaining({ code: 'wav-cues' }));
    expect(() => readCueGrid(new ArrayBuffer(4))).toThrow(expect.objectContaining({ code: 'wav' }));
  });
});

describe('words with times', () => {
  // W3C WebVTT, section 4: cue timings, identifiers, settings and escapes.
  it('reads WebVTT with everything around the cues', () => {
    const text =
      '\uFEFFWEBVTT - words\r\n\r\nSTYLE\r\n::cue {}\r\n\r\nNOTE nothing\r\n\r\nfirst\r\n00:01.500 --> 00:03.000 line:0\r\n<v Her>Turn &amp; hold\r\n\r\n01:00:00.000 --> 01:00:01.000\r\n&lt;left&gt;\r\n';
    expect(readVtt(text)).toEqual([
      { start: 1.5, end: 3, text: 'Turn & hold' },
      { start: 3600, end: 3601, text: '<left>' },
    ]);
  });

  it('gives back any words at any time', () => {
    const cue = fc.record({
      start: fc.integer({ min: 0, max: 3_600_000 }),
      length: fc.integer({ min: 1, max: 9000 }),
      text: fc.stringMatching(/^[A-Za-z&<>'][A-Za-z &<>']{0,20}[A-Za-z&<>']$/),
    });
    fc.assert(
      fc.property(fc.array(cue, { minLength: 1, maxLength: 12 }), (cues) => {
        const given = cues.map(({ start, length, text }) => ({
          start: start / 1000,
          end: (start + length) / 1000,
          text,
        }));
        expect(readVtt(writeVtt(given))).toEqual(given);
      }),
    );
  });

  it('refuses what is no WebVTT', () => {
    expect(() => readVtt('1\n00:00:01,000 --> 00:00:02,000\nwords')).toThrow(
      expect.objectContaining({ code: 'vtt' }),
    );
    expect(() => readVtt('WEBVTT\n\nNOTE empty')).toThrow(expect.objectContaining({ code: 'vtt' }));
  });

  it('reads lyric lines with repeated tags and an offset', () => {
    const lines = readLyrics(
      '[ti:none]\n[offset:+500]\n[00:10.50][01:10.5]Turn it left\n[00:12]\n[00:14.00]Hold',
    );
    expect(lines.map(({ start, text }) => [start, text])).toEqual([
      [10, 'Turn it left'],
      [13.5, 'Hold'],
      [70, 'Turn it left'],
    ]);
    expect(lines[0].end).toBe(11.5);
    expect(() => readLyrics('just words')).toThrow(expect.objectContaining({ code: 'lyrics' }));
  });

  it('needs two beats', () => {
    expect(() => gridOfLabels([{ time: 1 }])).toThrow(expect.objectContaining({ code: 'beats-file' }));
  });
});
