import { refuse } from '@/core/error';
import type { MeasureValue, Store } from '@/store/db';
import type { Need } from '@/store/needs';
import type { Snapshot } from '@/store/snapshot';
import type { Client } from './clients';
import type { MediaApi } from './media.worker';

/** A piece of work with what it needs: the project as it was when it was begun, and how far it is. */
export type Job<Some extends Need = Need> = {
  store: Store;
  snapshot: Snapshot;
  need: Some;
  /** told shares 0..1 */
  progress: (share: number) => void;
};

/** What a kind of work is asked for with. */
export type NeedOf<Kind extends Need['kind']> = Extract<Need, { kind: Kind }>;

/** How one kind of work is done and its result kept. */
export type Doing<Kind extends Need['kind'], Api = MediaApi> = (
  job: Job<NeedOf<Kind>>,
  api: Client<Api>['api'],
) => Promise<void>;

/** A result that is to be kept, under its key; `curve` is what is too large for live queries. */
export type Result = { key: string; value: MeasureValue; curve?: Float32Array | Float64Array | null };

/**
 * Keeps results, all or none; an older word that this work had ended without one goes.
 * @param replaces which other answers of the same subject are older ones to the same question, and go
 */
export async function keep(
  { store, snapshot, need }: Job,
  subject: string,
  results: readonly Result[],
  replaces: (key: string, method: MeasureValue['method']) => boolean = () => false,
): Promise<void> {
  const project = snapshot.project.id;
  await store.transaction('rw', store.measures, store.writes, store.curves, store.halted, async () => {
    const older = await store.measures
      .where({ subject })
      .filter(({ key, value }) => replaces(key, value.method))
      .primaryKeys();
    await store.removeRows('measures', project, older);
    await store.curves.bulkDelete(older);
    await store.writeRows(
      'measures',
      results.map(({ key, value }) => ({ key, project, subject, value })),
    );
    await store.curves.bulkPut(
      results.flatMap(({ key, curve }) => (curve ? [{ key, project, values: curve }] : [])),
    );
    await store.removeRows('halted', project, [need.key]);
  });
}

/** @throws CoreError `absent` where the file is not in this browser */
export async function original(store: Store, media: string): Promise<Blob> {
  const row = await store.originals.get(media);
  return row?.blob ?? refuse('absent', 'The file is no longer in this browser. Bring it in again.');
}
