import { keyframeCsv } from '@/core/formats/keyframe-sheet';
import { writeOtio } from '@/core/formats/otio';
import { writeVtt } from '@/core/formats/webvtt';
import type { Moment } from '@/core/model/records';
import { explainHand } from '@/core/hand/explain';
import { explainLook } from '@/core/look/look';
import type { Step } from '@/core/recipes/recipe';
import { explainGrain } from '@/core/recipes/held-grain';
import { explainSoftness } from '@/core/recipes/held-softness';
import { explainVeils } from '@/core/recipes/veils';
import { explainSounds, soundsIn } from '@/core/recipes/sounds';
import { timeOfBeat } from '@/core/time/grid';
import { timeOfFrame } from '@/core/time/rate';
import { buildable, framesOf, pictureOf } from '@/store/material';
import type { Snapshot } from '@/store/snapshot';
import { soundName } from '@/store/sounds';

/** A moment in steps with every number; null until there are beats. */
export function stepsOf(snapshot: Snapshot, moment: Moment): { steps: Step[]; start: number } | null {
  const able = buildable(snapshot, moment);
  const built = pictureOf(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!able || !built || !frames) return null;
  const { recipe, ruler } = able;
  const { material, layered, anchors } = built;
  const sounds = explainSounds(soundsIn(moment, recipe, ruler), (sound) => soundName(snapshot, sound));
  const steps = [
    ...recipe.explain(moment, ruler, material, layered),
    ...explainVeils(layered),
    ...explainSoftness(layered),
    ...explainGrain(layered),
    ...explainHand(moment, layered, anchors, ruler),
    ...explainLook(moment, anchors),
    ...(sounds ? [sounds] : []),
  ];
  return { steps, start: frames.start };
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

/** The song's words over a moment, as captions that begin with its film. */
export function captionsOf(snapshot: Snapshot, moment: Moment): string {
  const able = buildable(snapshot, moment);
  const frames = framesOf(snapshot, moment);
  if (!able || !frames) return writeVtt([]);
  const { grid, project } = able.ruler;
  const [from, to] = [timeOfFrame(project.rate, frames.start), timeOfFrame(project.rate, frames.end)];
  const over = snapshot.cues.map(({ at, until, text }) => ({
    start: Math.max(0, timeOfBeat(grid, at) - from),
    end: Math.min(to, timeOfBeat(grid, until)) - from,
    text,
  }));
  return writeVtt(over.filter(({ start, end }) => end > start));
}
