import { wholeLook } from '../look/schema';
import type { Moment } from '../model/records';
import { isHeld, mediaIn, type MediaNode, type Node } from '../picture/node';
import type { Recipe } from './recipe';

/** frames that a picture has to stand for that to be seen */
const noticed = 3;

/** A layer of which one picture stands, and the layer that runs beside it. */
export type Held = { node: MediaNode; runs: MediaNode | null };

const together = (one: Node, other: Node): boolean => one.from < other.until && other.from < one.until;

/** The layers of a picture that are held long enough for that to be seen. */
export function heldIn(tree: Node): Held[] {
  const layers = mediaIn(tree);
  return layers
    .filter((node) => isHeld(node) && node.until - node.from >= noticed)
    .map((node) => {
      const runs = layers.find((other) => !isHeld(other) && together(other, node));
      return { node, runs: runs ?? null };
    });
}

/** True where a moment's kind can hold a picture beside one that runs. */
export const mayHold = (recipe: Recipe): boolean => !!recipe.holds;

/** True where a moment's held pictures are to be as grainy and as soft as what runs beside them. */
export const isEvened = ({ look }: Moment): boolean => wholeLook(look).held === 'evened';

/** Layers as the subject of a sentence: "Clean plate is", "3 layers are". */
export const sayLayers = (names: readonly string[]): string =>
  names.length === 1 ? `${names[0]} is` : `${names.length} layers are`;
