import type { Telling, Words } from '../../finding/words';
import { followWords } from '../follow-point';
import { lengthen } from '../length';
import { panelSlots } from './slots';

const panelOf = ({ slot }: Telling['facts']): string =>
  panelSlots.find(({ key }) => key === slot)?.title ?? '';

/** What {@link examineSplit} found, in words. */
export const splitWords = {
  'split.missing': ({ facts }) => `No take is chosen for the ${panelOf(facts)}. Choose one in the sentence.`,
  'split.never-lands': () =>
    'The last panel would come after the end, or before the first. Move its beat between them.',
  'split.lands': ({ measured }) => `All panels come on their beats, ${measured} from them at the most.`,
  'split.short': ({ facts, measured, allowed }) =>
    `The take of the ${panelOf(facts)} has ${measured} from there; the panel shows for ${allowed}. ${lengthen({ facts })}`,
  'split.soft': ({ facts, measured, allowed }) =>
    `The picture of the ${panelOf(facts)} is enlarged ${measured} (allowed ${allowed}), which costs sharpness. Cut the frame the other way, or film larger.`,
  'split.open': ({ measured }) =>
    `${measured} of the frame is in no panel and stays black. Draw the cuts up to each other, where that is not meant.`,
  'split.twice': ({ facts }) =>
    `${facts.panels} show the same pictures of one take. Let one begin later, or give it another take.`,
  'split.one-tap': (telling) => `In the ${panelOf(telling.facts)}: ${followWords['one-tap']()}`,
  'split.follows': (telling) => `In the ${panelOf(telling.facts)}: ${followWords.follows(telling)}`,
  'split.lost': (telling) => `In the ${panelOf(telling.facts)}: ${followWords.lost(telling)}`,
  'split.leaves': ({ facts, measured }) =>
    `What is followed in the ${panelOf(facts)} lies outside of it for ${measured}: its picture reaches no further, or it moves faster than the picture is pushed. Cut the frame otherwise, or follow something slower.`,
} satisfies Words;

export type SplitCode = keyof typeof splitWords;
