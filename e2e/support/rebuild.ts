import { filesIn } from '@/core/picture/node';
import { timeOfBeat } from '@/core/time/grid';
import type { AnyRecord } from '@/core/model/records';
import type { Measure, Media } from '@/store/db';
import { framesOf, pictureOf } from '@/store/material';
import { arrange } from '@/store/arrange';
import { rulerOf, takeMeasure, type Snapshot } from '@/store/snapshot';

/** Builds a shot outside the browser from what the page stored, with typed arrays as plain lists. */
export function rebuild(raw: {
  records: AnyRecord[];
  measures: Measure[];
  media: { id: string; name: string }[];
}) {
  const arranged = arrange(raw.records);
  if (!arranged) throw new Error('There is no project.');
  const snapshot: Snapshot = {
    ...arranged,
    step: '',
    media: new Map(raw.media.map((one) => [one.id, one as Media])),
    measures: new Map(raw.measures.map((one) => [one.key, one])),
    halted: new Map(),
    renders: [],
    conflicts: [],
  };
  for (const measure of raw.measures) {
    if (measure.value.method === 'take-2')
      measure.value.take.times = Float64Array.from(measure.value.take.times);
  }
  const [moment] = snapshot.built;
  const ruler = rulerOf(snapshot);
  const built = pictureOf(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!ruler || !built || !frames) throw new Error('There is nothing to build.');
  const used = new Set(filesIn(built.tree));
  return {
    ...frames,
    beatTime: timeOfBeat(ruler.grid, moment.lands),
    tree: built.tree,
    media: snapshot.takes
      .filter((take) => used.has(take.media))
      .map((take) => ({
        id: take.media,
        name: snapshot.media.get(take.media)?.name ?? '',
        times: [...(takeMeasure(snapshot, take)?.times ?? [])],
      })),
  };
}
