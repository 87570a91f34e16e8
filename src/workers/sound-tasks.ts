import type { SoundTask } from '@/media/sounds';
import type { Store } from '@/store/db';
import type { PlannedSound } from '@/store/sounds';

/** Sounds with their samples; those whose file is not decoded, or not here, are left out. */
export async function soundTasksOf(store: Store, planned: readonly PlannedSound[]): Promise<SoundTask[]> {
  const tasks = await Promise.all(
    planned.map(async ({ sound, ...rest }): Promise<SoundTask[]> => {
      if (typeof sound === 'string') return [{ source: sound, ...rest }];
      const row = await store.proxies.get(sound.media);
      return row ? [{ source: row.blob, ...rest }] : [];
    }),
  );
  return tasks.flat();
}
