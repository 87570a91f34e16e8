import { describe, expect, it } from 'vitest';
import { bandRate, beatsAt, play } from '../__tests__/band';
import { regularGrid } from '../time/grid';
import { clicksOf, countIn, soundOfClicks } from './click';
import { energyOf, levelsOf } from './energy';
import { findEvents } from './events';
import { findSections } from './sections';
import { stretch } from './stretch';
import { trackBeats } from './track';

const rate = 24000;
const tone = (hz: number, seconds: number) =>
  Float32Array.from({ length: seconds * rate }, (_, at) => 0.5 * Math.sin((2 * Math.PI * hz * at) / rate));

/** Times at which a sound rises through a level after a silence. */
function strikes(data: Float32Array): number[] {
  const times: number[] = [];
  data.forEach((value, at) => {
    const last = times[times.length - 1] ?? -1;
    if (Math.abs(value) > 0.12 && at / rate - last > 0.1) times.push(at / rate);
  });
  return times;
}

describe('sound at another speed', () => {
  it.each([0.25, 0.5, 0.75, 1.25, 2.5])('keeps its pitch and gets its length at %f', (speed) => {
    const [out] = stretch([tone(440, 3)], rate, speed);
    expect(out.length).toBe(Math.round((3 * rate) / speed));
    let crossings = 0;
    const [from, to] = [Math.round(out.length * 0.2), Math.round(out.length * 0.8)];
    for (let at = from; at < to; at++) if (out[at - 1] < 0 && out[at] >= 0) crossings++;
    expect(crossings / ((to - from) / rate)).toBeCloseTo(440, -0.5);
    const power = out.slice(from, to).reduce((sum, value) => sum + value * value, 0) / (to - from);
    expect(Math.sqrt(power)).toBeCloseTo(0.5 / Math.SQRT2, 1);
  });

  it('keeps every click where it belongs, over a minute', () => {
    const clicks = clicksOf(regularGrid(120, 0.5, 60), 0, 60);
    const sound = soundOfClicks(clicks, 60 * rate, rate);
    for (const speed of [0.4, 2.5]) {
      const found = strikes(stretch([sound], rate, speed)[0]);
      for (const { time } of clicks.slice(2, -2)) {
        const near = Math.min(...found.map((at) => Math.abs(at - time / speed)));
        expect(near).toBeLessThan(0.04);
      }
    }
  });

  it('leaves sound alone at 100 %, and refuses no speed', () => {
    expect(stretch([tone(440, 0.1)], rate, 1)[0]).toEqual(tone(440, 0.1));
    expect(() => stretch([tone(440, 0.1)], rate, 0)).toThrow(expect.objectContaining({ code: 'speed' }));
  });
});

describe('clicks', () => {
  it('fall on their samples, the first of the bar louder', () => {
    const grid = regularGrid(120, 0, 4);
    const clicks = clicksOf(grid, 0, 4);
    expect(clicks.map(({ accent }) => accent)).toEqual([
      true,
      false,
      false,
      false,
      true,
      false,
      false,
      false,
    ]);
    const sound = soundOfClicks(clicks, 4 * rate, rate);
    expect(strikes(sound)).toHaveLength(8);
    for (const [index, time] of strikes(sound).entries()) expect(time).toBeCloseTo(index / 2, 2);
    const loudest = (from: number) => Math.max(...sound.slice(from * rate, (from + 0.1) * rate));
    expect(loudest(0)).toBeGreaterThan(loudest(0.5) * 1.3);
  });

  it('leave time to speak the counts, whatever the tempo', () => {
    expect(countIn(0.5, 4)).toMatchObject({ length: 2 });
    for (const beat of [0.12, 0.2, 0.3, 0.6]) {
      const { clicks, length } = countIn(beat, 3);
      expect(clicks).toHaveLength(4);
      expect(clicks[1].time).toBeGreaterThanOrEqual(0.38);
      expect(length - clicks[3].time).toBeCloseTo(clicks[1].time, 9);
    }
  });
});

describe('energy', () => {
  it('tells loud and busy stretches from quiet ones', () => {
    const samples = tone(220, 6).map((value, at) => value * (at < 3 * rate ? 0.1 : 1));
    const hits = [4, 4.5, 5].map((time) => ({ time, strength: 1, band: 'low' as const }));
    const [quiet, loud] = energyOf(levelsOf(samples, rate), hits, [0, 3, 6]);
    // Root mean square of a sine is its height over the root of two: 0.5 is -9.03 dB.
    expect(loud.level).toBeCloseTo(-9.03, 1);
    expect(loud.level - quiet.level).toBeCloseTo(20, 1);
    expect([quiet.density, loud.density]).toEqual([0, 1]);
    expect([quiet.share, loud.share]).toEqual([0, 1]);
    expect(energyOf(new Float32Array(0), [], [0, 1])[0].share).toBe(0.5);
  });
});

describe('sections', () => {
  it('begin where the band changes what it plays, and return by their letter', () => {
    const beats = beatsAt(() => 120, 64.4);
    const bars = beats.filter((_, index) => index % 4 === 0);
    const loud = play(beats, 66, { beatsPerBar: 4 });
    const soft = play(beats, 66, { beatsPerBar: 4, between: [], snare: [] });
    const second = (at: number) => Math.floor((at / bandRate - 0.4) / 16) % 2 === 1;
    const song = loud.map((value, at) => (second(at) ? value : soft[at] * 0.35));
    const { hits } = trackBeats(song, bandRate);
    const found = findSections(song, bandRate, bars, levelsOf(song, bandRate), hits);
    expect(found.map(({ time }) => Math.round(time - 0.4))).toEqual([0, 16, 32, 48]);
    expect(found.map(({ letter }) => letter)).toEqual(['A', 'B', 'A', 'B']);
  });

  it('is one section where there are few bars, none where there are no bars', () => {
    const levels = new Float32Array(40);
    expect(findSections(tone(220, 4), rate, [0, 2], levels, [])).toEqual([{ time: 0, letter: 'A' }]);
    expect(findSections(tone(220, 4), rate, [], levels, [])).toEqual([]);
  });
});

describe('events in a take', () => {
  it('are snaps where they are struck and ends where a word stops', () => {
    const sound = new Float32Array(6 * rate);
    for (const from of [1, 2.5]) {
      for (let at = 0; at < 0.02 * rate; at++)
        sound[from * rate + at] = (at % 2 ? 0.8 : -0.8) * Math.exp(-at / 60);
    }
    // A word: half a second of a voice's pitch with its overtones.
    for (let at = 0; at < 0.5 * rate; at++)
      for (let over = 1; over < 12; over++)
        sound[4 * rate + at] += 0.06 * Math.sin((2 * Math.PI * 160 * over * at) / rate);
    const events = findEvents(sound, rate);
    const near = (kind: string, time: number) =>
      events.some((event) => event.kind === kind && Math.abs(event.time - time) < 0.03);
    expect([near('hit', 1), near('hit', 2.5), near('hit', 4), near('end', 4.5)]).toEqual([
      true,
      true,
      true,
      true,
    ]);
    expect(events.filter(({ kind }) => kind === 'end')).toHaveLength(1);
  });

  it('are none in silence or in a moment of sound', () => {
    expect(findEvents(new Float32Array(rate), rate)).toEqual([]);
    expect(findEvents(tone(440, 0.1), rate)).toEqual([]);
  });
});
