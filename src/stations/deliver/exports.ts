import { keyframeCsv } from '@/core/formats/keyframe-sheet';
import { writeOtio } from '@/core/formats/otio';
import type { Moment } from '@/core/model/records';
import type { Step } from '@/core/recipes/recipe';
import { timeOfFrame } from '@/core/time/rate';
import { buildable, framesOf, pictureOf } from '@/store/material';
import type { Snapshot } from '@/store/snapshot';

/** A moment in steps with every number; null until there are beats. */
export function stepsOf(snapshot: Snapshot, moment: Moment): { steps: Step[]; start: number } | null {
  const able = buildable(snapshot, moment);
  const built = pictureOf(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!able || !built || !frames) return null;
  return {
    steps: able.recipe.explain(moment, able.ruler, built.material, built.tree),
    start: frames.start,
  };
}

export function csvOf(snapshot: Snapshot, moment: Moment): string | null {
  const told = stepsOf(snapshot, moment);
  return told && keyframeCsv(told.steps, snapshot.project.rate, told.start);
}

export function timelineOf(snapshot: Snapshot, moment: Moment): string | null {
  const able = buildable(snapshot, moment);
  const built = pictureOf(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!able || !built || !frames || !snapshot.song) return null;
  const { rate } = able.ruler.project;
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
    tree: built.tree,
    files,
    song: snapshot.song.media ? { media: snapshot.song.media } : null,
    markers: able.recipe
      .anchors(moment, able.ruler)
      .flatMap(({ marks, frame }) =>
        marks ? [{ name: `${marks}, ${timeOfFrame(rate, frame).toFixed(3)} s`, frame }] : [],
      ),
  });
}
