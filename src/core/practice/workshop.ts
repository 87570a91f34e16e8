import { bar, box, disc, type Canvas, type Paint, type Rgb } from './canvas';
import { seeded } from '../random';
import { smoothNoise } from './noise';

const plaster = smoothNoise(11);
const grain = smoothNoise(23);

const wall: Paint = (x, y) => {
  const blotch = 7 * plaster(x / 34, y / 34) + 5 * plaster(x / 9, y / 9) + 3 * plaster(x / 3.5, y / 3.5);
  const light = 14 * Math.exp(-(((x - 250) / 330) ** 2) - ((y - 180) / 260) ** 2);
  return [178 + blotch + light, 163 + blotch + light, 138 + blotch * 0.9 + light * 0.7];
};
const floor: Paint = (x, y) => {
  const depth = (y - 500) / 220;
  const plank = Math.floor((x - 640) / (70 + 60 * depth) + 100);
  const tone = ((plank * 37) % 11) - 5 + 7 * grain(x / 60, y / 4) + 4 * grain(x / 14, y / 3);
  return [126 + tone, 106 + tone, 82 + tone * 0.8];
};
/** The tone of wood, along its grain. */
export const wood =
  ([r, g, b]: Rgb): Paint =>
  (x, y) => {
    const tone = 9 * grain(x / 40, y / 3) + 5 * grain(x / 8, y / 2);
    return [r + tone, g + tone, b + tone];
  };

/** The bicycle workshop with nobody in it; 1280 × 720 stage units, with a rim for a camera that was knocked. */
export function drawWorkshop(canvas: Canvas): void {
  canvas.fill(box(-60, -60, 1400, 580), wall);
  canvas.fill(box(-60, 500, 1400, 290), floor);
  canvas.fill(box(-60, 490, 1400, 14), wood([96, 76, 56]));
  for (let plank = -9; plank < 10; plank++) {
    canvas.fill(bar(640 + plank * 72, 504, 640 + plank * 140, 780, 1.5, 3), [92, 76, 58], 0.8);
  }
  drawWindow(canvas);
  drawWheel(canvas, 1050, 190, 96);
  drawToolBoard(canvas);
  drawShelf(canvas);
  canvas.fill(bar(70, 700, 210, 430, 10), [58, 70, 62]);
  canvas.fill(bar(210, 430, 150, 700, 10), [58, 70, 62]);
  canvas.fill(disc(110, 690, 44, 40), [44, 40, 36]);
  canvas.fill(disc(110, 690, 36, 32), floor);
  canvas.shade(640, 668, 330, 34, 0.35);
}

/** The bench stands in front of whoever works behind it. */
export function drawBench(canvas: Canvas): void {
  canvas.fill(box(380, 455, 520, 34), wood([104, 78, 52]));
  canvas.fill(box(380, 489, 520, 8), wood([78, 58, 40]));
  canvas.fill(box(400, 497, 26, 180), wood([88, 66, 46]));
  canvas.fill(box(852, 497, 26, 180), wood([88, 66, 46]));
  canvas.fill(box(426, 600, 426, 18), wood([92, 70, 48]));
  canvas.fill(box(600, 428, 56, 27), [70, 78, 84]);
  canvas.fill(box(588, 418, 80, 12), [96, 104, 110]);
  canvas.fill(bar(628, 420, 628, 400, 8), [120, 126, 130]);
  canvas.fill(disc(720, 447, 14, 8), [150, 60, 42]);
  canvas.fill(box(770, 436, 34, 19), [60, 92, 96]);
}

function drawWindow(canvas: Canvas): void {
  canvas.fill(box(120, 90, 246, 206), wood([110, 98, 78]));
  canvas.fill(box(130, 100, 226, 186), (x, y) => {
    const cloud = 7 * plaster(x / 50, y / 40);
    return [206 + cloud, 218 + cloud, 222 + cloud];
  });
  canvas.fill(box(238, 100, 10, 186), wood([110, 98, 78]));
  canvas.fill(box(130, 188, 226, 10), wood([110, 98, 78]));
  canvas.fill(box(106, 292, 274, 14), wood([124, 108, 84]));
  canvas.fill(box(150, 262, 22, 30), [146, 74, 50]);
  canvas.fill(disc(161, 244, 26, 22), [74, 104, 62]);
}

/** A wheel by its middle. @param turn radians */
export function drawWheel(canvas: Canvas, cx: number, cy: number, radius: number, turn = 0): void {
  const ring = (r: number, width: number, paint: Rgb) => {
    const inner = disc(cx, cy, r - width, r - width, 64).reverse();
    canvas.fill(
      [...disc(cx, cy, r, r, 64), [cx + r, cy], [cx + r - width, cy], ...inner, [cx + r - width, cy]],
      paint,
    );
  };
  for (let spoke = 0; spoke < 18; spoke++) {
    const angle = turn + (spoke / 18) * 2 * Math.PI;
    canvas.fill(
      bar(cx, cy, cx + (radius - 8) * Math.cos(angle), cy + (radius - 8) * Math.sin(angle), 1.6),
      [88, 80, 70],
    );
  }
  ring(radius, 11, [52, 46, 42]);
  ring(radius - 11, 5, [150, 148, 142]);
  canvas.fill(disc(cx, cy, 11), [96, 92, 86]);
  canvas.fill(disc(cx, cy, 4), [40, 36, 34]);
}

function drawToolBoard(canvas: Canvas): void {
  const next = seeded(5);
  canvas.fill(box(470, 120, 360, 190), wood([146, 120, 84]));
  for (let row = 0; row < 3; row++) {
    for (let column = 0; column < 12; column++) {
      const x = 490 + column * 29;
      const y = 138 + row * 60;
      const length = 22 + next() * 26;
      const tint: Rgb =
        next() < 0.3 ? [150 * next() + 60, 70, 50] : [90 + 40 * next(), 94 + 36 * next(), 98 + 30 * next()];
      canvas.fill(box(x - 1, y - 6, 6, 5), [60, 52, 44]);
      canvas.fill(bar(x + 2, y, x + 2 + (next() - 0.5) * 8, y + length, 4 + next() * 5), tint);
      if (next() < 0.5) canvas.fill(disc(x + 2, y + 2, 6 + next() * 3), tint);
    }
  }
}

function drawShelf(canvas: Canvas): void {
  const next = seeded(8);
  for (const y of [360, 430]) {
    for (let x = 950; x < 1200;) {
      const width = 18 + next() * 34;
      const height = 20 + next() * 30;
      canvas.fill(box(x, y - height, width, height), [90 + 110 * next(), 70 + 80 * next(), 50 + 70 * next()]);
      canvas.fill(box(x + 4, y - height * 0.6, width - 8, 5), [214, 204, 184], 0.8);
      x += width + 2 + next() * 8;
    }
    canvas.fill(box(940, y, 276, 9), wood([92, 72, 50]));
  }
}
