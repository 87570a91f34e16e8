import { refuse } from '@/core/error';
import { mediaOfTask, needsOriginals } from '@/core/footage/task';
import { filesIn } from '@/core/picture/node';
import type { Moment } from '@/core/model/records';
import type { Render } from '@/store/db';
import { isVeilWork } from '@/core/recipes/veils';
import { framesOf, materialOf, pictureOf, worksOf } from '@/store/material';
import { songPartKey } from '@/core/song/parts';
import type { Snapshot } from '@/store/snapshot';
import { soundsOf } from '@/store/sounds';
import { versionsOf } from '@/store/versions';
import { keep, type Doing } from './job';
import type { RenderApi } from './render.worker';
import { paintersFor } from './painters';
import { sourcesOf } from './sources';
import { soundTasksOf } from './sound-tasks';
import { tidyRenders } from './tidy';

/** The name of a moment's work in the key of its answer. */
const workIn = (key: string): string => key.split(':')[2];

/** Every answer that a moment or one of its versions asks for. */
function askedFor(snapshot: Snapshot, id: string): Set<string> {
  const moment = snapshot.moments.find((one) => one.id === id);
  const all = moment ? [moment, ...versionsOf(snapshot, moment).map(({ as }) => as)] : [];
  return new Set(all.flatMap((one) => worksOf(snapshot, one)).map(({ key }) => key));
}

export const solveWork: Doing<'work'> = async (job, api) => {
  const { store, snapshot, need, progress } = job;
  const task = need.work.task();
  const sources = await sourcesOf(store, mediaOfTask(task), needsOriginals(task) ? 'originals' : 'proxies');
  const answer = await api.solveTask(task, sources, progress);
  const asked = askedFor(snapshot, need.moment.id);
  await keep(
    job,
    need.moment.id,
    [{ key: need.key, value: answer }],
    (key, method) => method === answer.method && workIn(key) === need.work.name && !asked.has(key),
  );
};

/** How a render is made: as it was asked for; one of the first versions, of what is there now. */
function taskOf(snapshot: Snapshot, { asked }: Render, now: Moment | null) {
  const { project } = snapshot;
  const { delivery, rate, bitrate } = asked ?? {
    delivery: { width: project.width, height: project.height },
    rate: project.rate,
    bitrate: project.megabits * 1e6,
  };
  if (asked?.picture)
    return { ...asked.picture, sounds: asked.picture.sounds ?? [], delivery, rate, bitrate };
  const moment = asked?.moment ?? now;
  if (!moment) return null;
  const film = { ...snapshot, project: { ...project, ...delivery, rate } };
  if (materialOf(film, moment).lacking.some(({ name }) => isVeilWork(name)))
    return refuse(
      'veil',
      'Somebody who is hidden in this moment was not followed yet. Take that work up again, or show them again, then render.',
    );
  const [built, frames] = [pictureOf(film, moment), framesOf(film, moment)];
  if (!built || !frames) return null;
  const { start, end } = frames;
  return { tree: built.tree, start, end, sounds: soundsOf(film, moment), delivery, rate, bitrate };
}

export const renderMoment: Doing<'render', RenderApi> = async ({ store, snapshot, need, progress }, api) => {
  const render = snapshot.renders.find((one) => one.id === need.render);
  const task = render && taskOf(snapshot, render, need.moment);
  const { song } = snapshot;
  if (!render || !task || !song)
    return refuse('render', 'There is nothing to render yet. Choose takes first.');
  const heard = song.media && snapshot.measures.has(songPartKey('sound', song.media));
  const wav = heard && song.media ? await store.proxies.get(song.media) : null;
  try {
    const { blob, flashes } = await api.renderShot(
      {
        ...task,
        container: render.container,
        sources: await sourcesOf(store, filesIn(task.tree), 'originals'),
        song: wav?.blob ?? null,
        sounds: await soundTasksOf(store, task.sounds),
        painters: paintersFor('whole'),
        id: render.id,
      },
      progress,
    );
    await store.writeRows('renders', [{ ...render, status: 'done', blob, flashes }]);
  } finally {
    await tidyRenders(store);
  }
};
