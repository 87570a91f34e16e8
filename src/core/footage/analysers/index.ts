import type { YuvMatrix } from '../../picture/planes';
import type { Analyser, Found, TakeShape } from './analyser';
import { camera } from './camera';
import { motion } from './motion';

/** Everything that is measured from the pictures of a take. */
export const analysers = { camera, motion };

export type AnalyserName = keyof typeof analysers;
type SmallOf<Name extends AnalyserName> =
  (typeof analysers)[Name] extends Analyser<infer Small> ? Small : never;

/** What some analysers found in one take. */
export type FoundBy = { [Name in AnalyserName]?: Found<SmallOf<Name>> };

/** The small part of what one analyser found, with its name. */
export type FoundValue = { [Name in AnalyserName]: { method: Name; small: SmallOf<Name> } }[AnalyserName];

/** What a take can lack: its decoded pictures, or what an analyser finds in them. */
export type TakePart = 'pictures' | AnalyserName;
/** All of them, the pictures first. */
export const takeParts: readonly TakePart[] = ['pictures', ...(Object.keys(analysers) as AnalyserName[])];

/** counted up whenever the same file would give other times, stills or proxies */
const picturesVersion = 4;

/** What a take's pictures are made from: its file, and how its colours are read where somebody chose that. */
export type TakeSource = { media: string; matrix?: YuvMatrix };

/** The key that a part of a take is kept under; it holds what it is made from. */
export const partKey = (part: TakePart, source: TakeSource): string =>
  part === 'pictures'
    ? `pictures-${picturesVersion}:${source.media}${source.matrix ? `~${source.matrix}` : ''}`
    : `${part}-${analysers[part].version}(${partKey('pictures', source)})`;

/** Some analysers at once over the pictures of one take. */
export function analyse(names: readonly AnalyserName[], shape: TakeShape) {
  const passes = names.map((name) => ({ name, pass: analysers[name].begin(shape) }));
  return {
    push: (luma: Uint8Array, time: number) => passes.forEach(({ pass }) => pass.push(luma, time)),
    finish: (): FoundBy => Object.fromEntries(passes.map(({ name, pass }) => [name, pass.finish()])),
  };
}
