import Papa from 'papaparse';
import { jumpOf } from '../footage/join-words';
import type { FoundJoin } from '../footage/found-joins';

/**
 * Where one take goes over into another, as CSV (RFC 4180): the first one's frame and seconds up to which it shows, the
 * second one's from which it does, pictures that the dissolve takes (1 for a cut), and how many times as much changes
 * there as from one picture to the next.
 * @param names of both takes
 */
export function writeJoinList(
  joins: readonly FoundJoin[],
  names: readonly [string, string],
  over: number,
): string {
  const fields = ['first take', 'frame', 'seconds', 'second take', 'frame', 'seconds', 'over', 'jump'];
  const data = joins.map((join) => [
    names[0],
    join.a,
    join.seconds[0].toFixed(4),
    names[1],
    join.b,
    join.seconds[1].toFixed(4),
    over,
    jumpOf(join).toFixed(2),
  ]);
  return Papa.unparse({ fields, data }) + '\r\n';
}
