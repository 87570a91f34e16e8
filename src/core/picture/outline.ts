import type { Matte, Rings } from './node';

type Outline = Extract<Matte['shape'], { is: 'outline' }>;

const alike = (one: Rings, other: Rings): boolean =>
  one.length === other.length && one.every((ring, index) => ring.length === other[index].length);

/** True where a matte has its edge from the picture. */
export const isFitted = ({ shape }: Matte): boolean => shape.is === 'outline' && shape.fit !== undefined;

/**
 * The rings of an outline at a frame; before the first and after the last keyframe they stand. Rings that have as many
 * points as the next ones move to them evenly where they are to move.
 */
export function ringsAt({ keys, between }: Outline, frame: number): Rings {
  const index = Math.max(
    0,
    keys.findLastIndex((key) => key.frame <= frame),
  );
  const [now, next] = [keys[index], keys[index + 1]];
  if (!now) return [];
  if (between === 'holds' || !next || frame <= now.frame || !alike(now.rings, next.rings)) return now.rings;
  const share = (frame - now.frame) / (next.frame - now.frame);
  return now.rings.map((ring, which) =>
    ring.map(([x, y], point): [number, number] => {
      const [toX, toY] = next.rings[which][point];
      return [x + (toX - x) * share, y + (toY - y) * share];
    }),
  );
}
