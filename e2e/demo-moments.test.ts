import type { Fall } from '@/core/footage/fall';
import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { timeOfFrame } from '@/core/time/rate';
import { drop, poses, powder } from '../demo/set/scenes';
import type { BenchPage } from './support/bench-page';
import { decode, demo } from './support/ffmpeg';
import { demoFilm } from './support/films';
import { storedShot } from './support/rebuild';
import { test } from './support/test';

const size = { width: 640, height: 360 };
/** A part of the frame: left, top, right, bottom, in pixels of 1280 × 720. */
type Part = readonly [number, number, number, number];

const places = (
  plane: Uint8Array,
  width: number,
  share: number,
  [left, top, right, bottom]: Part,
): number[] => {
  const out: number[] = [];
  for (let y = Math.ceil(top * share); y < bottom * share; y++)
    for (let x = Math.ceil(left * share); x < right * share; x++) out.push(plane[y * width + x]);
  return out;
};
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
/** Mean luma, and mean red chroma, of a part. */
const luma = ({ y, width }: YuvImage, part: Part) => mean(places(y, width, width / 1280, part));
const red = ({ v, width }: YuvImage, part: Part) => mean(places(v, width / 2, width / 2560, part));
/** Mean difference of two pictures in a part. */
function apart(one: YuvImage, other: YuvImage, part: Part): number {
  const [a, b] = [one, other].map((image) => places(image.y, image.width, image.width / 1280, part));
  return mean(a.map((value, index) => Math.abs(value - b[index])));
}
const whole: Part = [0, 0, 1280, 720];
const borders: readonly Part[] = [
  [0, 0, 1280, 4],
  [0, 716, 1280, 720],
  [0, 0, 4, 720],
  [1276, 0, 1280, 720],
];

/** The demo as a visitor finds it once it is measured, at one of its moments. */
async function at(open: (how: object) => Promise<BenchPage>, moment: string): Promise<BenchPage> {
  const bench = await open({
    seed: demoFilm(),
    keep: ['proxies', 'stills', 'originals'],
    at: 'station=build',
  });
  await bench.choose('Moment', moment);
  return bench;
}

/** Renders the moment small; its frames by their number in the film, and the frames of its instants. */
async function rendered(bench: BenchPage, moment: string, file: (name: string) => string) {
  await bench.go('Hand over');
  await bench.type('Width', String(size.width));
  await bench.type('Height', String(size.height));
  await bench.type('Bits a second', '12');
  await bench.render(file('shot.mov'));
  const shot = await storedShot(bench, moment);
  const pictures = decode(file('shot.mov'), size.width, size.height);
  expect(pictures).toHaveLength(shot.end - shot.start);
  // No edge of anything shows along the frame's own: it would be black.
  if (!moment.startsWith('Four'))
    for (const picture of pictures)
      for (const border of borders) expect(luma(picture, border)).toBeGreaterThan(35);
  return { ...shot, frame: (number: number): YuvImage => pictures[number - shot.start], pictures };
}

