import type { PairWeights } from '@/core/footage/pairs';
import type { Project } from '@/core/model/records';
import { change } from '../change';
import { newId, type Store } from '../db';

/** Fields that every record has. */
export const newRecord = (project: string, id = newId()) => {
  const now = Date.now();
  return { id, project, created: now, changed: now, alive: true };
};

/** A name that no project in use has: "My film", "My film 2". */
export async function freeName(store: Store, name: string): Promise<string> {
  const projects = await store.records.where({ kind: 'project' }).toArray();
  const taken = new Set(projects.flatMap((one) => (one.kind === 'project' && one.alive ? [one.name] : [])));
  for (let number = 2, free = name; ; free = `${name} ${number++}`) if (!taken.has(free)) return free;
}

/** A new project with the usual delivery; its id. Where its name is in use it gets a number. */
export async function createProject(store: Store, name: string, id = newId()): Promise<string> {
  const project: Project = {
    ...newRecord(id, id),
    kind: 'project',
    name: await freeName(store, name),
    width: 1280,
    height: 720,
    rate: { num: 24000, den: 1001 },
    container: 'mov',
    megabits: 16,
  };
  await change(store, id, 'New project', [{ create: project }]);
  return id;
}

/** Lays a project aside, with everything that is in it; it waits until it is brought back or emptied. */
export const removeProject = (store: Store, id: string) =>
  change(store, id, 'Project removed', [{ remove: id }]);

/** Brings a project back that was laid aside, as it was. */
export const restoreProject = (store: Store, id: string) =>
  change(store, id, 'Project brought back', [{ record: id, set: { alive: true } }]);

export const setProject = (store: Store, id: string, set: Partial<Project>) =>
  change(store, id, 'name' in set ? 'Rename the project' : 'What is handed over', [{ record: id, set }]);

/** How much a part of a pair's score counts. */
export const weighPairs = (store: Store, id: string, part: keyof PairWeights, weight: number) =>
  change(store, id, 'What counts for a pair', [{ record: id, set: { [`pairWeights.${part}`]: weight } }]);

/** Lengths in the other units. */
export const switchUnits = (store: Store, id: string) =>
  change(store, id, 'Centimetres or inches', ({ project }) => [
    { record: id, set: { units: project.units === 'imperial' ? 'metric' : 'imperial' } },
  ]);
