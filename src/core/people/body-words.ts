import type { Telling, Words } from '../finding/words';

/** What of a gap is more than allowed: "has eyes 12 cm higher and a body 8 % larger than in Right 1". */
function gap({ facts, metres }: Telling, than: string): string {
  const { higher, larger } = facts;
  const said = [
    ...(higher === undefined ? [] : [`eyes ${metres('off')} ${Number(higher) > 0 ? 'higher' : 'lower'}`]),
    ...(larger === undefined
      ? []
      : [
          `a body ${Math.round(100 * Math.abs(Number(larger) - 1))} % ${Number(larger) > 1 ? 'larger' : 'smaller'}`,
        ]),
  ];
  return `has ${said.join(' and ')} ${than}`;
}

/** What people's places in their takes are found to be, in words. */
export const bodyWords = {
  'people.level': ({ take, facts, measured, allowed: most }) =>
    `The eyes in ${take} and ${facts.other} are at one height (${measured} apart, allowed ${most}), and both are of one size.`,
  'people.apart': (telling) =>
    `Whoever stands in ${telling.take} ${gap(telling, `than in ${telling.facts.other}`)}. Where they touch or look at each other, that shows: choose another pair, or film one again at the same distance, on a block if need be.`,
  'people.unseen': ({ take }) =>
    `Nobody's eyes are found in ${take}, so their height is not compared: somebody drawn, turned away or very small is not found. Judge it by eye.`,
  'people.on-mark': ({ take, facts, measured }) =>
    `Whoever stands in ${take} stands as the mark “${facts.mark}” has it: eyes ${measured} off.`,
  'people.off-mark': (telling) =>
    `Whoever stands in ${telling.take} ${gap(telling, `than the mark “${telling.facts.mark}” has it`)}. Check where the mark lies and how tall it says they are, or stand on it again.`,
} satisfies Words;

export type BodyCode = keyof typeof bodyWords;
