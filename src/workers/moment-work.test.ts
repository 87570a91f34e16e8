import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { mediaIn, type Node } from '@/core/picture/node';
import { askRender } from '@/store/commands/renders';
import { hideSomebody } from '@/store/commands/veils';
import { worksOf } from '@/store/material';
import { needsOf } from '@/store/needs';
import { TestFilm } from '@/store/__tests__/film';
import { renderMoment } from './moment-work';

describe('rendering a moment', () => {
  it('is refused while somebody who is hidden was not followed, and hides them after that', async () => {
    const film = await TestFilm.begin();
    const moment = await film.wholeClone();
    await film.sung();
    for (const id of ['plate', 'one', 'two']) await film.measured(id);
    await hideSomebody(film.store, film.project, 'one', { time: 1, at: [0.3, 0.4] }, 0.05);
    const asked = await askRender(film.store, film.project, moment, 'shot');
    const renderShot = vi.fn(async () => ({ blob: new Blob(['film']), flashes: 0 }));
    const render = async () => {
      const snapshot = await film.read();
      const need = needsOf(snapshot).find((one) => one.kind === 'render');
      if (!need) throw new Error('Nothing is to be rendered.');
      await renderMoment({ store: film.store, snapshot, need, progress: () => undefined }, {
        renderShot,
      } as never);
    };
    await expect(render()).rejects.toMatchObject({ code: 'veil' });
    expect(renderShot).not.toHaveBeenCalled();

    const snapshot = await film.read();
    const veil = { places: [], lost: [], looks: null, met: 0, beside: [], again: [] };
    for (const { key, name } of worksOf(snapshot, snapshot.built[0]))
      if (name.startsWith('veil-')) await film.keep(key, moment, { method: 'veil-1', veil });
    await render();
    expect((await film.store.renders.get(asked))?.status).toBe('done');
    const [[{ tree }]] = renderShot.mock.calls as unknown as [[{ tree: Node }]];
    expect(mediaIn(tree).filter(({ content }) => content.veils)).toHaveLength(1);
  });
});
