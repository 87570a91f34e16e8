import { methodOf, type Answer, type Task } from '@/core/footage/task';
import type { Moment, Take } from '@/core/model/records';
import { fillOf, plateSlot } from '@/core/model/slots';
import { unmoved, type Affine } from '@/core/geometry/affine';
import { scaledTo } from '@/core/geometry/size';
import { matrixAt, type Node } from '@/core/picture/node';
import { recipeOf } from '@/core/recipes/built';
import type { ChosenTake, Material } from '@/core/recipes/material';
import { withLayersMoved, withWholeMoved } from '@/core/hand/move';
import { withLook } from '@/core/look/look';
import type { Anchor, Recipe, Ruler } from '@/core/recipes/recipe';
import { pathWorks, smoothableIn, smoothsCamera, withSmoothed } from '@/core/recipes/smoothing';
import { mayHold } from '@/core/recipes/held';
import { grainWorks, withGrain } from '@/core/recipes/held-grain';
import { softnessWorks, withSoftness } from '@/core/recipes/held-softness';
import { hiddenHere, hidesSomebody, veilWorks, withVeils } from '@/core/recipes/veils';
import { rememberedWith } from '@/core/remember';
import { plateOfMoment } from './plates';
import type { MeasureValue } from './db';
import { bodiesIn, comparisonOf, rulerOf, takeMeasure, type Snapshot } from './snapshot';

/** Work of a moment under the key that its answer has or will have. */
export type KeyedWork = { key: string; name: string; title: string; task: () => Task };

/** A moment that is built here, with its recipe and what turns its beats into frames. */
export type Buildable = { recipe: Recipe; ruler: Ruler };

const rulers = rememberedWith<Moment, Ruler>();

/** The ruler of one moment, whose frame may be pushed. */
function framed(moment: Moment, ruler: Ruler): Ruler {
  const { framing } = moment;
  if (!framing) return ruler;
  const push = { across: framing.across ?? 0, down: framing.down ?? 0 };
  return rulers(moment, [ruler], () => ({ ...ruler, project: { ...ruler.project, push } }));
}

/** How a moment is built; null while there are no beats, or where its kind is only planned. */
export function buildable(snapshot: Snapshot, moment: Moment): Buildable | null {
  const [recipe, ruler] = [recipeOf(moment), rulerOf(snapshot)];
  return recipe && ruler && { recipe, ruler: framed(moment, ruler) };
}

/** The take that fills a slot of a moment; a plate that nobody chose is the first of the moment's setup. */
export const takeIn = (snapshot: Snapshot, moment: Moment, slot: string): Take | null =>
  slot === plateSlot
    ? plateOfMoment(snapshot, moment)
    : (snapshot.takes.find(({ id }) => id === fillOf(moment, slot).take) ?? null);

function takesOf(snapshot: Snapshot, moment: Moment): Material['takes'] {
  const plate = plateOfMoment(snapshot, moment);
  const chosen = (take: Take | null): ChosenTake | null =>
    take && {
      take,
      measure: takeMeasure(snapshot, take),
      comparison: comparisonOf(snapshot, take, plate),
      bodies: bodiesIn(snapshot, take) ?? undefined,
    };
  const slots = recipeOf(moment)?.slots ?? [];
  return Object.fromEntries(slots.map(({ key }) => [key, chosen(takeIn(snapshot, moment, key))]));
}

/** What has to be solved for a moment as it stands; nothing while its takes are not measured. */
export const worksOf = (snapshot: Snapshot, moment: Moment): KeyedWork[] =>
  answersOf(snapshot, moment, takesOf(snapshot, moment)).works;

/** Answers count in shares of the frame: what they are solved at follows from its shape alone, and so do their keys. */
const solvedAt = 1920;
const atOneSize = (ruler: Ruler): Ruler => ({
  ...ruler,
  project: { ...ruler.project, ...scaledTo(ruler.project, solvedAt) },
});

function worksFrom(snapshot: Snapshot, moment: Moment, material: Material): KeyedWork[] {
  const able = buildable(snapshot, moment);
  if (!able) return [];
  const { recipe } = able;
  const ruler = atOneSize(able.ruler);
  const { takes } = material;
  const smoothable = smoothableIn(moment, recipe, takes);
  const holds = mayHold(recipe);
  const asksMore = holds || hidesSomebody(takes) || smoothsCamera(smoothable);
  const tree = asksMore ? recipe.build(moment, ruler, material) : null;
  const more = tree
    ? [
        ...veilWorks(hiddenHere(tree, takes)),
        ...pathWorks(tree, smoothable),
        ...(holds ? [...grainWorks(tree, takes), ...softnessWorks(tree, takes)] : []),
      ]
    : [];
  return [...recipe.works(moment, ruler, material), ...more].map(({ parts, is, ...work }) => ({
    ...work,
    key: `${methodOf[is]}:${moment.id}:${work.name}:${JSON.stringify(parts)}`,
  }));
}

const methods = new Set<string>(Object.values(methodOf));
const isAnswer = (value: MeasureValue): value is Answer => methods.has(value.method);

/** The last answers that there are, whatever they were solved from. */
function solvedOf(snapshot: Snapshot, moment: Moment): Record<string, Answer> {
  const out: Record<string, Answer> = {};
  for (const { key, subject, value } of snapshot.measures.values())
    if (subject === moment.id && isAnswer(value)) out[key.split(':')[2]] = value;
  return out;
}

