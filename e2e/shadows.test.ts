import { describe, expect } from 'vitest';
import type { YuvImage } from '@/core/picture/planes';
import { addMoment } from '@/store/commands/plan';
import { setMoment } from '@/store/commands/moments';
import { setProject } from '@/store/commands/projects';
import { laySeconds } from '@/store/commands/song';
import { filmed, perSecond } from './support/composite';
import { decode } from './support/ffmpeg';
import { keysOf } from './support/hands';
import { seeded } from './support/seeds';
import { filmThrown } from './support/shadows';
import { test } from './support/test';

/** A clone over seconds 1 to 4, whose copy appears in the second one. */
const film = seeded(async (store, project) => {
  await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 }, megabits: 12 });
  await laySeconds(store, project);
  const id = await addMoment(store, project, 'clone', 1, 4);
  await setMoment(store, project, id, 'Place', { name: 'Lamp', lands: 2 });
});
/** a frame of the shot in which both are there */
const both = 2 * perSecond;
const size = [filmed.width, filmed.height] as const;
/** A part of a picture, in pixels: left, top, right, bottom. */
type Part = readonly [number, number, number, number];

/** The mean luma of a part of a picture, above black. */
function lumaIn({ y }: YuvImage, [left, top, right, bottom]: Part): number {
  let [sum, count] = [0, 0];
  for (let row = top; row < bottom; row++)
    for (let at = left; at < right; at++, count++) sum += y[row * filmed.width + at];
  return sum / count - 16;
}

describe('shadows that two copies throw on the set', () => {
  test('are found, told hard from soft, and kept; what the join would cut is said, and hidden by one press', async ({
    open,
    file,
  }) => {
    filmThrown(file('plate.mp4'), {});
    const hard = { from: 195, top: 150, bottom: 230, leaves: 0.6, fades: 0 };
    filmThrown(file('short.mp4'), { who: 'left', thrown: { ...hard, until: 270 } });
    filmThrown(file('long.mp4'), { who: 'left', thrown: { ...hard, until: 465 } });
    filmThrown(file('right.mp4'), {
      who: 'right',
      thrown: { from: 200, until: 290, top: 20, bottom: 100, leaves: 0.7, fades: 40 },
    });
    filmThrown(file('bare.mp4'), { who: 'right' });
    const bench = await open({ seed: await film, at: 'station=match' });
    const { page } = bench;
    const told = async (code: string) => (await bench.finding(code).allTextContents()).join('\n');
    await bench.bringIn(file('plate.mp4'), file('short.mp4'), file('right.mp4'));
    await bench.bringIn(file('long.mp4'), file('bare.mp4'));
    await bench.settled();
    await bench.choose('What Long is', 'left');
    await bench.choose('What Bare is', 'right');
    await bench.go('Build');
    await bench.choose('Take for the left', 'Short');
    await bench.choose('Take for the right', 'Right');
    await bench.settled();

    expect(await told('clone.shadow-kept')).toMatch(
      /In the left take a hard shadow falls to the right of them, over up to \d+ % of the picture\. It shows whole\.[\s\S]*In the right take a soft shadow falls to the left of them/,
    );
    for (const open of ['clone.cuts', 'clone.loses', 'clone.crossing', 'clone.join-shows'])
      expect(await bench.finding(open).count(), open).toBe(0);

    // One that reaches to the other’s place ends at the join.
    await bench.choose('Take for the left', 'Long');
    await bench.choose('Take for the right', 'Bare');
    await bench.settled();
    expect(await told('clone.shadow-cut')).toMatch(
      /^Fix In the left take a hard shadow .* The join cuts it in \d+ frames/,
    );
    await keysOf(bench).press(page.getByRole('button', { name: 'Hide the shadows' }));
    await bench.settled();
    expect(await bench.finding('clone.shadow-cut').count()).toBe(0);
    expect(await page.getByLabel('Their shadows on the set').textContent()).toBe('hidden');
    await page.reload();
    await bench.arrived();
    expect(await page.getByLabel('Their shadows on the set').textContent()).toBe('hidden');

    await bench.go('Hand over');
    await bench.type('Bits a second', '40');
    await bench.render(file('hidden.mov'));
    await page.getByRole('button', { name: /^Remove .*mov$/ }).click();
    await page.locator('[data-render]').waitFor({ state: 'detached' });
    await bench.go('Build');
    await bench.choose('Their shadows on the set', 'kept');
    await bench.choose('Take for the left', 'Short');
    await bench.choose('Take for the right', 'Right');
    await bench.go('Hand over');
    await bench.render(file('kept.mov'));
    const [hidden, kept] = ['hidden.mov', 'kept.mov'].map((name) => decode(file(name), ...size)[both]);
    const left = (part: Part) => lumaIn(kept, part) / lumaIn(hidden, part);
    const shadows = [left([205, 160, 260, 220]), left([235, 50, 255, 70])];
    console.info(
      `Under the shadows ${shadows.map((one) => one.toFixed(2)).join(' and ')} of the light is left.`,
    );
    // Filmed with 0.6 and 0.7 of it.
    shadows.forEach((one, index) => expect(Math.abs(one - [0.6, 0.7][index])).toBeLessThan(0.05));
    expect(Math.abs(left([300, 160, 322, 220]) - 1)).toBeLessThan(0.03);
  });
});
