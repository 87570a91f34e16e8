'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo } from 'react';
import { partKey } from '@/core/footage/take-parts';
import type { Moment, Take } from '@/core/model/records';
import { fillOf } from '@/core/model/slots';
import { recipeOf } from '@/core/recipes/built';
import type { Slot } from '@/core/recipes/slots';
import { barAndBeat, barStart, nextBar, timeOfBeat } from '@/core/time/grid';
import { comparisonOf, takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { CameraCurve, LightCurve, MovementCurve, type MovedTake } from './pair-curves';
import { plateHere } from './verdict';

/** A take of each of two slots. */
export type Pair = { first: Take; second: Take };

const dyes = ['--madder', '--woad'];

/** How the cameras of both takes stood, how bright they stayed and how much moves in them, one beside the other. */
export function PairCurves({
  moment,
  pair,
  slots,
  onPick,
}: {
  moment: Moment | null;
  pair: Pair;
  slots: readonly [Slot, Slot];
  /** told the seconds where a curve was pressed */
  onPick: (seconds: number) => void;
}) {
  const snapshot = useData((data) => data.snapshot);
  const { first, second } = pair;
  const takes = useMemo(
    () =>
      [first, second].flatMap((take, index) => {
        const measure = takeMeasure(snapshot, take);
        const comparison = comparisonOf(snapshot, take, plateHere(snapshot, moment, take));
        if (!measure || !comparison) return [];
        const { size, times } = measure;
        const { path, colour } = comparison;
        const light = colour?.light ?? [];
        return [{ name: take.name, path, light, size, last: times.last, dye: dyes[index] }];
      }),
    [snapshot, moment, first, second],
  );
  const moved = useMoved(pair);
  const last = Math.max(0, ...takes.map((take) => take.last));
  const bars = useBars(moment, pair, slots[0], last);
  if (takes.length === 0) return null;
  return (
    <div className="mt-3">
      <h3 className="font-semibold">How the camera stood</h3>
      <CameraCurve takes={takes} width={snapshot.project.width} onPick={onPick} />
      <h3 className="mt-2 font-semibold">How bright they stayed</h3>
      <LightCurve takes={takes} onPick={onPick} />
      {moved.length > 0 && (
        <>
          <h3 className="mt-2 font-semibold">How much moves</h3>
          <MovementCurve takes={moved} beats={bars} onPick={onPick} />
        </>
      )}
    </div>
  );
}

const none: readonly MovedTake[] = [];

/** What moves in each picture of both takes, as far as that was measured. */
function useMoved({ first, second }: Pair): readonly MovedTake[] {
  const { store } = useServices();
  const known = useLiveQuery(async () => {
    const all = await Promise.all(
      [first, second].map(async (take, index): Promise<MovedTake[]> => {
        const [moved, times] = await store.curves.bulkGet([
          partKey('motion', take),
          partKey('pictures', take),
        ]);
        return moved && times
          ? [{ name: take.name, dye: dyes[index], moved: moved.values, times: times.values }]
          : [];
      }),
    );
    return all.flat();
  }, [store, first, second]);
  return known ?? none;
}

/** The bars of the song over the seconds of a take, where it already fills its slot. */
function useBars(moment: Moment | null, { first }: Pair, slot: Slot, last: number) {
  const grid = useData((data) => data.snapshot.song?.grid ?? null);
  return useMemo(() => {
    const recipe = moment && recipeOf(moment);
    const fill = moment && fillOf(moment, slot.key);
    if (!grid || !recipe || !fill || fill.take !== first.id) return [];
    const shown = timeOfBeat(grid, recipe.showsFrom(moment, slot.key)) - fill.at;
    const bars: { at: number; text: string }[] = [];
    for (
      let beat = barStart(grid, recipe.showsFrom(moment, slot.key));
      bars.length < 64;
      beat = nextBar(grid, beat)
    ) {
      const at = timeOfBeat(grid, beat) - shown;
      if (at > last || beat >= grid.beats.length - 1) break;
      if (at >= 0) bars.push({ at, text: String(barAndBeat(grid, beat).bar) });
    }
    return bars;
  }, [grid, moment, first, slot, last]);
}
