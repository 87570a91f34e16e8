import quickselect from 'quickselect';

/**
 * The value below which a share of some values lies: one of them, never between two.
 * @param values what is no number among them comes last
 * @param share 0..1
 * @returns 0 where there are none
 */
export function quantile(values: ArrayLike<number>, share: number): number {
  if (values.length === 0) return 0;
  const own: number[] = [];
  for (let at = 0; at < values.length; at++) if (values[at] === values[at]) own.push(values[at]);
  const place = Math.min(values.length - 1, Math.floor(values.length * share));
  if (place >= own.length) return NaN;
  quickselect(own, place);
  return own[place];
}

/** The value in the middle; the upper one of two. 0 where there are none. */
export const median = (values: ArrayLike<number>): number => quantile(values, 0.5);
