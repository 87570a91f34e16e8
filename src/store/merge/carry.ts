import { refuse } from '@/core/error';
import { commandSchema } from '@/core/model/command';
import { modelVersion } from '@/core/model/lift';
import { bundleFormat, mediaEntry, type Bundle, type BundleMedia } from '@/core/formats/bundle';
import type { Command, FieldOp, Store } from '../db';
import { mergeHistory, type Merged } from './merge';

/** The operations that make up a setup's log: its lines, their takes, strikes, pick-ups and moves. */
async function setupOps(store: Store, project: string, setup: string): Promise<Set<string>> {
  const records = await store.records.where({ project }).toArray();
  const mine = records.filter((record) => {
    const { kind } = record;
    return (
      (kind === 'log' || kind === 'strike' || kind === 'pickup' || kind === 'move') && record.setup === setup
    );
  });
  const takes = mine.flatMap((record) => (record.kind === 'log' && record.take ? [record.take] : []));
  return new Set([...mine.map(({ id }) => id), ...takes]);
}

/**
 * Gathers a project, or one setup's log and takes, to be carried to another device.
 * @param setup null for the whole project
 */
export async function gatherBundle(
  store: Store,
  project: string,
  setup: string | null,
): Promise<{ bundle: Bundle; blobs: Map<string, Blob> }> {
  const record = await store.records.get(project);
  if (record?.kind !== 'project') refuse('gone', 'This project is no longer there. Undo brings it back.');
  const place = setup ? await store.records.get(setup) : null;
  const wanted = setup ? await setupOps(store, project, setup) : null;
  const commands = (await store.commands.where({ project }).sortBy('id')).flatMap((command) => {
    const ops = wanted ? command.ops.filter((op) => wanted.has(op.record)) : command.ops;
    return ops.length > 0 ? [commandSchema.parse({ ...command, ops })] : [];
  });
  const used = new Set(
    commands.flatMap(({ ops }) =>
      ops.flatMap(({ field, after }) => (field === 'media' && typeof after === 'string' ? [after] : [])),
    ),
  );
  const blobs = new Map<string, Blob>();
  const media: BundleMedia[] = [];
  for (const row of await store.media.where({ project }).toArray()) {
    const original = used.has(row.id) && !row.problem ? await store.originals.get(row.id) : null;
    if (!original) continue;
    const entry = mediaEntry(media.length);
    const { id, name, type, size, fingerprint, probe, created, recorded } = row;
    media.push({ id, name, type, size, fingerprint, probe, created, recorded, entry });
    blobs.set(entry, original.blob);
  }
  return {
    bundle: {
      format: bundleFormat,
      version: modelVersion,
      made: Date.now(),
      project: { id: project, name: record.name },
      setup: setup ? { id: setup, name: place?.kind === 'setup' ? place.name : 'a setup' } : null,
      commands,
      media,
    },
    blobs,
  };
}

/**
 * Merges a bundle into this store. Media come first, so that no take is ever without its file.
 * @throws CoreError `bundle.no-project` where a setup's log comes before its project; then nothing has changed
 */
export async function takeInBundle(
  store: Store,
  bundle: Bundle,
  blobs: ReadonlyMap<string, Blob>,
): Promise<Merged & { media: number }> {
  const { project, setup } = bundle;
  const here = await store.records.get(project.id);
  if (setup && !here) {
    refuse(
      'bundle.no-project',
      `This is the log of ${setup.name} from “${project.name}”, and that project is not on this device. Carry the whole project over first.`,
    );
  }
  let media = 0;
  for (const { entry, ...row } of bundle.media) {
    const blob = blobs.get(entry);
    const known = await store.media.get(row.id);
    if (!blob || (known && (await store.originals.get(row.id)))) continue;
    await store.transaction('rw', store.media, store.writes, store.originals, async () => {
      await store.originals.put({ id: row.id, blob });
      await store.writeRows('media', [{ ...row, project: project.id, place: 'blob', problem: null }]);
    });
    media++;
  }
  const commands = bundle.commands.map((command): Command => ({ ...command, ops: command.ops as FieldOp[] }));
  return { ...(await mergeHistory(store, project.id, commands)), media };
}
