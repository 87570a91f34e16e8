import { allowed } from '../finding/allowed';
import { mixed, type Placement } from '../geometry/placement';
import { median } from '../statistics';

/** the agreement of a picture that is put where its neighbours stood, at the most */
const unplaced = 0.4;

/** True where a picture was found. */
export const isPlaced = ({ agreement }: Placement): boolean => agreement >= allowed.agreement;

/** share of the take's usual agreement from which on a picture beside one that cannot be placed is trusted again */
const trusted = 0.85;

/**
 * Which pictures stand where they were found. Whatever covers the set comes and goes: what fits less and less before
 * it is covered, and more and more afterwards, is drawn along by what covers it.
 */
function placedWell(track: readonly Placement[]): boolean[] {
  const placed = track.map(isPlaced);
  const enough = trusted * median(track.map(({ agreement }) => agreement));
  const doubt = (index: number, neighbour: number) => {
    if (placed[neighbour] === false && track[index].agreement < enough) placed[index] = false;
  };
  for (let index = 1; index < track.length; index++) doubt(index, index - 1);
  for (let index = track.length - 2; index >= 0; index--) doubt(index, index + 1);
  return placed.some(Boolean) ? placed : track.map(isPlaced);
}

/** Pictures that could not be placed, put where those round them stood; all stay where none could be. */
export function bridged(track: readonly Placement[]): Placement[] {
  const placed = placedWell(track);
  if (!placed.some(Boolean)) return [...track];
  return track.map((placement, index) => {
    if (placed[index]) return placement;
    const before = placed.lastIndexOf(true, index);
    const after = placed.indexOf(true, index);
    const [from, to] = [before < 0 ? after : before, after < 0 ? before : after];
    const share = from === to ? 0 : (index - from) / (to - from);
    const agreement = Math.min(placement.agreement, unplaced);
    return { ...mixed(track[from], track[to], share), agreement };
  });
}
