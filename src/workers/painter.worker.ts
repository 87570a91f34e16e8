import { expose, transfer } from 'comlink';
import type { Size } from '@/core/geometry/size';
import type { Node } from '@/core/picture/node';
import { yuvToRgba } from '@/core/picture/planes';
import type { Painters } from '@/core/picture/painters';
import { Footage, type Source } from '@/media/footage';
import { tryPainters } from '@/media/painter-trial';
import { ShotPainter } from '@/media/shot-painter';
import { plainErrors } from './plain-errors';

let footage: Footage | null = null;
let painter: ShotPainter | null = null;
let shown = '';

/** Takes the proxies that the next pictures come from; the same ones again cost nothing. */
async function useSources(sources: Source[], delivery: Size, stage: Size, painters: Painters): Promise<void> {
  const key = JSON.stringify([sources.map((source) => source.media), delivery, stage, painters]);
  if (key === shown) return;
  await footage?.close();
  painter?.close();
  footage = new Footage(sources, 90);
  painter = new ShotPainter(footage, delivery, stage, painters);
  shown = key;
}

async function rgbaOf(tree: Node, frame: number): Promise<ImageData> {
  if (!painter) throw { code: 'painter', message: 'The stage has no pictures yet. Choose takes first.' };
  const { data, width, height } = yuvToRgba(await painter.paint(tree, frame));
  return new ImageData(data as Uint8ClampedArray<ArrayBuffer>, width, height);
}

/** One frame of the shot as it will be, from proxies. */
async function paint(tree: Node, frame: number): Promise<ImageBitmap> {
  const bitmap = await createImageBitmap(await rgbaOf(tree, frame));
  return transfer(bitmap, [bitmap]);
}

/** How much two pictures differ in one frame: grey is equal, four times enlarged. */
async function paintDifference(one: Node, two: Node, frame: number): Promise<ImageBitmap> {
  const a = await rgbaOf(one, frame);
  const b = await rgbaOf(two, frame);
  for (let at = 0; at < a.data.length; at++)
    if (at % 4 !== 3) a.data[at] = 64 + 4 * Math.abs(a.data[at] - b.data[at]);
  const bitmap = await createImageBitmap(a);
  return transfer(bitmap, [bitmap]);
}

const api = plainErrors({ useSources, paint, paintDifference, tryPainters });
export type PainterApi = typeof api;
expose(api);
