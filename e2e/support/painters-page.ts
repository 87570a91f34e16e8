import { randomTree } from '@/core/__tests__/random-tree';
import { painted } from '@/core/__tests__/scene';
import { still } from '@/core/motion/keyframes';
import { blendModes, type BlendMode } from '@/core/picture/blend';
import { groupOf, nodeOf, type Effect } from '@/core/picture/node';
import { resizeYuv, rgbaToYuv, yuvToRgba } from '@/core/picture/planes';
import { psnr } from '@/core/picture/psnr';
import { paintFrame } from '@/core/picture/reference/paint';
import { Card } from '@/media/gpu/card';
import { Surfaces } from '@/media/gpu/surfaces';
import { tryPainters } from '@/media/painter-trial';

const size = { width: 96, height: 54 };
const pictures = {
  a: rgbaToYuv(painted(size, (x, y) => [(x * 5) % 256, (y * 9) % 256, ((x + y) * 4) % 256])),
  b: rgbaToYuv(painted(size, (x, y) => [200 - x, 40 + 3 * y, (x * y) % 200])),
  mask: rgbaToYuv(
    painted(size, (x, y) => ((x - 40) ** 2 + (y - 25) ** 2 < 400 ? [255, 255, 255] : [0, 0, 0])),
  ),
};
const yuvOf = (media: string) => pictures[media as keyof typeof pictures] ?? null;
const exactly = (seed: number) =>
  rgbaToYuv(paintFrame(randomTree(seed), seed % 20, size, (media) => yuvToRgba(yuvOf(media))));

/** How near the card comes to the reference painter, in dB, for pictures of some seeds. @param smaller painted at half size */
function compare(seeds: number[], smaller: boolean): number[] {
  const small = { width: size.width / 2, height: size.height / 2 };
  const card = new Card(size, smaller ? small : size);
  return seeds.map((seed) => {
    const given = card.paint(randomTree(seed), seed % 20, yuvOf);
    // What the delivery's chroma at half size loses, both lose.
    const exact = smaller ? resizeYuv(exactly(seed), small) : exactly(seed);
    return given ? psnr(yuvToRgba(given), yuvToRgba(exact)) : 0;
  });
}

/** A card that is lost before the second of three pictures: how near each comes to the reference painter. */
async function afterLoss(): Promise<{ near: number[]; opened: number }> {
  const all: Surfaces[] = [];
  const card = new Card(size, size, () => {
    const surfaces = Surfaces.open();
    if (surfaces) all.push(surfaces);
    return surfaces;
  });
  const near: number[] = [];
  for (const seed of [3, 4, 5]) {
    if (seed === 4) all[0].gl.getExtension('WEBGL_lose_context')?.loseContext();
    await new Promise(requestAnimationFrame);
    const given = card.paint(randomTree(seed), seed, yuvOf);
    near.push(given ? psnr(yuvToRgba(given), yuvToRgba(exactly(seed))) : 0);
  }
  return { near, opened: all.length };
}

/** The browser's own names of what it blends by. */
const canvasNames: Partial<Record<BlendMode, GlobalCompositeOperation>> = {
  normal: 'source-over',
  'colour-dodge': 'color-dodge',
  'colour-burn': 'color-burn',
};

/** A picture on the browser's own canvas. */
function canvasOf(picture: ReturnType<typeof yuvToRgba>) {
  const canvas = new OffscreenCanvas(size.width, size.height);
  const paper = canvas.getContext('2d') as OffscreenCanvasRenderingContext2D;
  const data = picture.data as Uint8ClampedArray<ArrayBuffer>;
  paper.putImageData(new ImageData(data, size.width, size.height), 0, 0);
  return { canvas, paper };
}

/** How near the card and the reference painter come to the browser's own filters, in dB. */
function filtered(): { filter: string; card: number; reference: number }[] {
  const as = (brightness: number, saturation: number, hue: number): Effect => ({
    is: 'colours',
    brightness: still(brightness),
    saturation: still(saturation),
    hue: still(hue),
  });
  const effects: Record<string, Effect> = {
    'brightness(1.3)': as(1.3, 1, 0),
    'saturate(1.6)': as(1, 1.6, 0),
    'saturate(0.3)': as(1, 0.3, 0),
    'hue-rotate(75deg)': as(1, 1, 75),
    'invert(0.4)': { is: 'negative', amount: still(0.4) },
  };
  const whole = yuvToRgba(pictures.a);
  return Object.entries(effects).map(([filter, effect]) => {
    const span = { from: 0, until: 1 };
    const content = { is: 'media' as const, media: 'a', size, time: still(0) };
    const node = nodeOf({ id: 'a', name: 'a', ...span, content, effects: [effect] });
    const tree = groupOf('all', size, span, [node]);
    const { canvas } = canvasOf(whole);
    const out = new OffscreenCanvas(size.width, size.height).getContext('2d');
    if (!out) throw new Error('There is no canvas.');
    out.filter = filter;
    out.drawImage(canvas, 0, 0);
    const own = { ...size, data: out.getImageData(0, 0, size.width, size.height).data };
    const onCard = new Card(size).paint(tree, 0, yuvOf);
    return {
      filter,
      reference: psnr(
        paintFrame(tree, 0, size, () => whole),
        own,
      ),
      card: onCard ? psnr(yuvToRgba(onCard), yuvToRgba(rgbaToYuv(own))) : 0,
    };
  });
}

/** By how many codes the browser's own canvas blends otherwise than the card and than the reference painter, at most. */
function beside(): { mode: string; card: number; reference: number }[] {
  const span = { from: 0, until: 1 };
  const [under, over] = [
    painted(size, (x, y) => [x * 2, y * 4, 128]),
    painted(size, (x, y) => [y * 4, 60, 255 - x * 2]),
  ];
  const given = { under: rgbaToYuv(under), over: rgbaToYuv(over) };
  const [a, b] = [yuvToRgba(given.under), yuvToRgba(given.over)];
  return (Object.keys(blendModes) as BlendMode[]).map((mode) => {
    const layer = (
      media: 'under' | 'over',
      more: { blend?: BlendMode; opacity?: ReturnType<typeof still> },
    ) =>
      nodeOf({
        id: media,
        name: media,
        ...span,
        content: { is: 'media', media, size, time: still(0) },
        ...more,
      });
    const tree = groupOf('all', size, span, [
      layer('under', {}),
      layer('over', { blend: mode, opacity: still(0.6) }),
    ]);
    const { paper } = canvasOf(a);
    paper.globalCompositeOperation = canvasNames[mode] ?? (mode as GlobalCompositeOperation);
    paper.globalAlpha = 0.6;
    paper.drawImage(canvasOf(b).canvas, 0, 0);
    const own = paper.getImageData(0, 0, size.width, size.height).data;
    const exact = paintFrame(tree, 0, size, (media) => (media === 'under' ? a : b)).data;
    const onCard = new Card(size).paint(tree, 0, (media) => given[media as keyof typeof given]);
    const told = rgbaToYuv({ ...size, data: own });
    const most = (one: ArrayLike<number>, other: ArrayLike<number>) =>
      Array.from(one).reduce((worst, value, at) => Math.max(worst, Math.abs(value - other[at])), 0);
    return { mode, card: onCard ? most(onCard.y, told.y) : 255, reference: most(exact, own) };
  });
}

Object.assign(window, { compare, afterLoss, beside, filtered, tryPainters });
