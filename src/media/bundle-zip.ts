import {
  BlobReader,
  BlobWriter,
  configure,
  TextReader,
  TextWriter,
  ZipReader,
  ZipWriter,
  type FileEntry,
} from '@zip.js/zip.js';
import { isCoreError, refuse } from '@/core/error';
import { bundleIndex, checkEntries, readBundle, type Bundle } from '@/core/formats/bundle';

// It already runs in a worker of this project's own.
configure({ useWebWorkers: false });

/** Packs a bundle; media are stored as they are. @param blobs by entry name */
export async function packBundle(
  bundle: Bundle,
  blobs: ReadonlyMap<string, Blob>,
  onProgress: (share: number) => void,
): Promise<Blob> {
  const zip = new ZipWriter(new BlobWriter('application/zip'), { keepOrder: true });
  await zip.add(bundleIndex, new TextReader(JSON.stringify(bundle)), { level: 6 });
  const whole = [...blobs.values()].reduce((sum, { size }) => sum + size, 1);
  let done = 0;
  for (const [entry, blob] of blobs) {
    await zip.add(entry, new BlobReader(blob), { level: 0 });
    done += blob.size;
    onProgress(done / whole);
  }
  return zip.close();
}

/**
 * Unpacks a bundle. Nothing of it is believed before its list and index were checked.
 * @returns the index, and the media that are really there by entry name; `lost` are listed but damaged or absent
 * @throws CoreError `bundle.…` with what to do
 */
export async function unpackBundle(
  file: Blob,
  onProgress: (share: number) => void,
): Promise<{ bundle: Bundle; blobs: Map<string, Blob>; lost: string[] }> {
  // Names that lead out of the archive are refused below, by their name.
  const zip = new ZipReader(new BlobReader(file), { filenameValidation: 'tolerant' });
  try {
    const entries = await zip
      .getEntries()
      .catch(() =>
        refuse(
          'bundle.truncated',
          'This file breaks off, or is no zip. Carry it over again; nothing was changed here.',
        ),
      );
    checkEntries(
      entries.map(({ filename, uncompressedSize, compressedSize, directory }) => ({
        name: filename,
        size: uncompressedSize,
        packed: compressedSize,
        folder: directory,
      })),
      file.size,
    );
    const files = new Map(
      entries.filter((entry): entry is FileEntry => !entry.directory).map((entry) => [entry.filename, entry]),
    );
    const index = files.get(bundleIndex) as FileEntry;
    const text = await index
      .getData(new TextWriter(), { checkSignature: true })
      .catch(() =>
        refuse('bundle.broken', 'This file is damaged. Save it again on the other device and carry it over.'),
      );
    const bundle = readBundle(text);
    const blobs = new Map<string, Blob>();
    const lost: string[] = [];
    for (const [at, { entry, type, size }] of bundle.media.entries()) {
      onProgress(at / bundle.media.length);
      const found = files.get(entry);
      const blob = await found?.getData(new BlobWriter(type), { checkSignature: true }).catch(() => null);
      if (blob && blob.size === size) blobs.set(entry, blob);
      else lost.push(entry);
    }
    return { bundle, blobs, lost };
  } catch (error) {
    if (isCoreError(error)) throw error;
    return refuse(
      'bundle.broken',
      'This file is damaged. Save it again on the other device and carry it over.',
    );
  } finally {
    await zip.close();
  }
}
