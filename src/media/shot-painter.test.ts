import { describe, expect, it } from 'vitest';
import { painted } from '@/core/__tests__/scene';
import type { Point } from '@/core/geometry/size';
import { still } from '@/core/motion/keyframes';
import { groupOf, nodeOf, type Node } from '@/core/picture/node';
import { rgbaToYuv, yuvToRgba, type YuvImage } from '@/core/picture/planes';
import { psnr } from '@/core/picture/psnr';
import { paintFrame } from '@/core/picture/reference/paint';
import { ShotPainter } from './shot-painter';

const size = { width: 64, height: 36 };
const whole = { from: 0, until: 10 };
const picture = rgbaToYuv(painted(size, (x, y) => [60 + 2 * x, 90 + y, 120]));
const media = (id: string, more: Partial<Node> = {}) =>
  nodeOf({ id, name: id, ...whole, content: { is: 'media', media: id, size, time: still(0) }, ...more });
const tree = (more: Partial<Node>) => groupOf('shot', size, whole, [media('one'), media('two', more)]);
const footage = { at: async (id: string) => (id === 'gone' ? null : picture), release: () => undefined };

describe('painting frames of a shot', () => {
  it('paints what planes can, and what only the reference painter can, as the same light', async () => {
    const painter = new ShotPainter(footage, size);
    for (const more of [
      {},
      { blend: 'multiply' as const },
      { effects: [{ is: 'blur' as const, radius: still(2) }] },
    ]) {
      const given = yuvToRgba(await painter.paint(tree(more), 3));
      const exact = paintFrame(tree(more), 3, size, () => yuvToRgba(picture));
      expect(psnr(given, exact)).toBeGreaterThan(40);
    }
  });

  it('paints both as previews', async () => {
    const small = { width: 32, height: 18 };
    const painter = new ShotPainter(footage, size, small);
    const [plain, blended] = [
      await painter.paint(tree({}), 3),
      await painter.paint(tree({ blend: 'screen' }), 3),
    ];
    for (const one of [plain, blended]) expect([one.width, one.height]).toEqual([32, 18]);
  });

  it('paints on the processor where the card that was measured is gone', async () => {
    const cards = { plain: 'card', rest: 'card' } as const;
    for (const more of [{}, { blend: 'multiply' as const }]) {
      const [own, instead] = [
        await new ShotPainter(footage, size).paint(tree(more), 3),
        await new ShotPainter(footage, size, size, cards).paint(tree(more), 3),
      ];
      expect([...instead.y]).toEqual([...own.y]);
    }
  });

  it('lays grain over what is held alone, others in every frame, by whichever painter', async () => {
    const grain = { across: 64, luma: Array<number>(8).fill(4), chroma: 2, soft: 0 };
    const content = { is: 'media' as const, media: 'one', size, time: still(0.5), grain };
    for (const more of [{}, { blend: 'screen' as const }]) {
      const held = groupOf('shot', size, whole, [media('one', { ...more, content })]);
      const painter = new ShotPainter(footage, size);
      const planes = async (frame: number) => [...(await painter.paint(held, frame)).y];
      const [third, fourth, again] = [await planes(3), await planes(4), await planes(3)];
      expect(again).toEqual(third);
      const changes = third.map((code, at) => code - fourth[at]);
      const deviation = Math.hypot(...changes) / Math.sqrt(2 * changes.length);
      // 4 codes of full range are 3.4 of limited range.
      expect(deviation).toBeGreaterThan(3);
      expect(deviation).toBeLessThan(3.9);
      const runs = groupOf('shot', size, whole, [media('one', more)]);
      expect([...(await painter.paint(runs, 3)).y]).toEqual([...(await painter.paint(runs, 4)).y]);
    }
  });

  it('softens what is held alone, by pixels of its file', async () => {
    const edge = rgbaToYuv(painted(size, (x) => (x < 32 ? [40, 40, 40] : [200, 200, 200])));
    const sharp = { at: async () => edge, release: () => undefined };
    const content = { is: 'media' as const, media: 'one', size, time: still(0.5), softened: 3 };
    const held = groupOf('shot', size, whole, [media('one', { content })]);
    const row = [...(await new ShotPainter(sharp, size).paint(held, 3)).y].slice(0, size.width);
    const [dark, light] = [row[0], row[row.length - 1]];
    // One deviation beyond an edge a Gaussian leaves 15.9 % of the step.
    const beyond = (row[28] + row[29]) / 2;
    expect(Math.abs((beyond - dark) / (light - dark) - 0.159)).toBeLessThan(0.03);
    const runs = groupOf('shot', size, whole, [media('one')]);
    const plain = [...(await new ShotPainter(sharp, size).paint(runs, 3)).y];
    expect(plain[30]).toBe(plain[0]);
  });

  it('asks for pictures that are made between two, by whichever painter', async () => {
    const asked: (string | undefined)[] = [];
    const made = {
      at: async (_: string, __: number, between?: 'moves') => {
        asked.push(between);
        return picture;
      },
      release: () => undefined,
    };
    const content = { is: 'media' as const, media: 'one', size, time: still(0.5), between: 'moves' as const };
    const node = (more: Partial<Node>) =>
      groupOf('shot', size, whole, [
        media('two'),
        nodeOf({ id: 'a', name: 'a', ...whole, content, ...more }),
      ]);
    for (const more of [{ opacity: still(0.5) }, { blend: 'screen' as const }]) {
      asked.length = 0;
      await new ShotPainter(made, size).paint(node(more), 3);
      expect(asked.sort()).toEqual(['moves', undefined]);
    }
  });

  it('hides whoever is hidden in a file, on whichever way that is painted, and in no other file', async () => {
    const veils = [{ covers: 'face' as const, places: [{ time: 0, at: [0.5, 0.5] as Point, reach: 0.2 }] }];
    const content = { is: 'media' as const, media: 'two', size, time: still(0), veils };
    const detailed = rgbaToYuv(painted(size, (x, y) => ((x + y) % 2 ? [220, 220, 220] : [30, 30, 30])));
    const files = { at: async () => detailed, release: () => undefined };
    const cards = { plain: 'card', rest: 'card' } as const;
    const middle = 18 * 64 + 32;
    const step = ({ y }: YuvImage) => Math.abs(y[middle] - y[middle + 1]);
    for (const more of [{}, { blend: 'multiply' as const }, { opacity: still(1) }])
      for (const painters of [undefined, cards]) {
        const shown = (node: Node) =>
          new ShotPainter(files, size, size, painters).paint(groupOf('shot', size, whole, [node]), 3);
        const hidden = await shown(nodeOf({ id: 'a', name: 'a', ...whole, content, ...more }));
        const other = await shown(media('one', more));
        if (!('blend' in more)) expect(step(other)).toBeGreaterThan(150);
        expect(step(hidden)).toBeLessThan(4);
        expect(hidden.y[5]).toBe(other.y[5]);
      }
    expect(step(detailed)).toBeGreaterThan(150);
  });

  it('leaves out what is missing', async () => {
    const painter = new ShotPainter(footage, size);
    const gone = groupOf('shot', size, whole, [media('one'), media('gone')]);
    expect([...(await painter.paint(gone, 0)).y]).toEqual([...picture.y]);
    const blended = groupOf('shot', size, whole, [media('one'), media('gone', { blend: 'screen' })]);
    expect(psnr(yuvToRgba(await painter.paint(blended, 0)), yuvToRgba(picture))).toBeGreaterThan(40);
  });
});