describe('each moment of the demo has one thing wrong, and lands once that is put right', () => {
  test('the tin: a hand under the patch', async ({ open, file }) => {
    const bench = await at(open, 'The tin');
    await bench.found('cover.somebody');
    expect(await bench.finding('cover.somebody').innerText()).toMatch(/frames \d+ to \d+/);
    // Two beats earlier her hand is not there yet.
    await bench.type('The patch goes on', '16.3');
    await bench.settled();
    expect(await bench.finding('cover.somebody').count()).toBe(0);
    const { frame, anchors } = await rendered(bench, 'The tin', file);
    const tin: Part = [768, 440, 806, 454];
    const [before, after] = [frame(anchors.lands - 1), frame(anchors.lands + 3)];
    expect(apart(frame(anchors.start), before, tin)).toBeLessThan(4);
    expect(apart(before, after, tin)).toBeGreaterThan(20);
    expect(apart(before, frame(anchors.lands), tin)).toBeGreaterThan(4);
  });

  test('the powder: a third of a stop of light', async ({ open, file }) => {
    const bench = await at(open, 'Powder falls');
    await bench.found('take.light');
    await bench.press('Match it to the plate');
    await bench.settled();
    expect(await bench.finding('take.light').count()).toBe(0);
    // What falls is measured; an edge that is put elsewhere is said, and one press puts it back.
    await bench.found('reveal.follows');
    const answers = (await bench.rows('measures')) as { value: { method: string; fall?: Fall } }[];
    const fall = answers.find(({ value }) => value.method === 'fall-1')?.value.fall;
    expect(Math.abs((fall?.begins ?? NaN) - powder.at)).toBeLessThan(1 / 24);
    expect(Math.abs((fall?.lasts ?? NaN) - powder.seconds)).toBeLessThan(1 / 24);
    await bench.type('The change takes', '40');
    await bench.found('reveal.fall-differs');
    await bench.press('Follow what falls');
    await bench.settled();
    expect(await bench.finding('reveal.fall-differs').count()).toBe(0);
    const { frame, anchors, start } = await rendered(bench, 'Powder falls', file);
    const suit: Part = [780, 400, 830, 430];
    const top: Part = [400, 0, 900, 20];
    const { lands } = anchors;
    // Blue until the edge has fallen to her, red after; nothing of it before the beat, the top changes at once.
    expect(red(frame(lands), suit)).toBeLessThan(125);
    expect(red(frame(lands + 30), suit)).toBeGreaterThan(140);
    for (let number = start + 1; number <= lands; number++)
      expect(apart(frame(number), frame(start), top), `frame ${number}`).toBeLessThan(5);
    expect(apart(frame(lands + 6), frame(start), top)).toBeGreaterThan(15);
    // Matched: the set has the light it had.
    expect(
      Math.abs(luma(frame(lands + 40), [400, 30, 900, 100]) - luma(frame(start), [400, 30, 900, 100])),
    ).toBeLessThan(3);
  });

  test('the wheel pose: a phone that lost pictures', async ({ open, file }) => {
    const bench = await at(open, 'Wheel pose');
    await bench.found('take.varying-rate');
    await bench.found('freeze.lands');
    // What shakes cannot be held against what stands.
    await bench.type('The picture shakes by', '0');
    await bench.settled();
    expect(await bench.page.locator('[data-severity=stop], [data-severity=fix]').count()).toBe(0);
    const { frame, anchors, end } = await rendered(bench, 'Wheel pose', file);
    const band = (piece: number): Part => {
      const [head, feet] = [294, 656];
      const height = (feet - head) / 4;
      return [262, feet - piece * height + 12, 338, feet - (piece - 1) * height - 12];
    };
    for (const [piece, anchor] of ['piece-1', 'piece-2', 'piece-3', 'lands'].entries()) {
      const lands = anchors[anchor];
      expect(apart(frame(lands), frame(end - 1), band(piece + 1)), `${anchor} on its beat`).toBeLessThan(14);
      expect(apart(frame(lands - 3), frame(end - 1), band(piece + 1)), `${anchor} before it`).toBeGreaterThan(
        18,
      );
    }
  });

  test('out to the yard: a take that was stopped too soon', async ({ open, file }) => {
    const bench = await at(open, 'Out to the yard');
    await bench.found('whip.short');
    await bench.press('Start it earlier');
    await bench.settled();
    expect(await bench.page.locator('[data-severity=stop]').count()).toBe(0);
    const { pictures, anchors, start } = await rendered(bench, 'Out to the yard', file);
    // Bricks are red: the picture reddens from one frame to the next exactly once, on the beat's frame.
    const reds = pictures.map((picture) => red(picture, whole));
    const jumps = reds.map((value, index) => (index > 0 ? value - reds[index - 1] : 0));
    expect(jumps.indexOf(Math.max(...jumps)) + start).toBe(anchors.lands);
  });

  test('the wheel spin: too few pictures for a slow pose', async ({ open, file }) => {
    const bench = await at(open, 'Wheel spin');
    await bench.found('ramp.repeats');
    expect(await bench.finding('ramp.repeats').innerText()).toMatch(/Filmed at 60 a second/);
    // As fast as it was filmed nothing is shown twice.
    const { frame, anchors } = await rendered(bench, 'Wheel spin', file);
    const filmed = decode(demo('wheel-spin.mp4'), 1280, 720);
    const wheel: Part = [820, 270, 1040, 490];
    const small = ({ y }: YuvImage): YuvImage => {
      const out = new Uint8Array(size.width * size.height);
      for (let row = 0; row < size.height; row++)
        for (let column = 0; column < size.width; column++) {
          const from = row * 2 * 1280 + column * 2;
          out[row * size.width + column] = (y[from] + y[from + 1] + y[from + 1280] + y[from + 1281] + 2) >> 2;
        }
      return { ...frame(anchors.lands), y: out };
    };
    const sources = filmed.map(small);
    const secondsIn = (number: number) => {
      const off = sources.map((source) => apart(source, frame(number), wheel));
      return timeOfFrame({ num: 24000, den: 1001 }, off.indexOf(Math.min(...off)));
    };
    for (const [index, anchor] of ['lands', 'pose-2', 'pose-3'].entries()) {
      // It stands from the pose on for three tenths of a second, of which any picture is as like it.
      const seconds = secondsIn(anchors[anchor]);
      expect(seconds, anchor).toBeGreaterThan(poses[index] - 0.1);
      expect(seconds, anchor).toBeLessThan(poses[index] + 0.35);
      // A quarter of a second before it still turned.
      expect(apart(frame(anchors[anchor]), frame(anchors[anchor] - 14), wheel)).toBeGreaterThan(
        1.5 * apart(frame(anchors[anchor]), frame(anchors[anchor] + 1), wheel),
      );
    }
  });

  test('four hands: an upright clip that is too small for its panel', async ({ open, file }) => {
    const bench = await at(open, 'Four hands');
    await bench.found('split.soft');
    await bench.choose('How the frame is cut', 'columns');
    expect(await bench.finding('split.soft').count()).toBe(0);
    const { frame, anchors } = await rendered(bench, 'Four hands', file);
    for (const [panel, anchor] of ['start', 'panel-2', 'panel-3', 'lands'].entries()) {
      const part: Part = [panel * 320 + 20, 20, panel * 320 + 300, 700];
      expect(luma(frame(anchors[anchor]), part), `${anchor} on its beat`).toBeGreaterThan(60);
      if (panel > 0) expect(luma(frame(anchors[anchor] - 1), part), `${anchor} before it`).toBeLessThan(20);
    }
  });

  test('gone and back: a tripod that gives as she lands', async ({ open, file }) => {
    const bench = await at(open, 'Gone and back');
    await bench.found('take.moved');
    await bench.press('Steady it');
    await bench.type('The ground shakes by', '0');
    await bench.settled();
    expect(await bench.page.locator('[data-severity=stop], [data-severity=fix]').allInnerTexts()).toEqual([]);
    const { frame, anchors } = await rendered(bench, 'Gone and back', file);
    const { leaves, lands } = anchors;
    const [body, below]: Part[] = [
      [270, 330, 330, 520],
      [274, 600, 326, 652],
    ];
    const empty = frame(leaves + 12);
    // In the air on the frame before the beat, with the floor free below her; two frames on the set is empty.
    expect(apart(frame(leaves - 1), empty, body)).toBeGreaterThan(25);
    expect(apart(frame(leaves - 1), empty, below)).toBeLessThan(12);
    for (const later of [4, 8]) expect(apart(frame(leaves + later), empty, body)).toBeLessThan(12);
    // Above the floor three frames before the other beat, on it from the beat on.
    expect(drop.from).toBeGreaterThan(60);
    expect(apart(frame(lands + 12), empty, below)).toBeGreaterThan(25);
    expect(apart(frame(lands + 1), frame(lands + 12), below)).toBeLessThan(14);
    expect(apart(frame(lands - 3), frame(lands + 12), below)).toBeGreaterThan(14);
  });
});
