import { refuse } from '@/core/error';
import { formatTimecode } from '@/core/time/timecode';
import { newId, type Store } from '../db';
import { framesOf, materialOf, pictureOf } from '../material';
import { readSnapshot } from '../snapshot';
import { soundsOf } from '../sounds';

/**
 * Asks for a render of a moment as it is now, in the size, rate and bits of now: as stored, which may be newer than what
 * is drawn.
 * @param base what its file is called, without its place and ending
 * @returns its id
 */
export async function askRender(
  store: Store,
  projectId: string,
  momentId: string,
  base: string,
): Promise<string> {
  // Changes that were asked for before this are written before this is over.
  await store.transaction('rw', store.records, () => store.records.get(projectId));
  const snapshot = await readSnapshot(store, projectId);
  const moment = snapshot?.built.find(({ id }) => id === momentId);
  if (!snapshot || !moment) return refuse('gone', 'This moment is no longer in the project.');
  const [frames, built] = [framesOf(snapshot, moment), pictureOf(snapshot, moment)];
  if (!frames || !built) return refuse('render', 'There is nothing to render yet. Choose takes first.');
  const { project } = snapshot;
  const id = newId();
  const from = formatTimecode(frames.start, project.rate).replace(/[:;]/g, '');
  const { tree } = built;
  const isWhole = !materialOf(snapshot, moment).waiting;
  await store.writeRows('renders', [
    {
      id,
      project: project.id,
      moment: moment.id,
      name: `${base}-${from}-${id.slice(0, 4)}.${project.container}`,
      container: project.container,
      status: 'waiting',
      blob: null,
      created: Date.now(),
      asked: {
        delivery: { width: project.width, height: project.height },
        rate: project.rate,
        bitrate: project.megabits * 1e6,
        moment,
        picture: isWhole
          ? { tree, start: frames.start, end: frames.end, sounds: soundsOf(snapshot, moment) }
          : null,
      },
    },
  ]);
  return id;
}

/** Takes a render back, whether it is done, at work or waiting. */
export async function removeRender(store: Store, project: string, id: string): Promise<void> {
  await store.removeRows('renders', project, [id]);
  await store.removeRows('halted', project, [renderKey(id)]);
}

/** The key of the work that a render is. */
export const renderKey = (id: string): string => `render:${id}`;
