import type { Project } from '../model/records';
import { coverScale } from '../motion/edge-cover';
import { still } from '../motion/keyframes';
import { shakeAfter } from '../motion/shake';
import type { Node, Transform } from '../picture/node';
import { rowsOfWhole } from './explain-node';
import type { Step } from './recipe';

/** A shake of the whole picture, enlarged so far that no edge comes into sight; `scale` is how far. */
export type GroundShake = { transforms: Transform[]; scale: number };

/**
 * Shakes the whole picture after each of some hits.
 * @param hits frames
 * @param strength delivery pixels at the hit; 0 leaves it standing
 */
export function groundShake(
  { width, height }: Project,
  hits: readonly number[],
  strength: number,
): GroundShake {
  if (strength === 0 || hits.length === 0) return { transforms: [], scale: 1 };
  const { x, y } = shakeAfter(hits, strength, 1);
  const moves = x.map(({ value }, index) => ({ x: value, y: y[index].value, rotation: 0, scale: 1 }));
  const scale = coverScale(moves, { width, height });
  return {
    scale,
    transforms: [
      { is: 'move', size: { width, height }, x, y, rotation: still(0), scale: still(scale), undone: false },
    ],
  };
}

/** A shake in words; nothing where it stands still. */
export function tellShake(
  tree: Node,
  project: Project,
  { scale, transforms }: GroundShake,
  hits: readonly number[],
  strength: number,
): Step[] {
  if (transforms.length === 0) return [];
  return [
    {
      title: 'Over all of it',
      text: `Group everything, enlarge it to ${(100 * scale).toFixed(2)} % and shake it after each landing (frames ${hits.join(', ')}): by ${strength} px on the frame itself, less on each of the ten after it, every frame nearly the other way.`,
      rows: rowsOfWhole(tree, project),
    },
  ];
}
