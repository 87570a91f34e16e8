import { beforeAll, describe, expect, it } from 'vitest';
import { inRoom, noisy, rate, song } from '@/core/footage/__tests__/heard';
import { alignPlayed } from '@/core/footage/align-played';
import { onReference } from '@/core/footage/align-sound';
import { findBeep } from '@/core/footage/beep';
import { allowed } from '@/core/finding/allowed';
import { readPcm } from '@/core/formats/wav';
import { alignmentBySlate, slateTimeline, slateTrack } from '@/core/shoot/slate';
import { regularGrid } from '@/core/time/grid';
import { clickTrack } from './click-track';
import { wavOf } from './sounds';

const grid = regularGrid(120, 0.5, 80);
const passage = { from: 16, until: 48 };
const reference = song(40, 5);

/** What a camera hears that was switched on so many seconds before a slate: a loudspeaker in a room, and noise. */
async function heardOfSlate(speed: number, before: number, wav: Blob | null) {
  const timeline = slateTimeline(grid, passage, speed, { num: 24, den: 1 });
  const played = await clickTrack({ wav, ...slateTrack(grid, passage.from, timeline) });
  const { channels } = readPcm(await played.arrayBuffer());
  const heard = new Float32Array(Math.round(before * rate) + channels[0].length);
  // One loudspeaker plays both.
  heard.set(
    channels[0].map((left, at) => (left + channels[1][at]) / 2),
    Math.round(before * rate),
  );
  return { timeline, heard: noisy(inRoom(heard, 4), 10, 6) };
}

describe('a take that was filmed to the slate’s own playback', () => {
  let wav: Blob;
  beforeAll(() => {
    wav = wavOf([reference]);
  });

  it.each([1, 2, 2.5])('is laid on the song where it was played at %d times its speed', async (speed) => {
    const { timeline, heard } = await heardOfSlate(speed, 1.37, wav);
    const found = alignPlayed(reference, heard, rate, [speed]);
    expect(found.confidence).toBeGreaterThan(allowed.heard);
    expect(found.speed ?? 1).toBe(speed);
    const second = 1.37 + timeline.song + 3;
    const off = (onReference(found, second) - (timeline.from + 3 * speed)) / speed;
    console.info(`At ${speed} times: off by ${(1000 * off).toFixed(1)} ms.`);
    // A half of a picture at 24 a second is 21 ms.
    expect(Math.abs(off)).toBeLessThan(0.016);
  });

  it('is laid there by its beep alone where no song can be heard', async () => {
    for (const speed of [1, 2]) {
      const { timeline, heard } = await heardOfSlate(speed, 2.41, null);
      expect(alignPlayed(reference, heard, rate, [speed]).confidence).toBeLessThan(allowed.heard);
      const beep = findBeep(heard, rate) as number;
      expect(Math.abs(beep - 2.41 - timeline.sync)).toBeLessThan(0.003);
      const found = alignmentBySlate(timeline, beep, 'beep');
      expect(onReference(found, 2.41 + timeline.song)).toBeCloseTo(timeline.from, 1);
      expect(Math.abs(onReference(found, 2.41 + timeline.song + 5) - timeline.from - 5 * speed)).toBeLessThan(
        0.006,
      );
    }
  });
});
