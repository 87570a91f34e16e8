/** Files that renders grow in. The store's blob of one that is done may still read from its file. */
const prefix = 'render-';

const folder = async (): Promise<FileSystemDirectoryHandle | null> => {
  try {
    return await navigator.storage.getDirectory();
  } catch {
    return null;
  }
};

/** A file that grows on disk; null where the browser has no private files. @param id of the render */
export async function openRenderFile(id: string) {
  try {
    const handle = await (await folder())?.getFileHandle(`${prefix}${id}`, { create: true });
    return handle ? { stream: await handle.createWritable(), file: () => handle.getFile() } : null;
  } catch {
    return null;
  }
}

/** Removes the files of all renders but some. @param kept ids of those that are done or still to come */
export async function dropRenderFiles(kept: readonly string[]): Promise<void> {
  const files = await folder();
  if (!files) return;
  for await (const name of files.keys())
    if (name.startsWith(prefix) && !kept.includes(name.slice(prefix.length)))
      await files.removeEntry(name).catch(() => undefined);
}
