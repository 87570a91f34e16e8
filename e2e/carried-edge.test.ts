import { describe, expect } from 'vitest';
import { setMoment } from '@/store/commands/moments';
import { addMoment } from '@/store/commands/plan';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { decode, ffmpeg } from './support/ffmpeg';
import { portrait } from './support/photographs';
import { storedShot } from './support/rebuild';
import { seeded } from './support/seeds';
import { test } from './support/test';

const size = { width: 320, height: 180 };
const board = { width: 64, height: 48, x: 40, y: 60, perSecond: 30 };

/** A change behind a drawn edge, from second 5 to 9; it begins on second 6. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...size, megabits: 8 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'masked-reveal', 5, 9);
  await setMoment(store, project, id, 'Place', { name: 'The board', lands: 6, 'settings.soft': 0 });
});

describe('a drawn edge', () => {
  test('goes with what lies under it, in the rendered file as well, from one drawing', async ({
    open,
    file,
  }) => {
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=0x505050:s=${size.width}x${size.height}:r=25:d=6`],
      ...['-loop', '1', '-framerate', '25', '-t', '6', '-i', portrait()],
      ...[
        '-filter_complex',
        `[0]noise=alls=24[w];[1]crop=256:192:130:20,scale=${board.width}:${board.height}[b];` +
          `[w][b]overlay=x='${board.x}+${board.perSecond}*t':y=${board.y}:eval=frame,format=yuv420p`,
      ],
      ...['-t', '6', '-c:v', 'libx264', '-qp', '8', file('first.mp4')],
    );
    ffmpeg(
      ...['-f', 'lavfi', '-i', `color=0xf4f4f4:s=${size.width}x${size.height}:r=25:d=6,format=yuv420p`],
      ...['-c:v', 'libx264', '-qp', '8', file('second.mp4')],
    );
    const bench = await open({ seed: await film, at: 'station=build' });
    const { page } = bench;
    await bench.bringIn(file('first.mp4'), file('second.mp4'));
    await bench.settled();
    await bench.choose('Take for the take before the change', 'First');
    await bench.choose('Take for the take after the change', 'Second');
    await bench.settled();
    await bench.choose('What the change follows', 'a drawn shape');
    await bench.choose('The drawn shape', 'goes with what lies under it before');
    await bench.found('reveal.not-drawn');
    await bench.press('Edge');
    await bench.press('To the landing');
    await bench.press('Draw it anew');
    const pad = await page.locator('[data-draw]').boundingBox();
    if (!pad) throw new Error('There is nothing to draw on.');
    // Where the board is a second into its take.
    const [left, top] = [board.x + board.perSecond, board.y];
    const corners = [
      [left, top],
      [left + board.width, top],
      [left + board.width, top + board.height],
      [left, top + board.height],
    ];
    const place = ([x, y]: number[]): [number, number] => [
      pad.x + (x / size.width) * pad.width,
      pad.y + (y / size.height) * pad.height,
    ];
    await page.mouse.move(...place(corners[0]));
    await page.mouse.down();
    for (const corner of [...corners.slice(1), corners[0]])
      await page.mouse.move(...place(corner), { steps: 12 });
    await page.mouse.up();
    await bench.settled();
    await bench.found('reveal.carried');
    bench.landed();
    // What was found outlives a reload.
    await page.reload();
    await bench.arrived();
    await bench.settled();
    await bench.found('reveal.carried');
    const shot = await storedShot(bench);
    await bench.go('Hand over');
    await bench.render(file('shot.mov'));
    const pictures = decode(file('shot.mov'), size.width, size.height);
    const rate = shot.rate.num / shot.rate.den;
    const [lands, last] = [Math.round(6 * rate) - shot.start, pictures.length - 1];
    expect(last).toBeGreaterThan(lands + 60);
    const isRevealed = (frame: number, x: number, y: number) =>
      pictures[frame].y[Math.round(y) * size.width + Math.round(x)] > 200;
    for (const frame of [lands, lands + 20, lands + 45, last]) {
      const left = board.x + (board.perSecond * frame) / rate;
      const [right, middle] = [left + board.width, board.y + board.height / 2];
      for (const x of [left + 4, (left + right) / 2, right - 4])
        expect([frame, x, isRevealed(frame, x, middle)]).toEqual([frame, x, true]);
      for (const x of [left - 5, right + 5])
        expect([frame, x, isRevealed(frame, x, middle)]).toEqual([frame, x, false]);
    }
    // Undone it stands where it was drawn.
    await bench.go('Build');
    await bench.undo();
    await bench.settled();
    expect(await bench.finding('reveal.carried').count()).toBe(0);
  });
});
