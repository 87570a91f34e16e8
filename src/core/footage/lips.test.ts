import { describe, expect, it } from 'vitest';
import { allowed } from '../finding/allowed';
import { seeded } from '../random';
import { slowDown } from '../song/spectrum';
import { rate, song } from './__tests__/heard';
import { singer, voiceRate, type Singer } from './__tests__/singer';
import { alignLips } from './lips';

const seconds = 48;

const band = slowDown({ data: song(seconds, 5), rate }, voiceRate).data;
const one = singer(seconds, 3);

/** A voice in a song; as loud as that with 1. */
function sungSong({ sound }: Singer, loud: number) {
  const power = (data: Float32Array) => Math.sqrt(data.reduce((sum, value) => sum + value * value, 0));
  const factor = (loud * power(band)) / power(sound);
  return { data: band.map((value, at) => value + factor * sound[at]), rate: voiceRate };
}

/** How the mouth of a singer is seen in pictures of a take that begins at a second of the song. @param grain of what is seen */
function seen(
  { open }: Singer,
  from: number,
  length: number,
  perSecond: number,
  late: number,
  grain: number,
) {
  const next = seeded(7);
  return Array.from({ length: Math.round(length * perSecond) }, (_, index) => {
    const time = index / perSecond;
    return { time, open: open(from + time - late) + grain * (next() + next() - 1) };
  });
}

const laid = (offset: number) => ({ offset, drift: 0, confidence: 1 });

describe('lips against a song', () => {
  it.each([
    { late: -0.3, perSecond: 24, loud: 1, length: 14 },
    { late: 0, perSecond: 25, loud: 1, length: 14 },
    { late: 0.12, perSecond: 29.97, loud: 1, length: 20 },
    { late: 0.35, perSecond: 15, loud: 0.5, length: 30 },
  ])('that come $late s late in $length s are told to 40 ms', ({ late, perSecond, loud, length }) => {
    const found = alignLips(sungSong(one, loud), laid(9), seen(one, 9, length, perSecond, late, 0.2));
    expect(found?.sure).toBeGreaterThanOrEqual(allowed.heard);
    expect(Math.abs((found?.late ?? 9) - late)).toBeLessThan(0.04);
  });

  it('are believed of nobody who says something else, chews, or whose take lies elsewhere', () => {
    const sung = sungSong(one, 1);
    const chews = Array.from({ length: 500 }, (_, index) => ({
      time: index / 25,
      open: Math.sin(index / 3) ** 2,
    }));
    const others = [11, 12, 13, 14].map((seed) => seen(singer(seconds, seed), 9, 20, 25, 0, 0.1));
    for (const looks of [chews, ...others])
      expect(alignLips(sung, laid(9), looks)?.sure ?? 0).toBeLessThan(allowed.heard);
    expect(alignLips(sung, laid(20), seen(one, 9, 20, 25, 0, 0.1))?.sure ?? 0).toBeLessThan(allowed.heard);
  });

  it('say nothing of a few seconds, a mouth that stays closed, or silence', () => {
    const sung = sungSong(one, 1);
    const looks = seen(one, 9, 20, 25, 0, 0.1);
    expect(alignLips(sung, laid(9), looks.slice(0, 150))).toBeNull();
    expect(alignLips(sung, laid(9), [])).toBeNull();
    const shut = looks.map(({ time }) => ({ time, open: 0.1 }));
    expect(alignLips(sung, laid(9), shut)?.sure ?? 0).toBe(0);
    expect(
      alignLips({ data: new Float32Array(seconds * voiceRate), rate: voiceRate }, laid(9), looks)?.sure ?? 0,
    ).toBe(0);
  });
});
