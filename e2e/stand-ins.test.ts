import { describe, expect } from 'vitest';
import type { Take } from '@/core/model/records';
import { yuvToRgba } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import type { StoredRecord } from '@/store/db';
import { decode, ffmpeg } from './support/ffmpeg';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 320, height: 180 };

/** A ruler of seconds with one moment of a kind over seconds 5 to 13, landing on 7. */
const film = (kind: 'built-whip' | 'speed-ramp') =>
  seeded(async (store, project) => {
    await setProject(store, project, { ...size, megabits: 8 });
    await laySeconds(store, project);
    const id = await addMoment(store, project, kind, 5, 13);
    await setMoment(store, project, id, 'Place', { name: 'The shot', lands: 7 });
  });

describe('before anything is filmed', () => {
  test('drawings stand in for takes, are built and rendered with, and say that they only stand in', async ({
    open,
    file,
  }) => {
    const still = (name: string, colour: string, shape: string) =>
      ffmpeg('-f', 'lavfi', '-i', `color=${colour}:s=${shape}`, '-frames:v', '1', file(name));
    still('hall.png', '0x404040', '641x361');
    still('yard.jpg', '0xc0c0c0', '1280x720');
    const bench = await open({ seed: await film('built-whip'), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('hall.png'), file('yard.jpg'));
    await bench.settled();
    await bench.choose('Take for the first place', 'Hall');
    await bench.choose('Take for the second place', 'Yard');
    await bench.found('take.sketch');
    await page.reload();
    await bench.settled();
    const takes = (await bench.records()).filter((one): one is StoredRecord & Take => one.kind === 'take');
    expect(takes.map(({ name, sketch }) => `${name} ${sketch}`).sort()).toEqual(['Hall true', 'Yard true']);
    // A drawing of another shape does not make the film another one.
    const project = (await bench.records()).find(({ kind }) => kind === 'project');
    expect(project).toMatchObject(size);
    const shot = await storedShot(bench);
    await bench.go('Hand over');
    await page
      .getByText(/processor paints/i)
      .first()
      .waitFor();
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height).map((one) => yuvToRgba(one));
    expect(pictures).toHaveLength(shot.end - shot.start);
    const light = (frame: number) => pictures[frame - shot.start].data[4 * (90 * size.width + 160)];
    expect(Math.abs(light(shot.start) - 0x40)).toBeLessThan(6);
    expect(Math.abs(light(shot.end - 1) - 0xc0)).toBeLessThan(6);
    // What is no picture says so and takes nothing away.
    ffmpeg('-f', 'lavfi', '-i', 'color=red:s=32x32', '-frames:v', '1', '-f', 'rawvideo', file('torn.png'));
    await bench.bringIn(file('torn.png'));
    await page
      .getByText(/This picture cannot be read/)
      .first()
      .waitFor();
  });
});

describe('a slow pose that was filmed at too low a rate', () => {
  test('is filled with pictures made along what moves, which lie between those of the file', async ({
    open,
    file,
  }) => {
    // A light square that moves by 6 px a picture over a dark wall.
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=0x202020:s=${size.width}x${size.height}:r=25:d=8`],
      ...['-f', 'lavfi', '-i', 'testsrc2=s=48x48:r=25:d=8'],
      ...['-filter_complex', "[0][1]overlay=x='20+30*mod(n,9)/5':y=66:eval=frame,format=yuv420p"],
      ...['-c:v', 'libx264', '-qp', '6', file('slide.mp4')],
    );
    const bench = await open({ seed: await film('speed-ramp'), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('slide.mp4'));
    await bench.settled();
    await bench.choose('Take for the pass', 'Slide');
    await bench.found('ramp.repeats');
    await bench.choose('Where pictures are lacking', 'makes one along what moves');
    await bench.settled();
    await bench.found('ramp.makes');
    // Every ninth picture the square is back at its beginning, which no movement explains; the rest holds.
    expect(await page.locator('canvas[data-frame]').count()).toBe(1);
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height);
    const same = pictures.filter(
      ({ y }, index) => index > 0 && y.every((value, at) => Math.abs(value - pictures[index - 1].y[at]) < 3),
    );
    expect(same.length).toBeLessThan(pictures.length / 10);
  });
});

describe('a point that is followed', () => {
  test('is tapped on one picture, found on the others, and stands still in the rendered file', async ({
    open,
    file,
  }) => {
    // A light square that wanders by 60 px in 4 s over a dark wall.
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=0x202020:s=${size.width}x${size.height}:r=50:d=12`],
      ...['-f', 'lavfi', '-i', 'color=0xf0f0f0:s=16x16:r=50:d=12'],
      ...['-filter_complex', "[0][1]overlay=x='112+15*t':y=82:eval=frame,format=yuv420p"],
      ...['-c:v', 'libx264', '-qp', '6', file('walk.mp4')],
    );
    const bench = await open({ seed: await film('speed-ramp'), at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('walk.mp4'));
    await bench.settled();
    await bench.choose('Take for the pass', 'Walk');
    await bench.settled();
    await page.getByRole('button', { name: 'As filmed', exact: true }).click();
    const pad = page.getByTestId('tap');
    const tapAt = async (column: number) => {
      const box = await pad.boundingBox();
      if (!box) throw new Error('There is nothing to tap.');
      await pad.click({ position: { x: ((column + 0.5) / size.width) * box.width, y: box.height / 2 } });
      await bench.settled();
    };
    await tapAt(119.5);
    await bench.settled();
    expect(await bench.finding('ramp.follows').count()).toBe(1);
    const followedAt = async () => {
      const [box, mark] = [await pad.boundingBox(), await page.getByTestId('tapped here').boundingBox()];
      return box && mark ? ((mark.x + mark.width / 2 - box.x) / box.width) * size.width : NaN;
    };
    expect(Math.abs((await followedAt()) - 120)).toBeLessThan(1);
    const frames = 100;
    for (let step = 0; step < frames; step++) await page.keyboard.press('.');
    await bench.settled();
    const shown = Number((await page.getByTestId('frame').innerText()).match(/frame (\d+)/)?.[1]);
    const shot = await storedShot(bench);
    const seconds = ((shown - shot.start) * shot.rate.den) / shot.rate.num;
    // Where nobody tapped, the ring is where the bench found it.
    expect(Math.abs((await followedAt()) - (120 + 15 * seconds))).toBeLessThan(1.5);
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height);
    /** Where the light square is, across, from its weight. */
    const across = ({ y }: (typeof pictures)[number]) => {
      let [sum, weight] = [0, 0];
      for (let at = 0; at < y.length; at++) {
        const light = Math.max(0, y[at] - 90);
        sum += light * (at % size.width);
        weight += light;
      }
      return sum / weight;
    };
    const places = pictures.map(across);
    // It stands all along, but for the whole steps that the square itself moves in.
    expect(places.length).toBeGreaterThan(90);
    expect(Math.max(...places) - Math.min(...places)).toBeLessThan(3.5);
  });
});
