import { refuse } from '@/core/error';
import { fieldsBetween, fitStyle, nextLetter, styleOf, versionOf, withKept } from '@/core/keep/keep';
import { recordSchema, type AnyRecord, type Style } from '@/core/model/records';
import { calledOf } from '@/core/recipes/films';
import { recipeOf } from '@/core/recipes/built';
import { change } from '../change';
import type { Store, StoredRecord } from '../db';
import { momentOf } from './moments';
import { newRecord } from './projects';

/** Keeps a moment as it is built now, under the next letter. */
export const keepVersion = (store: Store, project: string, id: string) =>
  change(store, project, 'Keep this version', ({ moments, versions }) => {
    const moment = momentOf(moments, id);
    const names = versions.filter((one) => one.moment === id).map(({ name }) => name);
    const create = {
      ...newRecord(project),
      kind: 'version',
      moment: id,
      name: nextLetter(names),
      kept: versionOf(moment),
    };
    return [{ create: recordSchema.parse(create) as AnyRecord }];
  });

/** Builds a moment as one of its versions was; it stays where it lands now. */
export const takeVersion = (store: Store, project: string, id: string) =>
  change(store, project, 'Take a version', ({ moments, versions }) => {
    const version =
      versions.find((one) => one.id === id) ??
      refuse('gone', 'This version is no longer there. Undo brings it back.');
    const moment = momentOf(moments, version.moment);
    return [{ record: moment.id, set: fieldsBetween(moment, withKept(moment, version.kept)) }];
  });

/** Removes a version or a style. */
export const dropKept = (store: Store, project: string, id: string, label: string) =>
  change(store, project, label, [{ remove: id }]);

/** Keeps how a moment is built, for others of its kind. */
export const saveStyle = (store: Store, project: string, id: string) =>
  change(store, project, 'Save as a style', ({ moments, styles, project: { rate, width, height } }) => {
    const moment = momentOf(moments, id);
    const recipe = recipeOf(moment);
    if (!recipe) return refuse('unbuilt', `A ${calledOf(moment.recipe)} is not built here yet.`);
    const names = styles.filter((one) => one.recipe === moment.recipe).map(({ name }) => name);
    const name = names.includes(moment.name) ? `${moment.name} ${names.length + 1}` : moment.name;
    const create = {
      ...newRecord(project),
      kind: 'style',
      recipe: moment.recipe,
      name,
      kept: styleOf(moment, recipe),
      rate,
      width,
      height,
    };
    return [{ create: recordSchema.parse(create) as AnyRecord }];
  });

/** Builds a moment as a style says, fitted to this project's rate and shape. The style may be another project's. */
export const applyStyle = (store: Store, project: string, id: string, style: Style) =>
  change(store, project, 'Use a style', ({ moments, project: film }) => {
    const moment = momentOf(moments, id);
    const recipe = recipeOf(moment);
    if (!recipe || style.recipe !== moment.recipe)
      return refuse('kind', 'This style belongs to another kind of moment. Choose one of its own kind.');
    const kept = fitStyle(style.kept, style, film, recipe);
    return [{ record: id, set: fieldsBetween(moment, withKept(moment, kept)) }];
  });

/** The styles of a kind in every project of this browser, the newest first. */
export async function stylesOf(store: Store, recipe: string): Promise<Style[]> {
  const found = await store.records.where({ kind: 'style' }).toArray();
  return found
    .filter((one): one is StoredRecord & Style => one.kind === 'style' && one.alive && one.recipe === recipe)
    .sort((one, other) => other.created - one.created);
}
