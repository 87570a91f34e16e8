import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import type { Telling, Words } from '../finding/words';

/** The standards that say how a picture's numbers become colours. */
const matrices: Record<string, string> = { bt601: 'BT.601', bt709: 'BT.709' };

/** What a take did, with the turn and the zoom that are not told by its shift: "Take 3 moved 2.4 px to the right". */
function movement({ take, facts, measured }: Telling): string {
  const [turn, zoom] = [Number(facts.turn), Number(facts.zoom)];
  const more = [
    ...(Math.abs(turn) >= 0.02
      ? [`turned ${Math.abs(turn).toFixed(2)}° ${turn > 0 ? 'clockwise' : 'anticlockwise'}`]
      : []),
    ...(Math.abs(zoom) >= 5e-4
      ? [`zoomed ${zoom > 0 ? 'in' : 'out'} by ${Math.abs(100 * zoom).toFixed(1)} %`]
      : []),
  ];
  return [`${take} moved ${measured} ${facts.direction}`, ...more].join(', ');
}

/** Pixels that a fix leaves. */
const left = ({ number }: Telling): string => `${number('left', 2)} px`;

/** "Take 3 repeats the plate's move 0.37 s later" */
function repeating({ take, facts }: Telling): string {
  const late = Number(facts.late);
  const when =
    Math.abs(late) < 0.005 ? '' : ` ${Math.abs(late).toFixed(2)} s ${late > 0 ? 'later' : 'earlier'}`;
  return `${take} repeats the plate's move${when}`;
}

/** "0.34 stop darker" */
const than = ({ measured, value }: Telling): string => `${measured} ${value < 0 ? 'darker' : 'brighter'}`;

/** A light that no one match can follow. */
const drift = ({ facts, number }: Telling): string =>
  Number(facts.drift) > 2 * allowed.stops
    ? ` Its light changes by ${number('drift', 2)} stop during the take, which no one match follows.`
    : '';

/** Why it is open what a take was filmed for, and what to do. */
const doubts: Record<string, (take: string) => string> = {
  dark: (take) => `${take} is black: nothing can be seen in it. Film it again, or take it out.`,
  blown: (take) => `${take} is burnt out: most of it is plain white. Film it again, or take it out.`,
  'one-picture': (take) =>
    `${take} is a single picture: whether anybody stands in it cannot be told. Say under it what it is, or film it again.`,
  'other-size': (take) =>
    `${take} has another size or shape than the clean plate. If it is for this moment, film or convert it like the plate; else say under its picture that it is not used.`,
  'other-place': (take) =>
    `${take} shows another place than the clean plate, or its camera moved. Say under its picture what it is, or choose the other plate.`,
  everywhere: (take) =>
    `In ${take} somebody walks on both sides of the frame. Say under its picture which role it is.`,
};

