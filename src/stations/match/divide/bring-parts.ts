import type { Stretch } from '@/core/footage/action';
import { fileName } from '@/core/formats/file-name';
import { refuse } from '@/core/error';
import type { Take } from '@/core/model/records';
import { noSlot } from '@/core/model/slots';
import { setTake } from '@/store/commands/takes';
import type { Store } from '@/store/db';
import type { CancellableClient } from '@/workers/clients';
import { importFiles } from '@/workers/import-files';
import type { MediaApi } from '@/workers/media.worker';

const endings: Record<string, string> = { 'video/webm': 'webm', 'video/quicktime': 'mov' };

/**
 * Cuts parts out of a take's file and brings them in as takes of their own; the long one is not used any more, unless
 * something uses it.
 * @param parts with their numbers, in its seconds
 * @returns how many came in, fewer where the worker is ended meanwhile
 * @throws CoreError `absent` where its file is not in this browser; what kept a part from being cut or kept
 */
export async function bringParts(
  store: Store,
  project: string,
  take: Take,
  isUsed: boolean,
  parts: readonly (Stretch & { number: number })[],
  media: CancellableClient<Pick<MediaApi, 'cutPart'>>,
  onProgress: (share: number) => void,
): Promise<number> {
  const [original, row] = await Promise.all([store.originals.get(take.media), store.media.get(take.media)]);
  if (!original || !row)
    return refuse(
      'absent',
      `The file of ${take.name} is not in this browser. Bring it in again, then divide it.`,
    );
  const recorded = row.recorded ?? null;
  let came = 0;
  for (const [index, { number, ...stretch }] of parts.entries()) {
    onProgress(index / parts.length);
    const cut = await media.orEnded(media.api.cutPart(original.blob, stretch, recorded));
    if (!cut) return came;
    const { blob, from } = cut;
    const lastModified = recorded === null ? Date.now() : Math.round(recorded + 1000 * stretch.until);
    const name = `${fileName(take.name)}-part-${number}.${endings[blob.type] ?? 'mp4'}`;
    const file = new File([blob], name, { type: blob.type, lastModified });
    const [result] = await importFiles(store, project, [file], { keepDelivery: true });
    if (result.outcome === 'problem')
      refuse('media.part', `Part ${number}, from ${from.toFixed(1)} s: ${result.message}`);
    came++;
  }
  if (!isUsed) await setTake(store, project, take.id, 'Divide a take', { slot: noSlot });
  return came;
}
