import { refuse } from '@/core/error';
import { mediaOfTask } from '@/core/footage/seam-task';
import { filesIn } from '@/core/picture/node';
import type { Moment } from '@/core/model/records';
import type { Asked, Render } from '@/store/db';
import { framesOf, pictureOf } from '@/store/material';
import { songKey, type Snapshot } from '@/store/snapshot';
import { keep, type Doing } from './job';
import type { RenderApi } from './render.worker';
import { sourcesOf } from './sources';
import { tidyRenders } from './tidy';

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

/** What a render was asked for; one of the first versions is made of what is there now. */
function askedOf(snapshot: Snapshot, { asked }: Render, moment: Moment | null): Asked {
  const { project } = snapshot;
  const given = asked ?? {
    delivery: { width: project.width, height: project.height },
    rate: project.rate,
    bitrate: project.megabits * 1e6,
    picture: null,
  };
  if (given.picture || !moment) return given;
  const film = { ...snapshot, project: { ...project, ...given.delivery, rate: given.rate } };
  const [built, frames] = [pictureOf(film, moment), framesOf(film, moment)];
  return built && frames
    ? { ...given, picture: { tree: built.tree, start: frames.start, end: frames.end } }
    : given;
}

export const renderMoment: Doing<'render', RenderApi> = async ({ store, snapshot, need, progress }, api) => {
  const render = snapshot.renders.find((one) => one.id === need.render);
  const asked = render && askedOf(snapshot, render, need.moment);
  const { song } = snapshot;
  if (!render || !asked?.picture || !song)
    return refuse('render', 'There is nothing to render yet. Choose takes first.');
  const heard = song.media && snapshot.measures.has(songKey(song.media));
  const wav = heard && song.media ? await store.proxies.get(song.media) : null;
  try {
    const { blob, flashes } = await api.renderShot(
      {
        ...asked.picture,
        delivery: asked.delivery,
        rate: asked.rate,
        container: render.container,
        bitrate: asked.bitrate,
        sources: await sourcesOf(store, filesIn(asked.picture.tree), 'originals'),
        song: wav?.blob ?? null,
        id: render.id,
      },
      progress,
    );
    await store.writeRows('renders', [{ ...render, status: 'done', blob, flashes }]);
  } finally {
    await tidyRenders(store);
  }
};
