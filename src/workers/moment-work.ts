import { refuse } from '@/core/error';
import { mediaOfTask } from '@/core/footage/seam-task';
import { filesIn } from '@/core/picture/node';
import { framesOf, pictureOf } from '@/store/material';
import { songKey } from '@/store/snapshot';
import { keep, type Doing } from './job';
import type { RenderApi } from './render.worker';
import { sourcesOf } from './sources';

/** The name of a moment's work in the key of its answer. */
const workIn = (key: string): string => key.split(':')[2];

export const solveWork: Doing<'work'> = async (job, api) => {
  const { store, need, progress } = job;
  const task = need.work.task();
  const sources = await sourcesOf(store, mediaOfTask(task), 'proxies');
  const seam = await api.solveMomentSeam(task, sources, progress);
  await keep(
    job,
    need.moment.id,
    [{ key: need.key, value: { method: 'seam-3', seam } }],
    (key, method) => method === 'seam-3' && workIn(key) === need.work.name,
  );
};

export const renderMoment: Doing<'render', RenderApi> = async ({ store, snapshot, need, progress }, api) => {
  const built = pictureOf(snapshot, need.moment);
  const render = snapshot.renders.find((one) => one.id === need.render);
  const frames = framesOf(snapshot, need.moment);
  const { project, song } = snapshot;
  if (!built || !render || !frames || !song)
    return refuse('render', 'There is nothing to render yet. Choose takes first.');
  const heard = song.media && snapshot.measures.has(songKey(song.media));
  const wav = heard && song.media ? await store.proxies.get(song.media) : null;
  const blob = await api.renderShot(
    {
      tree: built.tree,
      start: frames.start,
      end: frames.end,
      delivery: { width: project.width, height: project.height },
      rate: project.rate,
      container: render.container,
      bitrate: project.megabits * 1e6,
      sources: await sourcesOf(store, filesIn(built.tree), 'originals'),
      song: wav?.blob ?? null,
      file: render.name,
    },
    progress,
  );
  await store.writeRows('renders', [{ ...render, status: 'done', blob }]);
};
