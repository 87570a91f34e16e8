import { useEffect, useState } from 'react';
import { songPartKey } from '@/core/song/parts';
import type { Store } from '@/store/db';
import type { Snapshot } from '@/store/snapshot';
import { silentSeconds, soundsOfFilm } from '@/store/sounds';
import type { Player } from '@/ui/player';
import { openMedia } from '@/workers/clients';
import { soundTasksOf } from '@/workers/sound-tasks';

/** Gives the player the song as soon as it is decoded, and over it the sounds of all moments. */
export function useSong(
  store: Store,
  player: Player,
  snapshot: Snapshot,
  attempt: (work: () => unknown) => Promise<void>,
): void {
  const { song, measures, sounds } = snapshot;
  const media = song?.media ?? null;
  const ready = Boolean(media && measures.has(songPartKey('sound', media)));
  /** the song that is loaded: its file, '' for none, null while nothing is */
  const [loaded, setLoaded] = useState<string | null>(null);
  useEffect(() => {
    let here = true;
    const load = async () => {
      const row = ready && media ? await store.proxies.get(media) : null;
      if (!here) return;
      player.load(row?.blob ?? null);
      setLoaded(media ?? '');
    };
    void load();
    return () => {
      here = false;
    };
  }, [store, player, media, ready]);

  const planned = soundsOfFilm(snapshot);
  const seconds = silentSeconds(snapshot);
  const decoded = sounds.filter((own) => measures.has(songPartKey('sound', own.media))).length;
  // What follows from the same sounds is the same, whatever else of the project has changed.
  const key = JSON.stringify(planned);
  useEffect(() => {
    if (loaded === null || loaded !== (media ?? '')) return;
    const asked = JSON.parse(key) as typeof planned;
    if (asked.length === 0) {
      player.lay('sounds', null);
      return;
    }
    let here = true;
    void attempt(async () => {
      const row = ready && media ? await store.proxies.get(media) : null;
      const tasks = await soundTasksOf(store, asked);
      const worker = openMedia();
      // Ended only once it has answered: what waits for an ended worker waits for ever.
      const blob = await worker.api
        .songWithSounds(row?.blob ?? null, tasks, seconds)
        .finally(() => worker.end());
      if (here) player.lay('sounds', blob);
    });
    return () => {
      here = false;
    };
  }, [store, player, attempt, key, media, ready, loaded, decoded, seconds]);
}
