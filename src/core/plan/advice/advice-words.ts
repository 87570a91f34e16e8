import type { Words } from '../../finding/words';

/** Advice about a plan, in words. */
export const adviceWords = {
  'style.kinds': ({ facts, measured, allowed }) =>
    `${measured} kinds of effect (advice: at most ${allowed}), ${facts.once} of them only once. A few that return make a style; many make a catalogue.`,
  'style.no-rest': ({ measured, beat }) =>
    `${measured} moments follow one another without a rest, ${beat('from')} to ${beat('until')}. Leave a bar where nothing happens.`,
  'style.too-calm': ({ facts, measured, allowed }) =>
    `${facts.section}: the song's energy is ${allowed}, the pictures bring ${measured}. Closer, handheld, more cuts, or a moment here.`,
  'style.too-wild': ({ facts, measured, allowed }) =>
    `${facts.section}: the song's energy is ${allowed}, the pictures bring ${measured}. Let something rest here.`,
  'style.story': ({ facts }) => `What does ${facts.name} add to the story? One line is enough.`,
  'coverage.none': () =>
    'No performance is planned for the film between the moments. Add full passes of the song, or there is nothing to cut to.',
  'coverage.few': ({ facts, measured, allowed }) =>
    `${facts.section} can be cut from ${measured} different picture${measured === '1' ? '' : 's'}; its energy asks for ${allowed}. Add another angle or size.`,
  'coverage.still': ({ facts }) =>
    `${facts.section} is loud, and nothing handheld or close is planned for it. Add a close, moving pass.`,
} satisfies Words;

export type AdviceCode = keyof typeof adviceWords;
