import { bar, box, disc, type Canvas } from '@/core/practice/canvas';
import type { Pose } from '@/core/practice/mechanic';
import { drawMechanic } from '@/core/practice/mechanic';
import { smoothNoise } from '@/core/practice/noise';
import { worksAtVice, standsInPlace } from '@/core/practice/performance';
import { filmRate, filmSize, type Fault } from '@/core/practice/camera';
import { drawBench, drawWheel, drawWorkshop } from '@/core/practice/workshop';
import type { Size } from '@/core/geometry/size';
import type { Rate } from '@/core/time/rate';
import { drawYard } from './yard';

/** One clip of the demo: where and of whom, how long it runs and what goes wrong. */
export type Scene = {
  file: string;
  seconds: number;
  /** the empty place, which is drawn once for each way the camera stands */
  place: (canvas: Canvas) => void;
  /** what moves in it, at a second of the take */
  action: (canvas: Canvas, time: number) => void;
  faults: Fault[];
  /** as the film's, unless said otherwise */
  size?: Size;
  rate?: Rate;
  /** stage units in the upper left corner of the picture, and how large they are shown; unset shows all of them */
  closer?: { left: number; top: number; scale: number };
  /** one of so many pictures is lost on the way to the card */
  loses?: number;
};

const atBench = (pose: ((time: number) => Pose) | null): Pick<Scene, 'place' | 'action'> => ({
  place: drawWorkshop,
  action: (canvas, time) => {
    if (pose) drawMechanic(canvas, pose(time));
    drawBench(canvas);
  },
});

/**
 * Seconds of the takes of left and right at which their palms meet, on one frame of the film, the place in stage units,
 * and for how long and how far they then push each other to and fro.
 */
export const palms = {
  left: 109 / 23.976,
  right: 54 / 23.976,
  at: [640, 336],
  pushes: 1.2,
  far: 34,
} as const;

/** A pose whose one hand meets the other's palm. @param since seconds since they meet */
function meetsPalm(pose: Pose, side: 'left' | 'right', since: number): Pose {
  const hand = side === 'left' ? 'rightHand' : 'leftHand';
  const { at, pushes, far } = palms;
  const leaves = Math.min(1, Math.max(0, (since - pushes) / 0.5));
  const reach = since < 0 ? Math.max(0, 1 + since / 0.35) ** 2 : 1 - leaves ** 2 * (3 - 2 * leaves);
  const pushed = since > 0 && since < pushes ? far * Math.sin((2 * Math.PI * since) / pushes) : 0;
  const palm = [at[0] + pushed + (side === 'left' ? -10.5 : 10.5), at[1]];
  const [x, y] = pose[hand].map((own, axis) => own + (palm[axis] - own) * reach);
  return { ...pose, [hand]: [x, y] };
}

/** The first setup: the bench, wide; a plate at both ends and two takes of each role. */
const clones: Scene[] = [
  { file: 'bench-plate-start.mp4', seconds: 2, ...atBench(null), faults: [] },
  {
    file: 'bench-left-1.mp4',
    seconds: 8,
    ...atBench((time) => meetsPalm(worksAtVice(time, 0), 'left', time - palms.left)),
    faults: [],
  },
  {
    file: 'bench-left-2.mp4',
    seconds: 8,
    ...atBench((time) => worksAtVice(time, 1)),
    faults: [{ kind: 'bump', at: 5.2, dx: 2.2, dy: 0.9, rotation: 0.03 }],
  },
  {
    file: 'bench-right-1.mp4',
    seconds: 8,
    ...atBench((time) => meetsPalm(standsInPlace(time, 0), 'right', time - palms.right)),
    faults: [],
  },
  {
    file: 'bench-right-2.mp4',
    seconds: 8,
    ...atBench((time) => standsInPlace(time, 1)),
    faults: [{ kind: 'light', stops: -0.34, warmth: 0.02 }],
  },
  { file: 'bench-plate-end.mp4', seconds: 2, ...atBench(null), faults: [] },
];

/** Seconds of its take at which the powder begins to fall, and for which its edge crosses the frame. */
export const powder = { at: 0.5, seconds: 20 / 23.976 };
const dust = smoothNoise(41);

/** A sheet of tyre powder that falls from rest. */
function drawPowder(canvas: Canvas, time: number): void {
  const fallen = (since: number) => 720 * Math.max(0, since / powder.seconds) ** 2;
  const front = fallen(time - powder.at);
  const back = fallen(time - powder.at - 0.3);
  if (front <= 0 || back > 900) return;
  const grey = (x: number, y: number): [number, number, number] => {
    const tone = 14 * dust(x / 6, y / 9) + 10 * dust(x / 30, y / 60);
    return [196 + tone, 190 + tone, 178 + tone];
  };
  for (let x = -60; x < 1340; x += 20) {
    const ragged = 12 * dust(x / 40, 7.3);
    canvas.fill(box(x, back - 40 + ragged, 20, Math.max(0, front - back + 40)), grey, 0.82);
  }
}

const suitAfter: Pose['suit'] = [152, 50, 40];

/** The pose with the wheel, held from the first second on. */
function withWheel(time: number): Pose {
  const rises = Math.min(1, time / 0.8) ** 2;
  return {
    x: 300,
    lean: 3 * Math.sin(time * 1.3),
    head: -8,
    leftHand: [238, 470 - 60 * rises],
    rightHand: [362, 470 - 60 * rises],
    suit: [44, 84, 128],
  };
}

/** When her feet leave the floor, and how long they are in the air; stage units fall with `pull` a second squared. */
export const jump = { leaves: 1.2, seconds: 0.6, pull: 2800 };
export const drop = { from: 96, falls: 0.9 };

