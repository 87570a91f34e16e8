import { describe, expect } from 'vitest';
import { demo, ffmpeg } from './support/ffmpeg';
import { songFilm } from './support/films';
import { test } from './support/test';

/** The demo's takes of the clone as a camera numbers them, in no order. */
const card = [
  'bench-right-1.mp4',
  'bench-left-2.mp4',
  'bench-plate-end.mp4',
  'bench-left-1.mp4',
  'bench-right-2.mp4',
  'bench-plate-start.mp4',
];
const encoded = ['-an', '-c:v', 'libx264', '-preset', 'ultrafast', '-pix_fmt', 'yuv420p'];
const scene = (source: string, path: string) =>
  ffmpeg('-f', 'lavfi', '-i', source, '-t', '2', ...encoded, path);

describe('a card, unsorted', () => {
  test('is sorted by what is in it and becomes a landed shot; what belongs nowhere stays open and is said', async ({
    open,
    file,
  }) => {
    card.forEach((name, index) => ffmpeg('-i', demo(name), '-c', 'copy', file(`C000${index + 1}.mp4`)));
    // Filmed into the bag, another wall, and the phone held upright.
    scene('color=c=0x050505:s=1280x720:r=24', file('C0007.mp4'));
    scene('mandelbrot=s=1280x720:r=24:end_scale=0.29', file('C0008.mp4'));
    ffmpeg('-i', demo('bench-left-1.mp4'), '-t', '2', '-vf', 'transpose=1', ...encoded, file('C0009.mp4'));
    const bench = await open({ seed: songFilm(), at: 'station=match' });
    await bench.bringIn(...Array.from({ length: 9 }, (_, index) => file(`C000${index + 1}.mp4`)));
    await bench.page.locator('[data-take="C0009"] img').waitFor();
    await bench.settled();
    const slots = (await bench.records()).flatMap((one) =>
      one.kind === 'take' ? [`${one.name} ${one.slot}`] : [],
    );
    expect(slots.sort()).toEqual([
      'C0001 right',
      'C0002 left',
      'C0003 plate',
      'C0004 left',
      'C0005 right',
      'C0006 plate',
      'C0007 null',
      'C0008 null',
      'C0009 null',
    ]);
    const open7to9 = await bench.finding('take.unsorted').allTextContents();
    expect(open7to9).toHaveLength(3);
    for (const words of [/C0007 is black/, /C0008 shows another place/, /C0009 has another size or shape/])
      expect(
        open7to9.some((text) => words.test(text)),
        String(words),
      ).toBe(true);
    await bench.page.getByRole('button', { name: /^Use this pair/ }).click();
    bench.actions++;
    await bench.arrived();
    await bench.settled();
    // Of two plates the one filmed before the takes is nearer to their light.
    await bench.choose('Clean plate', 'C0006');
    await bench.found('clone.join-hidden');
    await bench.go('Hand over');
    bench.actions++;
    await bench.render(file('shot.mov'));
    bench.landed();
  });

  test('without a clean plate gets one out of its takes, which the real plate agrees with', async ({
    open,
    file,
  }) => {
    const filmed = card.filter((name) => !name.includes('plate'));
    filmed.forEach((name, index) => ffmpeg('-i', demo(name), '-c', 'copy', file(`C000${index + 1}.mp4`)));
    ffmpeg('-i', demo('bench-plate-start.mp4'), '-c', 'copy', file('C0005.mp4'));
    const bench = await open({ seed: songFilm(), at: 'station=match' });
    await bench.bringIn(...filmed.map((_, index) => file(`C000${index + 1}.mp4`)));
    await bench.page.locator('[data-take="C0004"] img').waitFor();
    await bench.settled();
    const slots = async () =>
      (await bench.records())
        .flatMap((one) => (one.kind === 'take' && one.alive ? [`${one.name} ${one.slot}`] : []))
        .sort();
    expect(await slots()).toEqual(['C0001 null', 'C0002 null', 'C0003 null', 'C0004 null']);
    await bench.finding('setup.no-plate').getByRole('button').click();
    // Asked for once the store has it. Left in the middle, it is made all the same.
    await bench.finding('setup.no-plate').waitFor({ state: 'detached' });
    await bench.page.reload();
    await bench.arrived();

    await bench.page.locator('[data-take="Plate put together"] img').waitFor();
    await bench.settled();
    const sorted = ['C0001 right', 'C0002 left', 'C0003 left', 'C0004 right', 'Plate put together plate'];
    expect(await slots()).toEqual(sorted);
    expect(await bench.finding('take.made').textContent()).toMatch(/put together from 4 takes/);
    // Nothing of it differs from what the camera saw of the empty set, or this would not be a plate.
    await bench.bringIn(file('C0005.mp4'));
    await expect.poll(slots, { timeout: 120_000 }).toContain('C0005 plate');
    await bench.settled();
  });
});
