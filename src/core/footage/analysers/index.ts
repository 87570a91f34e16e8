import type { AnalyserName } from '../take-parts';
import type { Analyser, Found, TakeShape } from './analyser';
import { camera } from './camera';
import { white } from './white';
import { light } from './light';
import { motion } from './motion';

/** Everything that is measured from the pictures of a take. */
export const analysers = { camera, motion, light, white } satisfies Record<AnalyserName, Analyser<unknown>>;

type SmallOf<Name extends AnalyserName> =
  (typeof analysers)[Name] extends Analyser<infer Small> ? Small : never;

/** What some analysers found in one take. */
export type FoundBy = { [Name in AnalyserName]?: Found<SmallOf<Name>> };

/** The small part of what one analyser found, with its name. */
export type FoundValue = { [Name in AnalyserName]: { method: Name; small: SmallOf<Name> } }[AnalyserName];

/** Some analysers at once over the pictures of one take. */
export function analyse(names: readonly AnalyserName[], shape: TakeShape) {
  const passes = names.map((name) => ({ name, pass: analysers[name].begin(shape) }));
  return {
    push: (luma: Uint8Array, time: number) => passes.forEach(({ pass }) => pass.push(luma, time)),
    finish: (): FoundBy => Object.fromEntries(passes.map(({ name, pass }) => [name, pass.finish()])),
  };
}
