import type { Zone } from '@/core/model/plan-records';

/** Dyes of marks and copies, in the order in which they were made. */
export const markDyes = [
  'var(--cochineal)',
  'var(--woad)',
  'var(--lichen)',
  'var(--verdigris)',
  'var(--weld)',
];

export const zoneNames: Record<Zone['what'], string> = {
  copy: 'copy’s zone',
  seam: 'join',
  shared: 'shared object',
  moves: 'thing that moves',
  shadow: 'way shadows fall',
};

export const zoneDyes: Record<Exclude<Zone['what'], 'copy'>, string> = {
  seam: 'var(--saffron)',
  shared: 'var(--verdigris)',
  moves: 'var(--madder)',
  shadow: 'var(--lichen)',
};
