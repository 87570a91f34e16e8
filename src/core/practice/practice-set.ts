import { chain, inPlace, placementMatrix, type Placement } from '../geometry/placement';
import { invertAffine, multiplyAffine, type Affine } from '../geometry/affine';
import type { RgbaImage } from '../picture/image';
import type { Size } from '../geometry/size';
import { expose, filmSize } from './camera';
import { bar, Canvas } from './canvas';
import { practiceSeam, type Disturbance } from './faults';
import { drawMechanic } from './mechanic';
import { worksAtVice, standsInPlace } from './performance';
import { drawBench, drawWorkshop } from './workshop';

/** Who is in front of the practice camera. */
export type PracticeRole = 'nobody' | 'works' | 'stands';

/**
 * Who plays a shot here: nobody in front of a plate, else the one and the other in turn.
 * @param before how many shots of the moment that are acted come before it
 */
export const practiceRoleOf = (what: string, before: number): PracticeRole => {
  if (what !== 'action') return 'nobody';
  return before % 2 === 0 ? 'works' : 'stands';
};

/** The margin round the drawn room, in stage units, for a camera that was knocked or travels. */
const margin = 24;

function drawCloth(canvas: Canvas, moved: number): void {
  const x = 1150 + moved;
  canvas.fill(bar(x - 6, 228, x + 64, 228, 5), [70, 58, 46]);
  canvas.fill(
    [
      [x, 230],
      [x + 58, 230],
      [x + 50, 330],
      [x + 62, 436],
      [x + 8, 440],
      [x + 2, 330],
    ],
    [152, 62, 58],
  );
  for (const fold of [14, 30, 44]) canvas.fill(bar(x + fold, 234, x + fold + 3, 434, 4), [120, 44, 44], 0.7);
}

/** Three passes of a moving mean come close to a lens's softness. */
function soften({ width, height, data }: Canvas, radius: number): void {
  const reach = Math.round(radius);
  if (reach < 1) return;
  const lineOf = (count: number, start: number, step: number) => {
    const line = new Float32Array(count);
    for (let at = 0; at < count; at++) {
      let sum = 0;
      for (let by = -reach; by <= reach; by++)
        sum += data[start + Math.min(count - 1, Math.max(0, at + by)) * step];
      line[at] = sum / (2 * reach + 1);
    }
    for (let at = 0; at < count; at++) data[start + at * step] = line[at];
  };
  for (let channel = 0; channel < 3; channel++) {
    for (let y = 0; y < height; y++) lineOf(width, y * width * 3 + channel, 3);
    for (let x = 0; x < width; x++) lineOf(height, x * 3 + channel, width * 3);
  }
}

/**
 * The demo's film set in front of a locked camera, drawn picture by picture. The room is drawn once, twice as fine,
 * and seen through the camera wherever that stands.
 */
export class PracticeSet {
  private readonly room: Canvas;
  private readonly fine: number;
  private seen: { key: string; canvas: Canvas } | null = null;

  constructor(
    private readonly size: Size = { width: 640, height: 360 },
    private readonly seed = 1,
  ) {
    this.fine = (2 * size.width) / filmSize.width;
    const [width, height] = [
      Math.round((filmSize.width + 2 * margin) * this.fine),
      Math.round((filmSize.height + 2 * margin) * this.fine),
    ];
    this.room = new Canvas(width, height, [
      this.fine,
      0,
      0,
      this.fine,
      margin * this.fine,
      margin * this.fine,
    ]);
    drawWorkshop(this.room);
  }

  /** Stage units to pixels of the picture. */
  private camera(placement: Placement): Affine {
    const shrink = this.size.width / filmSize.width;
    return multiplyAffine([shrink, 0, 0, shrink, 0, 0], placementMatrix(placement, filmSize));
  }

  /** The empty room as the camera sees it: four samples a pixel, each between its four neighbours. */
  private roomFrom(placement: Placement): Canvas {
    const { dx, dy, rotation, scale } = placement;
    const key = [dx, dy, rotation, scale].map((value) => value.toFixed(4)).join();
    if (this.seen?.key === key) return this.seen.canvas;
    const { width, height } = this.size;
    const canvas = new Canvas(width, height, this.camera(placement));
    const [a, b, c, d, e, f] = multiplyAffine(this.room.camera, invertAffine(canvas.camera));
    const source = this.room.data;
    const wide = this.room.width * 3;
    for (let y = 0, at = 0; y < height; y++) {
      for (let x = 0; x < width; x++, at += 3) {
        for (let part = 0; part < 4; part++) {
          const [px, py] = [x + 0.25 + 0.5 * (part & 1), y + 0.25 + 0.5 * (part >> 1)];
          const sx = a * px + c * py + e - 0.5;
          const sy = b * px + d * py + f - 0.5;
          const [ix, iy] = [Math.floor(sx), Math.floor(sy)];
          const [tx, ty] = [sx - ix, sy - iy];
          const from = iy * wide + ix * 3;
          for (let channel = 0; channel < 3; channel++) {
            const place = from + channel;
            const top = source[place] + (source[place + 3] - source[place]) * tx;
            const low = source[place + wide] + (source[place + wide + 3] - source[place + wide]) * tx;
            canvas.data[at + channel] += (top + (low - top) * ty) / 4;
          }
        }
      }
    }
    this.seen = { key, canvas };
    return canvas;
  }

  /**
   * One picture.
   * @param role who performs; `take` varies the performance a little
   * @param time seconds since the performer began
   * @param travel where a moving camera stands, when it is not locked
   */
  frame(
    role: PracticeRole,
    take: number,
    time: number,
    index: number,
    wrong: Disturbance,
    travel: Placement = inPlace,
  ): RgbaImage {
    const { dx, dy, rotation, scale } = wrong;
    const placement = chain(travel, { dx, dy, rotation, scale, agreement: 1 });
    const canvas = new Canvas(
      this.size.width,
      this.size.height,
      this.camera(placement),
      this.roomFrom(placement).data.slice(),
    );
    drawCloth(canvas, wrong.cloth);
    if (role !== 'nobody') {
      const pose = (role === 'works' ? worksAtVice : standsInPlace)(time, take);
      const by = role === 'works' ? wrong.walk : -wrong.walk;
      const moved = (point: [number, number]): [number, number] => [point[0] + by, point[1]];
      const stand = pose.x + by;
      if (wrong.shadow) {
        const seam = practiceSeam * filmSize.width;
        const way = role === 'works' ? 1 : -1;
        const over = seam + way * 90;
        canvas.fill(
          [
            [stand - way * 26, 652],
            [stand + way * 26, 652],
            [over + way * 20, 694],
            [over - way * 34, 704],
          ],
          [44, 36, 28],
          0.6,
        );
      }
      drawMechanic(canvas, {
        ...pose,
        x: stand,
        leftHand: moved(pose.leftHand),
        rightHand: moved(pose.rightHand),
      });
    }
    drawBench(canvas);
    soften(canvas, (wrong.blur * this.size.width) / filmSize.width);
    const light = wrong.stops || wrong.warmth;
    const bytes = expose(
      canvas,
      light ? [{ kind: 'light', stops: wrong.stops, warmth: wrong.warmth }] : [],
      index,
      this.seed,
    );
    const data = new Uint8ClampedArray(this.size.width * this.size.height * 4);
    for (let from = 0, to = 0; from < bytes.length; from += 3, to += 4) {
      data[to] = bytes[from];
      data[to + 1] = bytes[from + 1];
      data[to + 2] = bytes[from + 2];
      data[to + 3] = 255;
    }
    return { ...this.size, data };
  }
}