function jumps(time: number): Pose {
  const since = time - jump.leaves;
  const inAir = since > 0 && since < jump.seconds;
  const up = inAir ? (jump.pull / 2) * since * (jump.seconds - since) : 0;
  const reach = Math.min(1, Math.max(0, (time - 0.9) / 0.4)) * (inAir || since <= 0 ? 1 : 0.4);
  return {
    x: 300,
    lean: 0,
    head: 2,
    leftHand: [246, 460 - 190 * reach],
    rightHand: [354, 460 - 190 * reach],
    suit: suitAfter,
    up,
  };
}

/** Steps off something that stands out of the picture's way, and lands. */
function lands(time: number): Pose {
  const since = Math.max(0, time - drop.falls);
  const up = Math.max(0, drop.from - (jump.pull / 2) * since ** 2);
  return { x: 300, lean: 0, head: 0, leftHand: [250, 440], rightHand: [350, 440], suit: suitAfter, up };
}

/** The wheel on its stand: it is spun up, held, spun on, held. Radians. */
export const poses = [1.5, 3.5, 5.5];
function turned(time: number): number {
  let turn = 0;
  for (const [index, pose] of poses.entries()) {
    const from = index === 0 ? 0.2 : poses[index - 1] + 0.3;
    const share = Math.min(1, Math.max(0, (time - from) / (pose - from)));
    turn += 5.2 * share * share * (3 - 2 * share);
  }
  return turn;
}

/** Seconds at which her hand reaches under the patch. */
export const reaches = { from: 1.6, to: 2.6 };
const tin: (canvas: Canvas) => void = (canvas) => {
  canvas.fill(box(764, 424, 48, 31), [206, 164, 62]);
  canvas.fill(box(764, 434, 48, 7), [150, 44, 40]);
  canvas.fill(disc(788, 424, 24, 5), [226, 190, 96]);
};
function reachesOver(time: number): Pose {
  const share = Math.min(1, Math.max(0, Math.min(time - reaches.from, reaches.to + 0.6 - time) / 0.4));
  const pose = worksAtVice(time, 3);
  return {
    ...pose,
    x: pose.x + 150,
    leftHand: [pose.leftHand[0] + 150, pose.leftHand[1]],
    rightHand: [pose.rightHand[0] + 150 + 96 * share, pose.rightHand[1] - 14 * share],
  };
}

/** A clip for each of the other moments, and in each of them one thing that went wrong. */
const others: Scene[] = [
  {
    // The dust takes a third of a stop of the light.
    file: 'powder-falls.mp4',
    seconds: 3.4,
    place: drawWorkshop,
    action: (canvas, time) => {
      drawMechanic(canvas, { ...standsInPlace(time + 1.8, 0), suit: suitAfter });
      drawBench(canvas);
      drawPowder(canvas, time);
    },
    faults: [{ kind: 'light', stops: -0.33, warmth: 0 }],
  },
  {
    // A phone that loses every seventh picture.
    file: 'wheel-pose.mp4',
    seconds: 2.6,
    place: drawWorkshop,
    action: (canvas, time) => {
      const pose = withWheel(time);
      drawBench(canvas);
      drawMechanic(canvas, pose);
      drawWheel(canvas, pose.x + pose.lean, pose.leftHand[1], 66);
    },
    faults: [],
    loses: 7,
  },
  {
    // Stopped too soon.
    file: 'yard-arrives.mp4',
    seconds: 1.9,
    place: drawYard,
    action: (canvas, time) => {
      drawWheel(canvas, 930, 380, 110);
      const pose = standsInPlace(time, 2);
      drawMechanic(canvas, {
        ...pose,
        x: pose.x - 280,
        leftHand: [pose.leftHand[0] - 280, pose.leftHand[1]],
        rightHand: [pose.rightHand[0] - 280, pose.rightHand[1]],
      });
    },
    faults: [],
  },
  {
    // Filmed at the film's own rate, which has too few pictures for a slow pose.
    file: 'wheel-spin.mp4',
    seconds: 7,
    place: drawYard,
    action: (canvas, time) => drawWheel(canvas, 930, 380, 110, turned(time)),
    faults: [],
  },
  {
    // Held upright, and small.
    file: 'hands-upright.mp4',
    seconds: 3,
    ...atBench((time) => worksAtVice(time, 4)),
    size: { width: 360, height: 640 },
    closer: { left: 380, top: 120, scale: 1 },
    faults: [],
  },
  { file: 'leap-up.mp4', seconds: 2.4, ...atBench(jumps), faults: [] },
  {
    // The floor gives as she lands, and the tripod with it.
    file: 'leap-down.mp4',
    seconds: 3.2,
    ...atBench(lands),
    faults: [{ kind: 'bump', at: 1.16, dx: 0.9, dy: 0.6, rotation: 0 }],
  },
  {
    // Her hand reaches under the patch before it goes.
    file: 'tin-swap.mp4',
    seconds: 5,
    place: drawWorkshop,
    action: (canvas, time) => {
      drawMechanic(canvas, reachesOver(time));
      drawBench(canvas);
      tin(canvas);
      const { rightHand } = reachesOver(time);
      if (time > reaches.from && time < reaches.to + 0.6)
        canvas.fill(
          bar(rightHand[0] - 40, rightHand[1] - 18, rightHand[0], rightHand[1], 17, 14),
          [196, 150, 116],
        );
    },
    faults: [],
  },
];

export const scenes: Scene[] = [...clones, ...others];

/** The size and rate of a scene. */
export const formOf = ({ size = filmSize, rate = filmRate }: Scene): { size: Size; rate: Rate } => ({
  size,
  rate,
});
