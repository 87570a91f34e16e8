'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useMemo, useState } from 'react';
import { usualRegion, type Region } from '@/core/geometry/region';
import { partKey } from '@/core/footage/take-parts';
import type { Moment, Take } from '@/core/model/records';
import { fillOf } from '@/core/model/slots';
import { recipeOf } from '@/core/recipes/built';
import type { Slot } from '@/core/recipes/slots';
import { barAndBeat, barStart, beatOfTime, nextBar, timeOfBeat, type BeatGrid } from '@/core/time/grid';
import { comparisonOf, takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { Progress } from '@/ui/progress';
import { CameraCurve, LightCurve, MovementCurve, type MovedTake } from './pair-curves';
import { RegionPad } from './region-pad';
import { usePartMotion } from './use-part-motion';
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
        const { path, colour, repeat } = comparison;
        const light = colour?.light ?? [];
        const repeats = repeat !== undefined;
        return [{ name: take.name, path, light, size, last: times.last, dye: dyes[index], repeats }];
      }),
    [snapshot, moment, first, second],
  );
  const grid = useData((data) => data.snapshot.song?.grid ?? null);
  const [firstSlot, secondSlot] = slots;
  const songs = useMemo(
    () => [songOver(grid, moment, first, firstSlot), songOver(grid, moment, second, secondSlot)],
    [grid, moment, first, second, firstSlot, secondSlot],
  );
  const whole = useMoved(pair, songs);
  const [region, setRegion] = useState<Region | null>(null);
  const part = usePartMotion(first, second, region);
  const moved = useMemo(
    () =>
      region === null
        ? whole
        : [first, second].flatMap(({ name }, index): MovedTake[] => {
            const found = part.found[index];
            return found ? [{ name, dye: dyes[index], song: songs[index], ...found }] : [];
          }),
    [region, whole, part, first, second, songs],
  );
  const last = Math.max(0, ...takes.map((take) => take.last));
  const bars = useBars(songs[0], last);
  if (takes.length === 0) return null;
  return (
    <div className="mt-3">
      <h3 className="font-semibold">
        {takes.some(({ repeats }) => repeats)
          ? 'How far beside the plate’s move the camera was'
          : 'How the camera stood'}
      </h3>
      <CameraCurve takes={takes} width={snapshot.project.width} onPick={onPick} />
      <h3 className="mt-2 font-semibold">How bright they stayed</h3>
      <LightCurve takes={takes} onPick={onPick} />
      {whole.length > 0 && (
        <>
          <h3 className="mt-2 leading-[2.2] font-semibold">
            How much moves in{' '}
            <LiveChoice
              label="In which part of the picture"
              value={region ? 'part' : 'all'}
              options={[
                { value: 'all', text: 'all of the picture' },
                { value: 'part', text: 'a part that I draw' },
              ]}
              onChange={(value) => setRegion(value === 'part' ? usualRegion : null)}
            />
          </h3>
          {region && <RegionPad take={first} region={region} onChange={setRegion} />}
          {part.share !== null && <Progress label="Looking at this part" share={part.share} />}
          {moved.length > 0 && <MovementCurve takes={moved} beats={bars} onPick={onPick} />}
        </>
      )}
    </div>
  );
}

const none: readonly MovedTake[] = [];

/** What moves in each picture of both takes, as far as that was measured. @param songs over each of them */
function useMoved({ first, second }: Pair, songs: readonly MovedTake['song'][]): readonly MovedTake[] {
  const { store } = useServices();
  const curves = useLiveQuery(
    () =>
      Promise.all(
        [first, second].map((take) =>
          store.curves.bulkGet([partKey('motion', take), partKey('pictures', take)]),
        ),
      ),
    [store, first, second],
  );
  return useMemo(
    () =>
      curves?.flatMap(([moved, times], index): MovedTake[] => {
        const { name } = index === 0 ? first : second;
        const song = songs[index];
        return moved && times
          ? [{ name, dye: dyes[index], moved: moved.values, times: times.values, song }]
          : [];
      }) ?? none,
    [curves, first, second, songs],
  );
}

/** The song over a take, where that already fills its slot. */
function songOver(grid: BeatGrid | null, moment: Moment | null, take: Take, slot: Slot): MovedTake['song'] {
  const recipe = moment && recipeOf(moment);
  const fill = moment && fillOf(moment, slot.key);
  if (!grid || !recipe || !fill || fill.take !== take.id) return null;
  return { grid, shown: timeOfBeat(grid, recipe.showsFrom(moment, slot.key)) - fill.at };
}

/** The bars of the song over the seconds of a take. @param last second of it */
function useBars(song: MovedTake['song'], last: number) {
  return useMemo(() => {
    const bars: { at: number; text: string }[] = [];
    if (!song) return bars;
    const { grid, shown } = song;
    for (let beat = barStart(grid, beatOfTime(grid, shown)); bars.length < 64; beat = nextBar(grid, beat)) {
      const at = timeOfBeat(grid, beat) - shown;
      if (at > last || beat >= grid.beats.length - 1) break;
      if (at >= 0) bars.push({ at, text: String(barAndBeat(grid, beat).bar) });
    }
    return bars;
  }, [song, last]);
}
