/** Trade words as a newcomer first meets them. Common practice, no published source. */
export const glossary = {
  'clean plate':
    'The set filmed with nobody in it, from the same place and in the same light. Whatever has to vanish is covered with it.',
  softness:
    'Over how many pixels one picture fades into the other at an edge; editors call it feather. A wider one hides a small difference of light and blurs what crosses it.',
  join: 'The line at which one take ends and the other begins in the same picture.',
  'spare picture':
    'Picture filmed beyond the edge of the frame that is delivered; editors call it overscan. Steadying, shaking and an upright cut use it up.',
  mask: 'A shape that says which part of a take is shown; a moving one, made for each frame, is called a matte.',
  handle: 'What a shot runs longer before and after, so that its cut can still be moved.',
} as const;

export type TradeWord = keyof typeof glossary;
