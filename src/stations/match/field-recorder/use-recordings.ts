'use client';
import { useEffect, useRef, useState } from 'react';
import { isHeard } from '@/core/footage/field-recorder';
import { fileName } from '@/core/formats/file-name';
import type { Take } from '@/core/model/records';
import { recordingKey, recordingsOf, type Snapshot } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { callback, openMedia, type CancellableClient } from '@/workers/clients';
import type { MediaApi } from '@/workers/media.worker';
import { saveFile } from '../../save';

/** The files that were chosen since this page was opened: a recorder's file is listened to, and not kept. */
const chosen = new Map<string, File>();

/** The takes that have sound of their own, each file once. */
export const soundingTakes = ({ takes, media }: Snapshot): Take[] =>
  [
    ...new Map(
      takes
        .filter((take) => media.get(take.media)?.probe?.audio)
        .reverse()
        .map((take) => [take.media, take]),
    ).values(),
  ].reverse();

/** What is being done, and how far it is. */
type Doing = { what: string; share: number };

/** What recorders beside the camera have heard, and what can be done with it. */
export function useRecordings() {
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const [doing, setDoing] = useState<Doing | null>(null);
  const [, setChosenNow] = useState(0);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const project = snapshot.project.id;
  const takes = soundingTakes(snapshot);

  /** Works in a worker of its own, which `cancel` ends. */
  async function working(
    what: string,
    work: (media: CancellableClient<MediaApi>, tell: (share: number) => void) => Promise<void>,
  ): Promise<void> {
    const media = openMedia();
    let isOver = false;
    stop.current = media.end;
    setDoing({ what, share: 0 });
    try {
      await work(media, (share) => isOver || setDoing({ what, share }));
    } finally {
      isOver = true;
      media.end();
      setDoing(null);
    }
  }

  return {
    takes,
    recordings: recordingsOf(snapshot).map(([key, recording]) => ({
      id: key,
      recording,
      isHere: chosen.has(key),
      laid: takes.flatMap((take) => {
        const alignment = recording.heard[take.media];
        return isHeard(alignment) ? [{ take, alignment }] : [];
      }),
      unheard: takes.filter((take) => {
        const found = recording.heard[take.media];
        return found && !isHeard(found);
      }),
      /** takes that came in since */
      open: takes.filter((take) => !recording.heard[take.media]),
    })),
    doing,
    cancel: () => stop.current(),
    /** Listens to recordings, one after the other. @throws CoreError what kept one from being listened to */
    listen: async (files: readonly File[]): Promise<void> => {
      for (const file of files) {
        const key = recordingKey(project, file);
        const known = recordingsOf(snapshot).find(([id]) => id === key)?.[1].heard ?? {};
        const lacking = takes.filter((take) => !known[take.media]);
        if (lacking.length === 0) {
          // It was listened to before, and is here again.
          chosen.set(key, file);
          setChosenNow((count) => count + 1);
          continue;
        }
        let ended = true;
        await working(`Listening to ${file.name}`, async (media, tell) => {
          const rows = await store.originals.bulkGet(lacking.map((take) => take.media));
          const ofTakes = rows.flatMap((row) => (row ? [{ id: row.id, file: row.blob }] : []));
          const laid = await media.orEnded(media.api.layOnRecording(file, ofTakes, callback(tell)));
          if (!laid) return;
          const recording = { ...laid, heard: { ...known, ...laid.heard } };
          ended = false;
          chosen.set(key, file);
          await store.writeRows('measures', [
            { key, project, subject: project, value: { method: 'recording', recording } },
          ]);
        });
        if (ended) return;
      }
    },
    /** Gives out what a recording has of the takes that are heard in it. */
    save: async (key: string): Promise<void> => {
      const file = chosen.get(key);
      const recording = snapshot.measures.get(key)?.value;
      if (!file || recording?.method !== 'recording') return;
      const laid = takes.flatMap((take) => {
        const alignment = recording.recording.heard[take.media];
        const seconds = snapshot.media.get(take.media)?.probe?.duration;
        return isHeard(alignment) && seconds ? [{ name: take.name, seconds, alignment }] : [];
      });
      await working(`Cutting ${file.name}`, async (media, tell) => {
        const zip = await media.orEnded(media.api.cutForTakes(file, laid, callback(tell)));
        if (zip) saveFile(`${fileName(file.name.replace(/\.[^.]+$/, ''), 'recorder')}-takes.zip`, zip);
      });
    },
    fileOf: (key: string): File | null => chosen.get(key) ?? null,
    forget: (key: string) => store.removeRows('measures', project, [key]),
  };
}
