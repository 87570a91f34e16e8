import { describe, expect } from 'vitest';
import { demoFilm } from './support/films';
import { test } from './support/test';

describe('the stage', () => {
  test('a plate that is not there is said, and no other picture stands in its place', async ({ open }) => {
    const bench = await open({ seed: demoFilm(), at: 'station=match' });
    const { page } = bench;
    for (const plate of ['Bench plate start', 'Bench plate end']) {
      await page.getByRole('combobox', { name: `What ${plate} is` }).click();
      await page.getByRole('option', { name: 'not used' }).click();
      await bench.settled();
    }
    await bench.go('Build');
    await bench.press('Plate');
    await page.getByText('There is no plate in this moment yet.').waitFor();
    expect(await page.locator('canvas[data-frame]').count()).toBe(0);
  });

  test('takes that are chosen and not measured yet are said to be so, and not asked for again', async ({
    open,
  }) => {
    const whole = demoFilm();
    const seed = { ...whole, rowsOf: (table: string) => (table === 'measures' ? '[]' : whole.rowsOf(table)) };
    const { page } = await open({ seed, at: 'station=build' });
    await page.getByText('The takes are not measured yet.').waitFor();
    expect(await page.getByText(/^Choose a take/).count()).toBe(0);
  });

  test('names the files whose pictures this browser lost, and says what to do', async ({ open }) => {
    const { page } = await open({ seed: demoFilm(), at: 'station=build' });
    const said = page.getByRole('alert').filter({ hasText: 'Bring the files in again' });
    await said.waitFor();
    expect(await said.textContent()).toMatch(/^The pictures of .*bench-left.* are not in this browser\./);
  });

  test('says what lands above the picture of the people, and covers nobody with it', async ({ open }) => {
    const { page } = await open({ seed: demoFilm(), keep: ['proxies'], at: 'station=build' });
    const box = async (selector: string) => {
      const found = await page.locator(selector).boundingBox();
      if (!found) throw new Error(`${selector} is not in sight`);
      return found;
    };
    await page.locator('canvas[data-frame]').waitFor();
    for (const step of ['To the landing', '+ 1 frame']) {
      await page.getByRole('button', { name: step, exact: true }).click();
      const [picture, label] = [await box('canvas[data-frame]'), await box('[data-thread] rect')];
      // The demo's people are cut at the top by a fifth of the frame at the most.
      expect(label.y + label.height).toBeLessThan(picture.y + 0.05 * picture.height);
    }
  });

  test('lets go of every picture that it has drawn', async ({ open: opened }) => {
    const bench = await opened({ seed: demoFilm(), keep: ['proxies'], at: 'station=build' });
    const { page } = bench;
    await page.locator('canvas[data-frame]').waitFor();
    await bench.settled();
    await page.evaluate(`(() => {
      globalThis.pictures = { drawn: 0, open: new Set() };
      const { drawImage } = CanvasRenderingContext2D.prototype;
      const { close } = ImageBitmap.prototype;
      CanvasRenderingContext2D.prototype.drawImage = function (image, ...rest) {
        if (image instanceof ImageBitmap) {
          pictures.drawn++;
          pictures.open.add(image);
        }
        return drawImage.call(this, image, ...rest);
      };
      ImageBitmap.prototype.close = function () {
        pictures.open.delete(this);
        return close.call(this);
      };
    })()`);
    const drawn = () => page.evaluate('pictures.drawn') as Promise<number>;
    const open = () => page.evaluate('pictures.open.size') as Promise<number>;
    for (const view of ['Joined', 'Left', 'Difference']) {
      await bench.press(view);
      const before = await drawn();
      await bench.press('+ 1 frame');
      await expect.poll(drawn).toBeGreaterThan(before);
      // Those of another view are let go of at once; of this one two frames at the most were seen.
      await expect.poll(open).toBeLessThanOrEqual(2);
    }
    expect(await drawn()).toBeGreaterThanOrEqual(3);
    await bench.go('Song');
    await expect.poll(open).toBe(0);
  });
});
