import { bar, box, disc, type Canvas, type Paint } from '@/core/practice/canvas';
import { smoothNoise } from '@/core/practice/noise';
import { wood } from '@/core/practice/workshop';

const rough = smoothNoise(31);

const bricks: Paint = (x, y) => {
  const row = Math.floor(y / 26);
  const along = x + (row % 2) * 34;
  const joint = y - row * 26 < 4 || along - Math.floor(along / 68) * 68 < 4;
  const tone = 10 * rough(x / 30, y / 20) + 5 * rough(x / 5, y / 5);
  return joint ? [170 + tone, 164 + tone, 152 + tone] : [156 + tone, 92 + tone, 72 + tone * 0.8];
};
const gravel: Paint = (x, y) => {
  const tone = 12 * rough(x / 7, y / 3) + 8 * rough(x / 60, y / 14);
  return [150 + tone, 146 + tone, 134 + tone];
};

/** The yard behind the workshop with nobody in it: a wall of bricks, a door, gravel, a stand for a wheel. */
export function drawYard(canvas: Canvas): void {
  canvas.fill(box(-60, -60, 1400, 580), bricks);
  canvas.fill(box(-60, 510, 1400, 280), gravel);
  canvas.fill(box(-60, 500, 1400, 14), [116, 110, 98]);
  canvas.fill(box(120, 150, 190, 356), wood([70, 96, 92]));
  canvas.fill(box(136, 168, 72, 150), [52, 74, 72]);
  canvas.fill(box(222, 168, 72, 150), [52, 74, 72]);
  canvas.fill(disc(286, 340, 8), [196, 178, 120]);
  canvas.fill(bar(880, 660, 930, 380, 14), [62, 66, 70]);
  canvas.fill(bar(980, 660, 930, 380, 14), [62, 66, 70]);
  canvas.shade(930, 664, 110, 22, 0.4);
}
