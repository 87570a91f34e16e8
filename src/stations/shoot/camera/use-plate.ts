'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useCallback, useEffect, useMemo, useState } from 'react';
import { plateSlot } from '@/core/model/slots';
import type { RgbaImage } from '@/core/picture/image';
import { bestLog, type Board } from '@/core/shoot/board';
import { useData, useServices } from '@/ui/bench-context';
import type { HeldSettings } from '@/core/shoot/held';
import { openMedia } from '@/workers/clients';

/** What the watch of a setup holds pictures against, and where that comes from. */
export type Plate = { pictures: RgbaImage[]; from: 'camera' | 'file'; taken: number } | null;

/** The plate's own file, once one is in the project. */
function usePlateFile(board: Board): Blob | null {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const take = board.rows.filter(({ shot }) => shot?.what === 'plate').map((row) => bestLog(row)?.take);
  const media =
    snapshot.takes.find(({ id }) => take.includes(id))?.media ??
    snapshot.takes.find(({ slot }) => slot === plateSlot)?.media ??
    null;
  return (
    useLiveQuery(
      async () => (media ? ((await store.originals.get(media))?.blob ?? null) : null),
      [store, media],
    ) ?? null
  );
}

/** The setup's empty set as this camera showed it; until there is one, the plate's file. */
export function usePlate(board: Board, camera: string | null) {
  const { store } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  const { setup } = board;
  const kept = useLiveQuery(() => store.references.get(setup), [store, setup]);
  const file = usePlateFile(board);
  const [read, setRead] = useState<{ file: Blob; pictures: RgbaImage[] } | null>(null);
  const mine = kept && kept.camera === camera ? kept : null;
  const practice = camera === 'Practice camera';
  useEffect(() => {
    // The practice set is not the place of any file.
    if (!camera || mine || !file || practice) return;
    let here = true;
    const worker = openMedia();
    worker.api
      .platePictures(file)
      .then((pictures) => here && setRead({ file, pictures }))
      .catch(() => undefined)
      .finally(() => worker.end());
    return () => {
      here = false;
      worker.end();
    };
  }, [camera, mine, file, practice]);
  const plate = useMemo((): Plate => {
    if (mine) return { pictures: mine.pictures, from: 'camera', taken: mine.taken };
    if (camera && !practice && read && read.file === file)
      return { pictures: read.pictures, from: 'file', taken: 0 };
    return null;
  }, [mine, camera, practice, read, file]);
  const keep = useCallback(
    async (pictures: RgbaImage[], held: HeldSettings) => {
      if (pictures.length === 0 || !camera) return;
      await store.references.put({
        setup,
        project: projectId,
        camera,
        taken: Date.now(),
        held,
        pictures: pictures.map(({ width, height, data }) => ({
          width,
          height,
          data: new Uint8ClampedArray(data),
        })),
      });
    },
    [store, setup, camera, projectId],
  );
  return { plate, keep, file };
}
