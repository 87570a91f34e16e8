import { utimesSync } from 'node:fs';
import { describe, expect } from 'vitest';
import { fillOf } from '@/core/model/slots';
import { slateTimeline } from '@/core/shoot/slate';
import { addMoment, addSetup } from '@/store/commands/plan';
import { setProject } from '@/store/commands/projects';
import { startLog, stopLog } from '@/store/commands/shoot';
import { laySeconds } from '@/store/commands/song';
import { planOf } from '@/store/plan';
import { readSnapshot } from '@/store/snapshot';
import { filmed, perSecond } from './support/composite';
import { ffmpeg } from './support/ffmpeg';
import { coffee } from './support/photographs';
import { seeded } from './support/seeds';
import { test } from './support/test';

/** the beat from which the slate played, and seconds for which it was logged */
const [from, length] = [2, 12];
/** the picture in which the slate was white, of a camera that hears nothing */
const flashed = 37;

describe('a take of a camera without sound', () => {
  test('is laid on the song by the white picture of its slate', async ({ open, file }) => {
    let started = 0;
    const seed = await seeded(async (store, project) => {
      await setProject(store, project, { ...filmed, rate: { num: perSecond, den: 1 } });
      await laySeconds(store, project);
      await addSetup(store, project);
      await addMoment(store, project, 'clone', 2, 6);
      const snapshot = await readSnapshot(store, project);
      const board = snapshot && planOf(snapshot).boards[0];
      const row = board?.rows.find(({ id }) => id.endsWith('/left'));
      if (!board || !row) throw new Error('There is nothing to be filmed.');
      const passage = { at: 0, from, speed: 1 };
      const log = await startLog(store, project, board.setup, row.id, { variation: '', passage });
      await stopLog(store, log, length);
      ({ started } = log);
    });
    ffmpeg(
      ...['-loop', '1', '-framerate', `${perSecond}`, '-i', coffee(), '-t', `${length + 1}`, '-vf'],
      `scale=600:400,crop=480:270,drawbox=300:100:60:90:white:fill:enable='eq(n,${flashed})',noise=alls=4:allf=t,format=yuv420p`,
      ...['-c:v', 'libx264', '-crf', '20', file('silent.mp4')],
    );
    const end = started / 1000 + length + 1;
    utimesSync(file('silent.mp4'), end, end);

    const bench = await open({ seed, at: 'station=shoot' });
    await bench.bringIn(file('silent.mp4'));
    await bench.press('That is right');
    await bench.settled();
    await bench.go('Build');
    await bench.choose('Take for the left', 'Left: first role, take 1');
    await bench.found('playback.off');
    expect(await bench.finding('playback.off').textContent()).toMatch(
      /after the slate’s white picture in Left/,
    );
    await bench.press('Lay it on the song');
    await bench.found('playback.on');
    expect(await bench.finding('playback.on').textContent()).toMatch(/white picture of its slate is seen/);
    const moment = (await bench.records()).find((one) => one.kind === 'moment');
    if (moment?.kind !== 'moment') throw new Error('There is no moment.');
    // The passage begins as long after the white picture as the slate counts.
    const { song, sync } = slateTimeline(await bench.grid(), { from, until: from + 1 }, 1, {
      num: perSecond,
      den: 1,
    });
    expect(Math.abs(fillOf(moment, 'left').at - (flashed / perSecond + song - sync))).toBeLessThan(
      0.5 / perSecond,
    );
    await bench.page.reload();
    await bench.found('playback.on');
  });
});
