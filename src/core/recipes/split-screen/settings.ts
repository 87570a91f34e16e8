import * as z from 'zod/mini';
import { framePoint } from '../../model/base';

export const mostPanels = 9;

export const splitSchema = z.object({
  panels: z.int().check(z.minimum(2), z.maximum(mostPanels)),
  /** how the frame is cut; unset is columns */
  cut: z.optional(z.enum(['columns', 'rows', 'grid'])),
  /** degrees that the cuts between columns or rows lean; unset is 0 */
  lean: z.optional(z.number().check(z.minimum(-30), z.maximum(30))),
  /** delivery pixels between two panels; unset is 8 */
  gutter: z.optional(z.number().check(z.minimum(0), z.maximum(200))),
  /** the outline of a panel in shares of the frame, by its slot, where it was drawn */
  drawn: z.optional(
    z.record(z.string(), z.nullable(z.array(framePoint).check(z.minLength(3), z.maxLength(200)))),
  ),
  /** how far each panel's picture is pushed aside, by its number: −100 to 100 % of what there is */
  pushed: z.optional(z.record(z.string(), z.number().check(z.minimum(-100), z.maximum(100)))),
});
type SplitSettings = z.infer<typeof splitSchema>;

export const emptySplit = { panels: 3, cut: 'columns', lean: 0, gutter: 8 } as const satisfies SplitSettings;

/** Settings with everything that was never said as it is at first. */
export const wholeSplit = (settings: SplitSettings) => ({
  ...emptySplit,
  pushed: {},
  drawn: {},
  ...settings,
});
