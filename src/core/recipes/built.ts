import type { Words } from '../finding/words';
import type { Moment, Take } from '../model/records';
import { filmSlot, noSlot, plateSlot } from '../model/slots';
import { builtWhip } from './built-whip';
import { clone } from './clone';
import { clonePairs } from './clone/slots';
import { coverSwap } from './cover-swap';
import type { MomentKind } from './films';
import { freezeStack } from './freeze-stack';
import { ghostTrail } from './ghost-trail';
import { maskedReveal } from './masked-reveal';
import type { Pairs, Recipe } from './recipe';
import type { Slot } from './slots';
import { speedRamp } from './speed-ramp';
import { splitScreen } from './split-screen';
import { takeOff } from './take-off';

/** The kinds that are also built here, by name. The others are planned. */
const built: Partial<Record<MomentKind, Recipe>> = {
  clone,
  'masked-reveal': maskedReveal,
  'cover-swap': coverSwap,
  'freeze-stack': freezeStack,
  'take-off': takeOff,
  'built-whip': builtWhip,
  'speed-ramp': speedRamp,
  'split-screen': splitScreen,
  'ghost-trail': ghostTrail,
};
const recipes: readonly Recipe[] = Object.values(built);

/** What takes are that show nobody who was filmed for a moment. */
const ofNoShot: readonly (string | null)[] = [plateSlot, filmSlot, noSlot];

/** What a moment is at first: what most of them become. */
export const usualKind: MomentKind = 'clone';
export const usualRecipe: Recipe = clone;

/** What is paired where there is no moment, or one of a kind that is only planned. */
export const usualPairs: Pairs = clonePairs;

/** The takes that are joined in a moment; null where each stands by itself. */
export function pairsOf(moment: Moment | null): Pairs | null {
  const recipe = moment && recipeOf(moment);
  return recipe ? (recipe.pairs?.(moment) ?? null) : usualPairs;
}

/** The titles of the kinds that are built here. */
export const builtTitles = (): string[] => recipes.map(({ title }) => title);

/** The kinds that are built here. */
export const builtKinds = (): MomentKind[] => Object.keys(built) as MomentKind[];

/** How a moment is built; null where its kind is only planned so far. */
export const recipeOf = ({ recipe }: Moment): Recipe | null => built[recipe] ?? null;

/** The findings of all kinds that are built, in words. */
export const builtWords: readonly Words[] = recipes.map(({ words }) => words);

/** The slots that one moment uses, where its kind has more of them. */
export const slotsInUse = (moment: Moment, { slots, slotsIn }: Recipe): readonly Slot[] =>
  slotsIn?.(moment) ?? slots;

/** True where the takes of a kind are laid over a plate, and so have to fit each other. */
export const laysOverPlate = ({ slots }: Recipe): boolean => slots.some(({ key }) => key === plateSlot);

/**
 * The takes that could fill a slot: those filmed for it; where any take may, else all but the plates, those filmed for
 * the slot that it is paired with, and what is kept out.
 */
export function candidatesFor(takes: readonly Take[], { key, open }: Slot, paired: Slot): Take[] {
  const own = takes.filter(({ slot }) => slot === key);
  if (!open || own.length > 0) return own;
  return takes.filter(({ slot, sketch }) => !sketch && slot !== paired.key && !ofNoShot.includes(slot));
}

/** The slots whose takes are laid over a plate: those are held against it. */
export const slotsOverPlate: readonly Slot[] = [
  ...new Map(
    recipes.filter(laysOverPlate).flatMap(({ slots }) => slots.map((slot) => [slot.key, slot] as const)),
  ).values(),
];

/** True where takes of a slot are held against the plate. */
export const isOverPlate = (slot: string | null): boolean => slotsOverPlate.some(({ key }) => key === slot);

/** The slot that a file's name speaks of; null where it speaks of none. A slot that any take may fill needs no name. */
export const slotInName = (name: string): string | null =>
  slotsOverPlate.find(({ key, open }) => !open && new RegExp(`\\b${key}\\b`, 'i').test(name))?.key ?? null;
