import type { Pose } from '@/core/practice/mechanic';
import { worksAtVice, standsInPlace } from '@/core/practice/performance';
import type { Fault } from '@/core/practice/camera';

/** One clip of the demo: who is in it, how long it runs and what goes wrong. */
export type Scene = {
  file: string;
  seconds: number;
  pose: ((time: number) => Pose) | null;
  faults: Fault[];
};

/** The first setup: the bench, wide; a plate at both ends and two takes of each role. */
export const scenes: Scene[] = [
  { file: 'bench-plate-start.mp4', seconds: 2, pose: null, faults: [] },
  { file: 'bench-left-1.mp4', seconds: 8, pose: (time) => worksAtVice(time, 0), faults: [] },
  {
    file: 'bench-left-2.mp4',
    seconds: 8,
    pose: (time) => worksAtVice(time, 1),
    faults: [{ kind: 'bump', at: 5.2, dx: 2.2, dy: 0.9, rotation: 0.03 }],
  },
  { file: 'bench-right-1.mp4', seconds: 8, pose: (time) => standsInPlace(time, 0), faults: [] },
  {
    file: 'bench-right-2.mp4',
    seconds: 8,
    pose: (time) => standsInPlace(time, 1),
    faults: [{ kind: 'light', stops: -0.34, warmth: 0.02 }],
  },
  { file: 'bench-plate-end.mp4', seconds: 2, pose: null, faults: [] },
];
