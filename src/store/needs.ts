import { fillOf } from '@/core/model/slots';
import { sides, type CloneMaterial, type ChosenTake, type Side } from '@/core/recipes/clone/material';
import { clone } from '@/core/recipes/clone';
import { cloneFrames } from '@/core/recipes/clone/build';
import type { Layer } from '@/core/picture/layers';
import type { CloneMoment, Take } from '@/core/model/records';
import { isOverPlate } from '@/core/recipes/slots';
import { frameOfTime } from '@/core/time/rate';
import type { SeamTask } from '@/media/solve-seam';
import { compareKey, materialOf, rulerOf, seamKey, songKey, takeKey, type Snapshot } from './snapshot';
import { plateFor, plateOfMoment } from './plates';

/** A piece of work that is missing, under the key that its result will have. */
export type Need =
  | { kind: 'take'; key: string; label: string; media: string }
  | { kind: 'song'; key: string; label: string; media: string; song: string }
  | { kind: 'again'; key: string; label: string; media: string; song: string }
  | { kind: 'compare'; key: string; label: string; take: string; plate: string; subject: string }
  | { kind: 'seam'; key: string; label: string; moment: CloneMoment }
  | { kind: 'render'; key: string; label: string; render: string; moment: CloneMoment };

/**
 * What is still to be measured, solved or rendered, in the order in which it is wanted. Because this follows
 * from what is stored, work that a reload interrupted goes on by itself.
 */
export function needsOf(snapshot: Snapshot): Need[] {
  const { song, takes, media, measures, halted, clones, renders } = snapshot;
  const needs: Need[] = [];
  const want = (need: Need) => {
    if (!measures.has(need.key) && !halted.has(need.key)) needs.push(need);
  };
  const nameOf = (id: string) => media.get(id)?.name ?? 'file';
  if (song?.media && media.has(song.media)) {
    want({
      kind: 'song',
      key: songKey(song.media),
      label: `Finding beats in ${nameOf(song.media)}`,
      media: song.media,
      song: song.id,
    });
    if (song.again && measures.has(songKey(song.media))) {
      const key = `again:${song.id}:${song.again}`;
      want({ kind: 'again', key, label: 'Finding the other beats again', media: song.media, song: song.id });
    }
  }
  for (const take of takes) {
    if (!media.has(take.media)) continue;
    want({ kind: 'take', key: takeKey(take.media), label: `Measuring ${take.name}`, media: take.media });
  }
  for (const [take, plate] of comparedOf(snapshot)) {
    if (!measures.has(takeKey(take.media)) || !measures.has(takeKey(plate.media))) continue;
    const key = compareKey(take.media, plate.media);
    want({
      kind: 'compare',
      key,
      label: `Comparing ${take.name} with the plate`,
      take: take.media,
      plate: plate.media,
      subject: take.id,
    });
  }
  for (const moment of clones) {
    const key = seamKey(snapshot, moment);
    if (key) want({ kind: 'seam', key, label: `Finding the join of ${moment.name}`, moment });
  }
  for (const render of renders) {
    const moment = clones.find((one) => one.id === render.moment);
    if (render.status !== 'waiting' || !moment) continue;
    want({
      kind: 'render',
      key: `render:${render.id}`,
      label: `Rendering ${render.name}`,
      render: render.id,
      moment,
    });
  }
  return needs;
}

/** Each take with the plate of its setup, and with the plate of every moment that it is chosen for. */
function comparedOf(snapshot: Snapshot): [Take, Take][] {
  const { takes, clones } = snapshot;
  const pairs = new Map<string, [Take, Take]>();
  const add = (take: Take | undefined, plate: Take | null) => {
    if (take && plate && take.id !== plate.id) pairs.set(`${take.id} ${plate.id}`, [take, plate]);
  };
  for (const take of takes) if (isOverPlate(take.slot)) add(take, plateFor(snapshot, take));
  for (const moment of clones)
    for (const side of sides)
      add(
        takes.find((take) => take.id === fillOf(moment, side).take),
        plateOfMoment(snapshot, moment),
      );
  return [...pairs.values()];
}

/** The layers of a moment as it stands. */
export function layersOf(
  snapshot: Snapshot,
  moment: CloneMoment,
): { layers: Layer[]; material: CloneMaterial } | null {
  const ruler = rulerOf(snapshot);
  if (!ruler) return null;
  const { material } = materialOf(snapshot, moment);
  return { layers: clone.build(moment, ruler, material), material };
}

/** What the seam of a moment is solved from; null where something is missing. */
export function seamTask(snapshot: Snapshot, moment: CloneMoment): Omit<SeamTask, 'sources'> | null {
  const ruler = rulerOf(snapshot);
  const built = layersOf(snapshot, moment);
  if (!ruler || !built) return null;
  const { material } = built;
  const put = (chosen: ChosenTake | null) =>
    chosen && { ...chosen, take: { ...chosen.take, steady: true, match: true } };
  const corrected = clone.build(moment, ruler, {
    ...material,
    left: put(material.left),
    right: put(material.right),
  });
  const layer = (layers: Layer[], id: string) => layers.find((one) => one.id === id) ?? null;
  const frames = cloneFrames(moment, ruler);
  const side = (role: Side) => {
    const mine = layer(built.layers, role);
    const put = layer(corrected, role);
    const { tap } = fillOf(moment, role);
    if (!mine || !put) return null;
    const plain = material[role]?.take.steady && material[role]?.take.match;
    const frame = tap && mine.from + frameOfTime(ruler.project.rate, tap.time - mine.source.at);
    return {
      layer: mine,
      corrected: plain ? mine : put,
      tap: tap && frame !== null ? { frame, at: tap.at } : null,
    };
  };
  const [left, right] = [side('left'), side('right')];
  if (!left || !right) return null;
  return {
    left,
    right,
    plate: layer(built.layers, 'plate'),
    from: frames.lands,
    until: frames.end,
    delivery: { width: ruler.project.width, height: ruler.project.height },
    outline: moment.settings.seam,
  };
}
