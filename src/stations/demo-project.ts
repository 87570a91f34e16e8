import { refuse } from '@/core/error';
import { createMoment } from '@/store/commands/moments';
import { demoName } from './demo-name';
import { layDemoPlan, momentFiles } from './demo-plan';
import { createProject, removeProject } from '@/store/commands/projects';
import { emptyProject } from '@/store/empty';
import { newId, type Store } from '@/store/db';
import { readSnapshot } from '@/store/snapshot';
import { importFiles } from '@/workers/import-files';
import { liveQuery } from 'dexie';

/** The day of the demo's rehearsal: files that came with the bench were not filmed just now. */
const filmed = Date.UTC(2026, 10, 14, 15, 30);

const files = [
  'left-hand-thread.opus',
  'bench-plate-start.mp4',
  'bench-left-1.mp4',
  'bench-left-2.mp4',
  'bench-right-1.mp4',
  'bench-right-2.mp4',
  'bench-plate-end.mp4',
  ...momentFiles,
];

/**
 * Makes the demo project from the files that ship, through the real import. Measuring goes on by itself.
 * @returns its id
 */
export async function openDemo(
  store: Store,
  onProgress: (done: number, name: string) => void,
): Promise<string> {
  const loaded = await Promise.all(
    files.map(async (name) => {
      const answer = await fetch(`/demo/${name}`).catch(() => null);
      if (!answer?.ok)
        return refuse('demo', `${name} could not be loaded. Check the connection, then try once more.`);
      return new File([await answer.blob()], name, {
        type: name.endsWith('.opus') ? 'audio/ogg' : 'video/mp4',
        lastModified: filmed,
      });
    }),
  );
  await replaceDemos(store);
  const project = await createProject(store, demoName, newId());
  await importFiles(store, project, loaded, { onProgress });
  return project;
}

/**
 * Makes room for a fresh demo: the copy that is in use is laid aside with what was done in it, and those that were
 * laid aside before go for good.
 */
async function replaceDemos(store: Store): Promise<void> {
  const projects = await store.records.where({ kind: 'project' }).toArray();
  for (const one of projects) {
    if (one.kind !== 'project' || one.name !== demoName) continue;
    if (one.alive) await removeProject(store, one.id);
    else await emptyProject(store, one.id);
  }
}

/** Lays the demo's moments, setups and day out as soon as the beats are found. */
export function pinDemoMoment(store: Store, project: string): () => void {
  const watching = liveQuery(() => readSnapshot(store, project)).subscribe(async (snapshot) => {
    if (!snapshot?.song?.grid) return;
    watching.unsubscribe();
    if (snapshot.moments.length > 0) return;
    const perBar = snapshot.song.grid.beatsPerBar;
    const first = await createMoment(store, snapshot.project.id, 8 * perBar, 11 * perBar);
    await layDemoPlan(store, snapshot, first);
  });
  return () => watching.unsubscribe();
}
