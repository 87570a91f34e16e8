'use client';
import type { ReactNode } from 'react';
import { meanStep } from '@/core/footage/picture-times';
import type { Point } from '@/core/geometry/size';
import type { Moment } from '@/core/model/records';
import { fillOf, inOrder, tappedAt, tapsOf } from '@/core/model/slots';
import { secondsAt, type MediaNode } from '@/core/picture/node';
import { slotsInUse } from '@/core/recipes/built';
import type { Material } from '@/core/recipes/material';
import type { Recipe, Ruler, View } from '@/core/recipes/recipe';
import type { Slot } from '@/core/recipes/slots';
import { timeOfFrame } from '@/core/time/rate';
import { followNothing, followPoint, keepPerformer, keepWhoeverIsFound } from '@/store/commands/moments';
import { useServices } from '@/ui/bench-context';
import { Part } from '../station';
import type { TapMark } from './tap-pad';

type Tapped = {
  moment: Moment;
  recipe: Recipe;
  view: View;
  material: Material;
  takes: readonly MediaNode[];
  frame: number;
  ruler: Ruler;
  /** a point of the stage as a point of the picture, and the way back */
  pointAt: (pointed: Point) => Point;
  placeOf: (at: Point) => Point;
};

/** What a tap on the picture says of a moment: whom to keep, or where the followed point is. */
export function useTaps({ moment, recipe, view, material, takes, frame, ruler, pointAt, placeOf }: Tapped): {
  tap: ((pointed: Point) => void) | null;
  marks: TapMark[];
  label: string;
  part: ReactNode;
} {
  const { store, attempt } = useServices();
  const used = slotsInUse(moment, recipe);
  const kept = used.filter(({ keeps }) => keeps);
  const followed = used.find(({ follows }) => follows);
  const stepOf = (slot: string) => {
    const times = material.takes[slot]?.measure?.times;
    return times ? meanStep(times) : 0;
  };
  /** A tap is about the take that is looked at, or about the part that is tapped. */
  const keep = (pointed: Point) => {
    const at = pointAt(pointed);
    const slot = kept.find(({ key }) => key === view.alone)?.key ?? recipe.slotAt(at);
    const node = takes.find((one) => one.id === slot);
    if (!node || !slot) return;
    const time = secondsAt(node, Math.max(node.from, frame));
    void attempt(() => keepPerformer(store, moment.project, moment.id, slot, { time, at }));
  };
  const keptMarks = (): TapMark[] =>
    kept
      .filter(({ key }) => !view.alone || view.alone === key)
      .flatMap(({ key }) => {
        const node = takes.find((one) => one.id === key);
        const time = node && secondsAt(node, Math.max(node.from, frame));
        return tapsOf(fillOf(moment, key)).map((tap) => ({
          at: placeOf(tap.at),
          here: time !== undefined && Math.abs(tap.time - time) <= stepOf(key) / 2,
        }));
      });
  // What is tapped runs as it was filmed from its first picture on.
  const followedTime = (slot: string) => {
    const node = takes.find((one) => one.id === slot);
    return node && secondsAt(node, node.from) + timeOfFrame(ruler.project.rate, frame - node.from);
  };
  const follow = (slot: string) => (at: Point) => {
    const [time, step] = [followedTime(slot), stepOf(slot)];
    if (time === undefined || !step) return;
    void attempt(() => followPoint(store, moment.project, moment.id, slot, { time, at, step }));
  };
  const followedMarks = (slot: string): TapMark[] => {
    const taps = inOrder(tapsOf(fillOf(moment, slot)));
    const points = recipe.followed?.(moment, ruler, material) ?? taps;
    const time = followedTime(slot);
    const dots = taps.map(({ at }) => ({ at, here: false }));
    return time === undefined || points.length === 0
      ? dots
      : [...dots, { at: tappedAt(points, time), here: true }];
  };
  if (followed)
    return {
      tap: view.alone === followed.key ? follow(followed.key) : null,
      marks: followedMarks(followed.key),
      label: 'Tap the point that is followed',
      part: <Followed moment={moment} slot={followed} />,
    };
  return {
    tap: kept.length > 0 ? keep : null,
    marks: keptMarks(),
    label: 'Tap whom to keep',
    part: kept.length > 0 && <Kept moment={moment} kept={kept} />,
  };
}

/** Whom the moment keeps, and the way back to whom the bench finds. */
function Kept({ moment, kept }: { moment: Moment; kept: readonly Slot[] }) {
  const { store, attempt } = useServices();
  const count = (slot: string) => tapsOf(fillOf(moment, slot)).length;
  return (
    <Part title="Whom to keep">
      <p className="text-[12px] text-ink2">
        Tap a performer on the picture to say that this one is kept, and others after them; tap again to let
        them go.
        {kept.map(({ key, title }) => ` ${sayKept(title, count(key))}`)}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {kept
          .filter(({ key }) => count(key) > 0)
          .map(({ key, title }) => (
            <button
              key={key}
              type="button"
              className="knob"
              onClick={() => attempt(() => keepWhoeverIsFound(store, moment.project, moment.id, key))}
            >
              {title}: let the bench find them
            </button>
          ))}
      </div>
    </Part>
  );
}

/** Which point is held still, and the way to let it go. */
function Followed({ moment, slot }: { moment: Moment; slot: Slot }) {
  const { store, attempt } = useServices();
  const count = tapsOf(fillOf(moment, slot.key)).length;
  return (
    <Part title="What is followed">
      <p className="text-[12px] text-ink2">
        To hold a point still, an eye for one, tap it on one picture of “As filmed”: the bench finds it on the
        others. Where it loses it, tap it there again.{' '}
        {count === 0 ? 'Nothing is followed.' : `It was tapped on ${count === 1 ? 'one' : count} of them.`}
      </p>
      {count > 0 && (
        <button
          type="button"
          className="knob mt-1.5"
          onClick={() => attempt(() => followNothing(store, moment.project, moment.id, slot.key))}
        >
          Follow nothing
        </button>
      )}
    </Part>
  );
}

const sayKept = (title: string, tapped: number): string => {
  const name = title[0].toUpperCase() + title.slice(1);
  if (tapped === 0) return `${name}: whom the bench finds.`;
  return tapped === 1 ? `${name} is tapped.` : `${name}: ${tapped} are tapped.`;
};
