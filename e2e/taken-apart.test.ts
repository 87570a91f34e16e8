import { readFileSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { timeOfBeat } from '@/core/time/grid';
import { demo, ffmpeg } from './support/ffmpeg';
import { songFilm } from './support/films';
import { test } from './support/test';

const rate = 24000 / 1001;
/** The shots of a film and how many beats each lasts; the third join comes five frames late. */
const shots = [
  ['bench-left-1', 4],
  ['yard-arrives', 2],
  ['tin-swap', 4],
  ['wheel-spin', 3],
  ['bench-right-2', 4],
  ['yard-arrives', 2],
] as const;
const [late, by] = [3, 5];

describe('a finished film', () => {
  test('is taken apart: its joins to the frame, on the beats of the song that is heard in it', async ({
    open,
    file,
  }) => {
    const bench = await open({ seed: songFilm(), keep: ['proxies'], at: 'station=match' });
    const { page } = bench;
    const grid = await bench.grid();
    const first = 16;
    const begins = timeOfBeat(grid, first);
    const beats = shots.map((_, index) => shots.slice(0, index + 1).reduce((sum, [, one]) => sum + one, 0));
    const cuts = [0, ...beats].map(
      (beat, index) =>
        Math.round((timeOfBeat(grid, first + beat) - begins) * rate) + (index === late ? by : 0),
    );
    const parts = shots.map(
      (_, index) =>
        `[${index}:v]trim=end_frame=${cuts[index + 1] - cuts[index]},setpts=PTS-STARTPTS,scale=640:360[v${index}]`,
    );
    ffmpeg(
      ...shots.flatMap(([name]) => ['-stream_loop', '2', '-i', demo(`${name}.mp4`)]),
      ...['-ss', String(begins), '-i', demo('left-hand-thread.opus'), '-filter_complex'],
      `${parts.join(';')};${shots.map((_, index) => `[v${index}]`).join('')}concat=n=${shots.length}[v]`,
      ...['-map', '[v]', '-map', `${shots.length}:a`, '-r', '24000/1001', '-c:v', 'libx264', '-crf', '23'],
      ...['-pix_fmt', 'yuv420p', '-c:a', 'aac', '-shortest', file('old-film.mp4')],
    );
    await bench.bringIn(file('old-film.mp4'));
    await page.locator('[data-take="Old film"] img').waitFor();
    await bench.settled();
    await bench.choose('What Old film is', 'a finished film');
    await page.getByRole('button', { name: 'See how it is cut' }).click();
    await page.locator('[data-rhythm]').waitFor();
    await bench.settled();
    expect(await page.locator('[data-rhythm]').getAttribute('data-rhythm')).toBe(String(shots.length));
    expect(await page.locator('[data-rhythm]').innerText()).toMatch(/4 of 5 joins lie on a beat/);
    const note = page.getByRole('button', { name: 'Note on shot 4: note' });
    await note.click();
    await page.keyboard.type('too late');
    await page.keyboard.press('Enter');
    await page.getByRole('button', { name: 'Note on shot 4: too late' }).waitFor();
    const list = await bench.save('Save the list');
    await list.saveAs(file('shots.csv'));
    const rows = readFileSync(file('shots.csv'), 'utf8')
      .trim()
      .split(/\r?\n/)
      .map((line) => line.split(','));
    rows.slice(1).forEach(([, frame, , , , , , , off], index) => {
      expect(Math.abs(Number(frame) - cuts[index]), `shot ${index + 1}`).toBeLessThanOrEqual(0);
      const planted = index === late ? (by / rate) * 1000 : 0;
      // A frame lies up to half of one off its beat: 21 ms.
      if (index > 0) expect(Math.abs(Number(off) - planted), `shot ${index + 1}`).toBeLessThan(24);
    });
    expect(rows[4].at(-1)).toBe('too late');
    // It stays where it is after a reload, and is no take of a pair.
    await page.reload();
    await bench.arrived();
    await page.locator('[data-rhythm]').waitFor();
    await page.setViewportSize({ width: 390, height: 844 });
    expect(await bench.overflow()).toBe(0);
    expect(await bench.audit()).toEqual([]);
    await page.getByRole('button', { name: 'Back to the takes' }).click();
    await page.locator('[data-take="Old film"]').waitFor();
  });
});
