'use client';
import type { ReactNode } from 'react';
import { meanStep } from '@/core/footage/picture-times';
import { mapPoint } from '@/core/geometry/affine';
import type { Point } from '@/core/geometry/size';
import type { Moment } from '@/core/model/records';
import { fillOf, inOrder, tappedAt, tapsOf } from '@/core/model/slots';
import { layerAt } from '@/core/picture/layer-at';
import { matrixAt, secondsAt, showsAt, type MediaNode } from '@/core/picture/node';
import { slotsInUse } from '@/core/recipes/built';
import { fileInFrame, frameInFile } from '@/core/recipes/cutouts';
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
  const followed = used.filter(({ follows }) => follows);
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
    const points = recipe.followed?.(moment, ruler, material, slot) ?? taps;
    const time = followedTime(slot);
    const dots = taps.map(({ at }) => ({ at, here: false }));
    return time === undefined || points.length === 0
      ? dots
      : [...dots, { at: tappedAt(points, time), here: true }];
  };
  // What is tapped on several layers is tapped where each of them shows; what fills the frame, as it was filmed.
  const inPlace = followed.filter(({ key }) => !recipe.views.some(({ alone }) => alone === key));
  const { project } = ruler;
  const followThere = (pointed: Point) => {
    const [x, y] = pointAt(pointed);
    const found = layerAt(takes, frame, [x * project.width, y * project.height]);
    const step = found && stepOf(found.layer.id);
    if (!found || !step || !inPlace.some(({ key }) => key === found.layer.id)) return;
    const { size } = found.layer.content;
    const [across, down] = found.inContent;
    const at = fileInFrame([across / size.width, down / size.height], size, project);
    const tap = { time: secondsAt(found.layer, frame), at, step };
    void attempt(() => followPoint(store, moment.project, moment.id, found.layer.id, tap));
  };
  const marksThere = (): TapMark[] =>
    inPlace.flatMap(({ key }) => {
      const node = takes.find((one) => one.id === key);
      const points = recipe.followed?.(moment, ruler, material, key) ?? [];
      if (!node || !showsAt(node, frame) || points.length === 0) return [];
      const at = tappedAt(points, secondsAt(node, frame));
      const [inFile] = frameInFile([at], node.content.size, project);
      const [x, y] = mapPoint(matrixAt(node, frame), inFile);
      return [{ at: placeOf([x / project.width, y / project.height]), here: true }];
    });
  if (followed.length > 0) {
    const alone = followed.find(({ key }) => key === view.alone);
    return {
      tap: alone ? follow(alone.key) : inPlace.length > 0 && !view.alone ? followThere : null,
      marks: alone || inPlace.length === 0 ? followedMarks((alone ?? followed[0]).key) : marksThere(),
      label: 'Tap the point that is followed',
      part: <Followed moment={moment} slots={followed} />,
    };
  }
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

/** Which points are followed, and the way to let them go. */
function Followed({ moment, slots }: { moment: Moment; slots: readonly Slot[] }) {
  const { store, attempt } = useServices();
  const count = (slot: string) => tapsOf(fillOf(moment, slot)).length;
  const tapped = slots.filter(({ key }) => count(key) > 0);
  return (
    <Part title="What is followed">
      <p className="text-[12px] text-ink2">
        {slots[0].follows}{' '}
        {tapped.length === 0
          ? 'Nothing is followed.'
          : tapped.map(({ key, title }) => sayTapped(title, count(key))).join(' ')}
      </p>
      <div className="mt-1.5 flex flex-wrap gap-1.5">
        {tapped.map(({ key, title }) => (
          <button
            key={key}
            type="button"
            className="knob"
            onClick={() => attempt(() => followNothing(store, moment.project, moment.id, key))}
          >
            {slots.length > 1 ? `${capital(title)}: follow nothing` : 'Follow nothing'}
          </button>
        ))}
      </div>
    </Part>
  );
}

const capital = (title: string): string => title[0].toUpperCase() + title.slice(1);

const sayTapped = (title: string, taps: number): string =>
  `${capital(title)}: tapped on ${taps === 1 ? 'one picture' : `${taps} pictures`}.`;

const sayKept = (title: string, tapped: number): string => {
  const name = capital(title);
  if (tapped === 0) return `${name}: whom the bench finds.`;
  return tapped === 1 ? `${name} is tapped.` : `${name}: ${tapped} are tapped.`;
};
