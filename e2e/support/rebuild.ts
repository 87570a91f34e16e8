import { partKey } from '@/core/footage/take-parts';
import { pictureAt } from '@/core/footage/picture-times';
import type { Size } from '@/core/geometry/size';
import type { RgbaImage } from '@/core/picture/image';
import { yuvToRgba } from '@/core/picture/planes';
import { paintFrame } from '@/core/picture/reference/paint';
import { filesIn } from '@/core/picture/node';
import { timeOfBeat } from '@/core/time/grid';
import type { AnyRecord } from '@/core/model/records';
import type { Measure, Media } from '@/store/db';
import { framesOf, pictureOf } from '@/store/material';
import { arrange } from '@/store/arrange';
import type { BenchPage } from './bench-page';
import { decode } from './ffmpeg';
import { rulerOf, type Snapshot } from '@/store/snapshot';
import { recipeOf } from '@/core/recipes/built';

/**
 * Builds a shot outside the browser from what the page stored, with typed arrays as plain lists.
 * @param name of the moment; the first one that is built where nothing is said
 */
function rebuild(
  raw: {
    records: AnyRecord[];
    measures: Measure[];
    curves: { key: string; values: number[] }[];
    media: { id: string; name: string }[];
  },
  name?: string,
) {
  const arranged = arrange(raw.records);
  if (!arranged) throw new Error('There is no project.');
  const snapshot: Snapshot = {
    ...arranged,
    step: '',
    records: new Map(),
    media: new Map(raw.media.map((one) => [one.id, one as Media])),
    measures: new Map(raw.measures.map((one) => [one.key, one])),
    halted: new Map(),
    renders: [],
    conflicts: [],
  };
  for (const { value } of raw.measures) {
    if (value.method !== 'comparison') continue;
    const { path } = value.comparison;
    path.times = Float64Array.from(path.times);
    path.holds = Uint8Array.from(path.holds);
    path.placements = Float32Array.from(path.placements);
  }
  const moment = snapshot.built.find((one) => !name || one.name === name) ?? snapshot.built[0];
  const ruler = rulerOf(snapshot);
  const built = pictureOf(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!ruler || !built || !frames) throw new Error('There is nothing to build.');
  const used = new Set(filesIn(built.tree));
  return {
    ...frames,
    rate: ruler.project.rate,
    /** frames of its instants by their names */
    anchors: Object.fromEntries(
      (recipeOf(moment)?.anchors(moment, ruler) ?? []).map(({ name: anchor, frame }) => [anchor, frame]),
    ),
    beatTime: timeOfBeat(ruler.grid, moment.lands),
    tree: built.tree,
    media: snapshot.takes
      .filter((take) => used.has(take.media))
      .map((take) => ({
        id: take.media,
        name: snapshot.media.get(take.media)?.name ?? '',
        times: raw.curves.find(({ key }) => key === partKey('pictures', { media: take.media }))?.values ?? [],
      })),
  };
}

/** What the page would render of its moments by their names, built from its store by the same functions outside the browser. */
export async function storedShots(bench: BenchPage): Promise<(name?: string) => ReturnType<typeof rebuild>> {
  const [records, measures, curves, media] = await Promise.all(
    ['records', 'measures', 'curves', 'media'].map((table) => bench.rows(table)),
  );
  const raw = {
    records: records as AnyRecord[],
    measures: measures as Measure[],
    curves: curves as { key: string; values: number[] }[],
    media: media as { id: string; name: string }[],
  };
  return (name) => rebuild(raw, name);
}

/** The same of one moment. */
export const storedShot = async (bench: BenchPage, name?: string) => (await storedShots(bench))(name);

/**
 * Paints a stored shot with the reference painter from files that ffmpeg decoded.
 * @param filmed size of the files
 * @param path where a medium lies
 */
export function referenceOf(
  shot: ReturnType<typeof rebuild>,
  filmed: Size,
  delivery: Size,
  path: (name: string) => string,
): (frame: number) => RgbaImage {
  const sources = new Map(
    shot.media.map(({ id, name, times }) => [
      id,
      { pictures: decode(path(name), filmed.width, filmed.height), times: Float64Array.from(times) },
    ]),
  );
  return (frame) =>
    paintFrame(shot.tree, frame, delivery, (media, seconds) => {
      const source = sources.get(media);
      return source ? yuvToRgba(source.pictures[pictureAt(source.times, seconds)]) : null;
    });
}
