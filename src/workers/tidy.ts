import { dropRenderFiles } from '@/media/render-files';
import type { Store } from '@/store/db';

/** Removes the files of renders that are no longer in the store: those that were removed, or went with their project. */
export const tidyRenders = async (store: Store): Promise<void> =>
  dropRenderFiles(await store.renders.toCollection().primaryKeys());
