import type { Framed } from '../geometry/size';
import type { Project } from '../model/records';
import { groupOf, outlineMatte, type Node } from '../picture/node';
import type { ChosenTake } from './material';
import { takeNode } from './take-node';

/**
 * The left half of one take beside the right half of another, as they would show in one frame.
 * @param until frames that it lasts
 * @param further seconds that the first is further than the second
 */
export function halvesOf(
  project: Project & Framed,
  [first, second]: readonly [ChosenTake | null, ChosenTake | null],
  until: number,
  further: number,
): Node {
  const { width, height } = project;
  const right: [number, number][] = [
    [width / 2, 0],
    [width, 0],
    [width, height],
    [width / 2, height],
  ];
  const span = { from: 0, until };
  return groupOf('halves', { width, height }, span, [
    ...takeNode(project, 'first', 'First', first, { ...span, at: Math.max(0, further) }),
    ...takeNode(
      project,
      'second',
      'Second',
      second,
      { ...span, at: Math.max(0, -further) },
      {
        mattes: [outlineMatte('parent', [{ frame: 0, rings: [right] }], 0)],
      },
    ),
  ]);
}
