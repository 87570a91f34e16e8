/** What can hurt someone, by kind of work. Common cautions; local rules and licensed practice come first. */
export type CautionKind =
  'heights' | 'contact' | 'flashing' | 'matter' | 'outside' | 'lights' | 'rigging' | 'young' | 'alone';

/** The sentence that stands wherever cautions are shown. */
export const cautionNote =
  'Common cautions, not professional advice: local rules and licensed practice come first.';

/** Each caution in words that can be ticked before filming. Common practice, no published source. */
export const cautions: Record<CautionKind, { title: string; steps: readonly string[] }> = {
  heights: {
    title: 'Jumps, ladders, trampolines, furniture, roofs',
    steps: [
      'A spotter stands by',
      'The landing is clear and soft',
      'Nobody films this alone',
      'Nothing hard is near',
    ],
  },
  contact: {
    title: 'Contact and swung objects',
    steps: [
      'The blow aims to miss',
      'The object is soft, or there is none',
      'Rehearsed at half speed',
      'A stop word is agreed',
    ],
  },
  flashing: {
    title: 'Flashing light, on the set and in the film',
    steps: [
      'Everybody on the set was warned of flashing, for photosensitive epilepsy',
      'The film stays under the published flash limits',
      'There is a version without flashing',
    ],
  },
  matter: {
    title: 'Liquid, smoke, powder, glass, blades, fire',
    steps: [
      'Liquid and electricity are kept apart',
      'The room is ventilated',
      'Eyes and breath are protected',
      'Someone with a licence is there where one is required',
    ],
  },
  outside: {
    title: 'Streets, vehicles, drones, rooftops, other people',
    steps: ['Permission is given', 'Local law is known', 'People in frame have agreed'],
  },
  lights: {
    title: 'Lamps and stands',
    steps: [
      'Stands carry sandbags',
      'Cables are taped down',
      'Lamps are clear of cloth and cool before they are moved',
      'What hangs overhead has a second fixing',
    ],
  },
  rigging: {
    title: 'Line, wire and hidden weights',
    steps: ['Lines carry visible marks', 'Nobody stands under them'],
  },
  young: {
    title: 'Children and animals',
    steps: ['Their carers decide', 'Sessions are short'],
  },
  alone: {
    title: 'Long nights alone',
    steps: ['Breaks and water are planned', 'Someone knows where you are'],
  },
};