/** What takes are found to be, in words. */
export const takeWords = {
  'take.moved': (telling) =>
    `${movement(telling)}${telling.facts.during ? telling.at : ' against the plate'} (allowed ${telling.allowed}). The join will show. Steadying leaves ${left(telling)}.`,
  'take.soft': ({ take, measured, allowed: most, at }) =>
    `${take} is softer than its plate${at}, as if by a blur of ${measured} (allowed ${most}). Its focus was elsewhere, or it was shaken: a join with it shows. Film it again with the focus locked.`,
  'take.sharper': ({ take, measured, allowed: most, at }) =>
    `The clean plate is softer than ${take}${at}, as if by a blur of ${measured} (allowed ${most}). What shows of it beside that take looks out of focus: film the plate again with the focus locked, or choose another one.`,
  'take.steadied': (telling) =>
    `${movement(telling)}${telling.facts.during ? telling.at : ' against the plate'}; it is steadied, which leaves ${left(telling)} (allowed ${telling.allowed}).`,
  'take.steadied-in-part': (telling) =>
    `${movement(telling)}${telling.facts.during ? telling.at : ' against the plate'}; steadied, ${left(telling)} is left (allowed ${telling.allowed}). The join will show: film it again, or choose another part of it.`,
  'take.plate-moves': ({ take, measured, allowed }) =>
    `${measured} of ${take} changes while it runs (allowed ${allowed}): its camera moves, or its light, or somebody is in it. Takes are held against one picture of it, and will not fit. If the camera moves on purpose and each take repeats its move, say so; else film the empty set again from a tripod.`,
  'take.moves': ({ take }) =>
    `The camera of ${take} moves, and takes that repeat its move are held against it picture by picture.`,
  'take.repeats': (telling) =>
    `${repeating(telling)}: at most ${telling.measured} beside it (allowed ${telling.allowed}).`,
  'take.repeats-corrected': (telling) =>
    `${repeating(telling)}, up to ${telling.measured} beside it${telling.at}; it is corrected picture by picture, which leaves ${left(telling)} (allowed ${telling.allowed}).`,
  'take.repeats-in-part': (telling) =>
    `${repeating(telling)}, up to ${telling.measured} beside it${telling.at}; corrected picture by picture, ${left(telling)} is left (allowed ${telling.allowed}). The join will show: film it again, or choose another part of it.`,
  'take.repeats-beside': (telling) =>
    `${repeating(telling)}, up to ${telling.measured} beside it${telling.at} (allowed ${telling.allowed}). The join will show. Corrected picture by picture, ${left(telling)} is left.`,
  'take.repeats-loosely': (telling) =>
    `${telling.take} does not repeat the plate's move: its camera lies up to ${telling.measured} beside it${telling.at} (allowed ${telling.allowed}), and the plate would show where its picture ends. Film it again from the same marks and as fast, or take it out of the pair.`,
  'take.repeats-part': ({ take, measured }) =>
    `${take} goes ${measured} of the way that the plate’s camera goes. Show no more of it than that, or film it through to the end.`,
  'take.other-move': ({ take, measured, allowed }) =>
    `${take} does not repeat the plate's move: ${measured} of the picture fits (at least ${allowed} needed). Film it again from the same mark, the same way round, or take it out of the pair.`,
  'take.unplaced': ({ take, at, value }) =>
    `${take} cannot be held against the plate in ${value === 1 ? 'one picture' : `${value} pictures`}, first${at}: covered, dark or blurred. Its place there is taken from the pictures round them.`,
  'take.still': ({ take, measured, allowed }) =>
    `${take} stands still: at most ${measured} (allowed ${allowed}).`,
  'take.light': (telling) =>
    `${telling.take} is ${than(telling)} than the plate, ΔE ${telling.number('before')} (allowed ΔE ${allowed.difference}). The join will show.${drift(telling)} Matching leaves ΔE ${telling.number('after')}.`,
  'take.matched': (telling) =>
    `${telling.take} was ${than(telling)}, ΔE ${telling.number('before')}; it is matched to the plate, which leaves ΔE ${telling.number('after')} (allowed ΔE ${allowed.difference}).`,
  'take.matched-in-part': (telling) =>
    `${telling.take} was ${than(telling)}, ΔE ${telling.number('before')}; matched to the plate, ΔE ${telling.number('after')} is left (allowed ΔE ${allowed.difference}).${drift(telling)} The join will show: film it again in one light, or choose another part of it.`,
  'take.same-light': ({ take, measured, number }) =>
    `${take} has the plate's light: ${measured} apart, ΔE ${number('before')}.`,
  'take.colour-unknown': ({ take }) =>
    `Too little of ${take} is still for its light to be compared. Judge it by eye.`,
  'take.other-view': ({ take, measured, allowed }) =>
    `${take} does not show the plate's view: ${measured} of the picture fits (at least ${allowed} needed). Choose a plate from this setup, or take it out of the pair.`,
  'take.size': ({ take, facts }) =>
    `${take} is ${facts.size}, the plate ${facts.plate}. They cannot be laid on one another. ${facts.smaller ? 'If a phone’s gallery handed it over, it was made smaller on the way: choose the original there (“actual size”), or take it from the phone’s files or by cable. Else film or convert' : 'Film or convert'} both in one size.`,
  'take.cropped': ({ take, facts, measured }) =>
    `The film is ${facts.film}: ${measured} of ${take}’s ${facts.of} is cut off, half on each side. Keep everything inside the rest, or choose another shape in Hand over.`,
  'take.turned': ({ take, facts }) =>
    `${take} is turned by ${facts.degrees}° in its file; it is shown upright.`,
  'take.colours-assumed': ({ take, facts }) =>
    `${take} does not say how its colours are meant; they are read as ${matrices[facts.matrix]}, as browsers read pictures of its size. If they look wrong beside the others, read them the other way.`,
  'take.colours-chosen': ({ take, facts }) =>
    `${take} does not say how its colours are meant; they are read as ${matrices[facts.matrix]}, as chosen.`,
  'take.rate': ({ take, facts, number, measured }) =>
    `${take} runs at ${measured}, the film at ${number('film', 2)}: ${facts.lacks ? 'some of its pictures are shown twice' : 'some of its pictures are left out'}, unevenly, and slow movements stutter. Choose its rate for the film in Hand over, film at the film’s rate or twice that, or have pictures made between where a moment offers it. A phone’s gallery may also have changed it on the way: then choose the original.`,
  'take.varying-rate': ({ take, number }) =>
    `${take} was recorded at a varying rate, ${number('least')} to ${number('most')} pictures a second. Pictures are placed by their real times; set the camera to a fixed rate next time.`,
  'take.cut-off': ({ take, at }) =>
    `${take} breaks off${at}. What can be read is used; copy the file from the camera again for the rest.`,
  'take.made': ({ take, facts, value, measured }) =>
    `${take} was put together from ${facts.takes === 1 ? 'one take' : `${facts.takes} takes`}. ${value < 0.0005 ? 'It could be told everywhere which of their pictures show the set' : `In ${measured} of it that could not be told`}; whoever stood in one place through all of them is still in it. Look at it closely, and film the empty set when you can.`,
  'take.unsorted': ({ take, facts }) => doubts[String(facts.doubt)](take),
  'take.dark': ({ take, measured }) =>
    `Nothing can be seen in ${measured} of ${take}: it is black. Film it again, or choose another one.`,
  'take.blown': ({ take, measured, allowed }) =>
    `${measured} of the picture is burnt out in ${take} (allowed ${allowed}): there is nothing in it to hold against the plate, and no match brings it back. Close the aperture or lower the ISO.`,
  'take.flicker': ({ take, measured, allowed }) =>
    `The light of ${take} flickers by ${measured} (allowed ${allowed}), all of it at once or in bands, as lamps on the mains do. Beside a steady picture it shows: film with a shutter of 1/50 or 1/100 s at 50 Hz mains, 1/60 or 1/120 s at 60 Hz.`,
  'take.sketch': ({ take }) =>
    `${take} is a still that stands in for what is to be filmed. Build and time the moment with it, and choose the take once it is there.`,
  'take.plate-alone': ({ take, facts }) =>
    `None of ${facts.takes} takes shows the place of the clean plate, ${take}. If it is not the empty set, leave it out; else the camera of all of them stood elsewhere.`,
  'setup.no-plate': ({ setup, where }) =>
    `${where.setup ? `${setup} has` : 'There is'} no clean plate. Takes cannot be compared: bring one in, say which clip it is, or have one put together.`,
} satisfies Words;

export type TakeCode = keyof typeof takeWords;

/** True where something that was found only begins later in its take than at some seconds: before, all is well. */
export const beginsAfter = ({ where, facts }: Finding, seconds: number): boolean =>
  facts?.during === 1 && where.from !== undefined && where.from > seconds;

/** What is said of a take held against its plate; of no use where a kind lays nothing over one. */
export const againstPlate: readonly string[] = [
  'take.size',
  'take.plate-alone',
  'take.other-view',
  'take.moved',
  'take.steadied',
  'take.steadied-in-part',
  'take.repeats-corrected',
  'take.repeats-in-part',
  'take.repeats-beside',
  'take.repeats-loosely',
  'take.repeats-part',
  'take.other-move',
  'take.unplaced',
  'take.light',
  'take.matched',
  'take.matched-in-part',
  'take.colour-unknown',
] satisfies TakeCode[];
