import type { Words } from '../finding/words';

/** What a plan as a whole lacks, in words. */
export const planWords = {
  'plan.empty': () => 'Nothing is planned yet. Drag over some bars on the song to make the first moment.',
  'plan.no-setup': () =>
    'There is no setup yet: a camera, a lens, a light. Add one, and every moment says what it needs there.',
  'caution.open': ({ measured }) =>
    `${measured} of the cautions for this plan are not ticked yet. Read them before filming.`,
} satisfies Words;

export type PlanCode = keyof typeof planWords;
