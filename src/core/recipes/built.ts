import type { Moment } from '../model/records';
import { clone } from './clone';
import type { MomentKind } from './films';
import type { Recipe } from './recipe';

/** The kinds that are also built here, by name. The others are planned. */
const built: Partial<Record<MomentKind, Recipe>> = { clone };

/** What a moment is at first: what most of them become. */
export const usualKind: MomentKind = 'clone';

/** The titles of the kinds that are built here. */
export const builtTitles = (): string[] => Object.values(built).map(({ title }) => title);

/** The recipe of a kind that is built here. */
export const usualRecipe: Recipe = clone;

/** How a moment is built; null where its kind is only planned so far. */
export const recipeOf = ({ recipe }: Moment): Recipe | null => built[recipe] ?? null;
