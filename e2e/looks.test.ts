import { expect, describe } from 'vitest';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { decode, ffmpeg } from './support/ffmpeg';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 320, height: 180 };

/** A ramp over seconds 5 to 9 that lands on second 6, on a ruler of seconds. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...size, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'speed-ramp', 5, 9);
  await setMoment(store, project, id, 'Place', { name: 'The shot', lands: 6 });
});

describe('the look of a moment', () => {
  test('is set in words, survives a reload, is undone, rendered, and told to other editors', async ({
    open,
    file,
  }) => {
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=0x808080:s=${size.width}x${size.height}:r=25:d=8`],
      ...['-c:v', 'libx264', '-qp', '6', '-pix_fmt', 'yuv420p', file('wall.mp4')],
    );
    const bench = await open({ seed: await film, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('wall.mp4'));
    await bench.settled();
    await bench.choose('Take for the pass', 'Wall');
    await bench.settled();
    await bench.type('Darker corners', '50');
    await bench.type('Glow', '40');
    await bench.undo();
    await page.reload();
    await bench.settled();
    expect(await bench.number('Darker corners').innerText()).toBe('50 %');
    expect(await bench.number('Glow').innerText()).toBe('0 %');
    await bench.choose('When the look is there', 'As a hit on the landing');
    await bench.type('Brightness', '140');
    await bench.type('Frames in which the hit dies away', '10');
    await bench.settled();
    const shot = await storedShot(bench);
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height);
    const light = (frame: number, x: number, y: number) => pictures[frame].y[y * size.width + x];
    const [middle, corner] = [
      [160, 90],
      [1, 1],
    ] as const;
    // 0x80 is 126 in the video's range; brighter by 40 % it is 169, and in the corner half of that.
    const lands = Math.round((shot.rate.num / shot.rate.den) * 6) - shot.start;
    for (const [frame, there, away] of [
      [lands - 1, 126, 126],
      [lands, 169, 16 + 0.5 * (169 - 16)],
      [lands + 10, 126, 126],
      [pictures.length - 1, 126, 126],
    ]) {
      expect(Math.abs(light(frame, ...middle) - there), `frame ${frame}`).toBeLessThan(4);
      expect(Math.abs(light(frame, ...corner) - away), `corner of frame ${frame}`).toBeLessThan(5);
    }
    await bench.press('Keyframes to print');
    await page.getByText('Give it its look').first().waitFor();
  });
});