/** as many works as may wait for one another, one after the other */
const deepest = 8;

/**
 * The works of a moment, which answers of theirs there are, and the last ones that there were. What one work asks may
 * follow from what another answered: that is the answer to what the moment asks now, whatever its versions ask.
 */
function answersOf(snapshot: Snapshot, moment: Moment, takes: Material['takes']) {
  const last = solvedOf(snapshot, moment);
  let solved: Record<string, Answer> = {};
  for (let round = 0; ; round++) {
    const works = worksFrom(snapshot, moment, { takes, solved: { ...last, ...solved } });
    const found = works.flatMap(({ key, name }) => {
      const value = snapshot.measures.get(key)?.value;
      return value && isAnswer(value) ? [[name, value] as const] : [];
    });
    const before = solved;
    solved = Object.fromEntries(found);
    if (round === deepest || found.every(([name, value]) => before[name] === value))
      return { last, works, solved };
  }
}

type Known = {
  material: Material;
  fresh: Material;
  waiting: boolean;
  /** what has no answer yet */
  lacking: readonly KeyedWork[];
};
const materials = rememberedWith<Moment, Known>();

/**
 * What a moment is built from. `solved` holds what was solved for something else meanwhile where `waiting` says that
 * the answer is still to come; `fresh` holds only answers that are of what is there now. Both stay the same objects
 * while nothing of it changes.
 */
export function materialOf(snapshot: Snapshot, moment: Moment): Known {
  const takes = takesOf(snapshot, moment);
  const filled = Object.entries(takes).flatMap(([slot, chosen]) =>
    chosen ? [slot, chosen.take, chosen.measure, chosen.comparison, chosen.bodies] : [slot],
  );
  return materials(moment, [rulerOf(snapshot), snapshot.measures, ...filled], () =>
    gather(snapshot, moment, takes),
  );
}

function gather(snapshot: Snapshot, moment: Moment, takes: Material['takes']): Known {
  const { last, works, solved } = answersOf(snapshot, moment, takes);
  const lacking = works.filter(({ key }) => !snapshot.measures.has(key));
  const asked = works.flatMap(({ name }) => (name in last ? [[name, last[name]] as const] : []));
  return {
    material: { takes, solved: { ...Object.fromEntries(asked), ...solved } },
    fresh: { takes, solved },
    waiting: lacking.length > 0,
    lacking,
  };
}

/** What a moment still waits for, and what ended without an answer, and why. */
export function awaitedOf(snapshot: Snapshot, moment: Moment) {
  const { lacking } = materialOf(snapshot, moment);
  return {
    missing: lacking.filter(({ key }) => !snapshot.halted.has(key)).map(({ title }) => title),
    ended: lacking.flatMap(({ key, title }) => {
      const reason = snapshot.halted.get(key)?.reason;
      if (!reason) return [];
      return [{ title, why: reason === 'cancelled' ? 'It was cancelled.' : reason.message }];
    }),
  };
}

type Built = {
  tree: Node;
  /** without its look */
  moved: Node;
  /** and without what moves all of it by hand */
  layered: Node;
};
const trees = rememberedWith<Moment, Built>();

/** The picture of a moment as it stands; null where it cannot be built. */
export function pictureOf(
  snapshot: Snapshot,
  moment: Moment,
): (Built & { material: Material; anchors: Anchor[] }) | null {
  const able = buildable(snapshot, moment);
  if (!able) return null;
  const { recipe, ruler } = able;
  const { material } = materialOf(snapshot, moment);
  const anchors = recipe.anchors(moment, ruler);
  const built = trees(moment, [ruler, material], () => {
    const veiled = withVeils(recipe.build(moment, ruler, material), material);
    const takes = smoothableIn(moment, recipe, material.takes);
    const evened = mayHold(recipe)
      ? withGrain(withSoftness(veiled, moment, material), moment, material)
      : veiled;
    const calm = withSmoothed(evened, { ...material, takes });
    const layered = withLayersMoved(calm, moment, anchors, ruler);
    const moved = withWholeMoved(layered, moment, anchors, ruler);
    return { layered, moved, tree: withLook(moved, moment, anchors, ruler) };
  });
  return { ...built, material, anchors };
}

/** How all of a moment's picture is moved by hand at a frame. */
export function movedAt(snapshot: Snapshot, moment: Moment, frame: number): Affine {
  const built = pictureOf(snapshot, moment);
  return built && built.moved !== built.layered ? matrixAt(built.moved, frame) : unmoved;
}

/** The first frame of a moment, that on which it lands, and the one after its last; null where it cannot be built. */
export function framesOf(
  snapshot: Snapshot,
  moment: Moment,
): { start: number; lands: number; end: number } | null {
  const able = buildable(snapshot, moment);
  if (!able) return null;
  const anchors = able.recipe.anchors(moment, able.ruler);
  const at = (name: string) => anchors.find((anchor) => anchor.name === name)?.frame;
  const start = at('start') ?? Math.min(...anchors.map(({ frame }) => frame));
  const lands = Math.max(start, at('lands') ?? start);
  return { start, lands, end: Math.max(start + 1, at('end') ?? lands) };
}
