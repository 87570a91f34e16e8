import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import type { BenchPage } from './support/bench-page';
import { decode } from './support/ffmpeg';
import { demoFilm } from './support/films';
import { storedShots } from './support/rebuild';
import { test } from './support/test';

const moments = [
  'Meets a copy',
  'Powder falls',
  'Wheel pose',
  'The tin',
  'Out to the yard',
  'Wheel spin',
  'Four hands',
  'Gone and back',
];

/** What has to be put right in each moment, by its codes; each still lands on the frame next to its beat. */
async function wrongIn(bench: BenchPage): Promise<Record<string, string[]>> {
  const out: Record<string, string[]> = {};
  await bench.go('Build');
  const shot = await storedShots(bench);
  for (const moment of moments) {
    await bench.choose('Moment', moment);
    const { lands, beatTime, rate } = shot(moment);
    expect(lands, moment).toBe(Math.round((beatTime * rate.num) / rate.den));
    expect(await bench.page.locator('[data-severity=fine]').first().textContent(), moment).toMatch(
      /\d ms from/,
    );
    const wrong = bench.page.locator('[data-severity=stop], [data-severity=fix]');
    out[moment] = await wrong.evaluateAll((all) => all.map((one) => one.getAttribute('data-finding') ?? ''));
  }
  return out;
}

describe('a film that is changed after its moments were built', () => {
  test('upright and at 30 a second: all land, who is cut off is said, and the frame is pushed to them', async ({
    open,
    file,
  }) => {
    const bench = await open({
      seed: demoFilm(),
      keep: ['proxies', 'stills', 'originals'],
      at: 'station=deliver',
    });
    await bench.choose('Frame rate', '30 frames/s');
    await bench.type('Width', '360');
    await bench.type('Height', '640');
    await bench.settled();
    const before = await wrongIn(bench);
    for (const moment of ['Powder falls', 'Wheel pose', 'Gone and back'])
      expect(before[moment], moment).toContain('frame.cuts');
    // The two of them stand too far apart for any push; the wheel alone has nobody in it.
    expect(before['Meets a copy']).toContain('frame.too-wide');
    expect(before['Wheel spin']).toEqual([]);
    expect(before['Out to the yard']).toContain('whip.short');
    await bench.choose('Moment', 'Wheel pose');
    await bench.press('Push the frame to them');
    await bench.settled();
    expect(await bench.finding('frame.cuts').count()).toBe(0);
    expect(await bench.number('The frame is pushed').innerText()).toMatch(/% left/);
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), 360, 640);
    // She stands upright in the upright frame: from first to last the picture differs in its middle, not at its sides.
    const [first, last] = [pictures[0], pictures[pictures.length - 1]];
    const differs = (one: YuvImage, other: YuvImage, left: number, right: number) => {
      let sum = 0;
      for (let y = 280; y < 560; y++)
        for (let x = left; x < right; x++) sum += Math.abs(one.y[y * 360 + x] - other.y[y * 360 + x]);
      return sum / (280 * (right - left));
    };
    expect(differs(first, last, 150, 210)).toBeGreaterThan(25);
    for (const [left, right] of [
      [0, 60],
      [300, 360],
    ])
      expect(differs(first, last, left, right)).toBeLessThan(10);
    await bench.undo(1);
    await bench.go('Build');
    await bench.found('frame.cuts');
  });

  test('in another tempo: all land, and takes that no longer reach are said with what mends them', async ({
    open,
  }) => {
    const bench = await open({ seed: demoFilm(), keep: ['proxies', 'stills'], at: 'station=song' });
    const asFilmed = await wrongIn(bench);
    expect(Object.values(asFilmed).flat().sort()).toEqual([
      'cover.somebody',
      'take.light',
      'take.moved',
      'whip.short',
    ]);
    // In another tempo of the same song all stay where they were, to the nearest quarter of a beat; snapped, each lands
    // on a beat.
    const frames = async () => {
      const shot = await storedShots(bench);
      return moments.map((moment) => shot(moment).lands);
    };
    const before = await frames();
    await bench.go('Song');
    await bench.type('Tempo', '84');
    await bench.settled();
    const after = await frames();
    before.forEach((frame, index) => expect(Math.abs(after[index] - frame)).toBeLessThanOrEqual(3));
    await bench.unfold('Finer');
    await bench.press('Snap moments to beats');
    await bench.settled();
    const snapped = await wrongIn(bench);
    // What was found in the takes is found still, and nothing lands out of turn.
    expect(Object.values(snapped).flat()).toEqual(expect.arrayContaining(['take.light', 'take.moved']));
    expect(
      Object.values(snapped)
        .flat()
        .filter((code) => /never|cramped|crowded/.test(code)),
    ).toEqual([]);
    const grid = await bench.grid();
    const shot = await storedShots(bench);
    for (const moment of moments) {
      const { beatTime } = shot(moment);
      expect(Math.min(...grid.beats.map((beat) => Math.abs(beat - beatTime))), moment).toBeLessThan(1e-6);
    }
    await bench.undo(2);
    expect(await wrongIn(bench)).toEqual(asFilmed);
  });
});
