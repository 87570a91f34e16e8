import * as z from 'zod/mini';

const milliseconds = z.number().check(z.nonnegative());
/** how long one picture took each painter; null where there is no card, or it was not worth waiting for */
const pair = z.object({ processor: milliseconds, card: z.nullable(milliseconds) });

/** How fast this device's painters are, in milliseconds a picture. */
export const trialSchema = z.object({
  /** which trial it was */
  version: z.literal(1),
  /** what the browser calls the graphics card; null where there is none that can paint */
  name: z.nullable(z.string()),
  /** layers that are moved and masked, at the size of the stage */
  stage: pair,
  /** the same at 1920 × 1080 */
  whole: pair,
  /** what planes cannot hold (blending, blur), at the size of the stage */
  rest: pair,
});
export type PainterTrial = z.infer<typeof trialSchema>;

/** Who paints. */
type PaintedBy = keyof z.infer<typeof pair>;
/** Who paints what planes can hold, and who the rest. */
export type Painters = { plain: PaintedBy; rest: PaintedBy };

/** Before anything was measured: the processor, which every device has. */
export const untried: Painters = { plain: 'processor', rest: 'processor' };

/** a card that is not faster by this is left alone: it has to share itself with the page */
const worthIt = 0.8;

const faster = ({ processor, card }: PainterTrial['stage']): PaintedBy =>
  card !== null && card < processor * worthIt ? 'card' : 'processor';

/** Who paints the stage, or a render, on a device. */
export const chosenPainters = (trial: PainterTrial | null, use: 'stage' | 'whole'): Painters =>
  trial ? { plain: faster(trial[use]), rest: faster(trial.rest) } : untried;
