import { keyframeCsv } from '@/core/formats/keyframe-sheet';
import { writeOtio } from '@/core/formats/otio';
import type { CloneMoment } from '@/core/model/records';
import { clone } from '@/core/recipes/clone';
import { cloneFrames } from '@/core/recipes/clone/build';
import type { Step } from '@/core/recipes/recipe';
import { timeOfFrame } from '@/core/time/rate';
import { layersOf } from '@/store/needs';
import { rulerOf, type Snapshot } from '@/store/snapshot';

/** A moment in steps with every number; null until there are beats. */
export function stepsOf(snapshot: Snapshot, moment: CloneMoment): { steps: Step[]; start: number } | null {
  const ruler = rulerOf(snapshot);
  const built = layersOf(snapshot, moment);
  if (!ruler || !built) return null;
  return {
    steps: clone.explain(moment, ruler, built.material, built.layers),
    start: cloneFrames(moment, ruler).start,
  };
}

export function csvOf(snapshot: Snapshot, moment: CloneMoment): string | null {
  const told = stepsOf(snapshot, moment);
  return told && keyframeCsv(told.steps, snapshot.project.rate, told.start);
}

export function timelineOf(snapshot: Snapshot, moment: CloneMoment): string | null {
  const ruler = rulerOf(snapshot);
  const built = layersOf(snapshot, moment);
  if (!ruler || !built || !snapshot.song) return null;
  const { rate } = ruler.project;
  const frames = cloneFrames(moment, ruler);
  const files = Object.fromEntries(
    [...snapshot.media.values()].map((media) => [
      media.id,
      { name: media.name, duration: media.probe?.duration ?? 0 },
    ]),
  );
  return writeOtio({
    name: moment.name,
    rate,
    start: frames.start,
    end: frames.end,
    layers: built.layers.map((layer) => ({ ...layer, until: Math.min(layer.until, frames.end) })),
    files,
    song: snapshot.song.media ? { media: snapshot.song.media } : null,
    markers: [{ name: `Copy appears, ${timeOfFrame(rate, frames.lands).toFixed(3)} s`, frame: frames.lands }],
  });
}
