import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { readPcm } from '@/core/formats/wav';
import { toLinear } from '@/core/picture/colour';
import { trackBeats } from '@/core/song/track';
import { timeOfFrame } from '@/core/time/rate';
import { cameraAt, canvasAt, expose, filmRate, type Fault } from '@/core/practice/camera';
import { filmScene } from './set/film';
import { scenes } from './set/scenes';
import { drawWorkshop } from '@/core/practice/workshop';
import { beatsPerBar, energyOf, sections, songBeats } from './song/score';
import { playSong } from './song/synth';

const bump: Fault = { kind: 'bump', at: 5.2, dx: 2.2, dy: 0.9, rotation: 0.03 };

describe('the song of the demo', () => {
  const beats = songBeats();

  it('has whole bars that breathe but never stumble', () => {
    const bars = sections.reduce((sum, section) => sum + section.bars, 0);
    expect(beats).toHaveLength(bars * beatsPerBar);
    const gaps = beats.slice(1).map((time, index) => time - beats[index]);
    expect(Math.max(...gaps) / Math.min(...gaps)).toBeGreaterThan(1.015);
    expect(Math.max(...gaps) / Math.min(...gaps)).toBeLessThan(1.04);
  });

  it('carries most energy in its choruses', () => {
    expect(energyOf(0)).toBe(0.45);
    expect(energyOf(12)).toBe(1);
    expect(energyOf(4)).toBeLessThan(energyOf(22));
  });

  it('sounds on its beats: the search finds them from the played sound', () => {
    const { channels, sampleRate } = readPcm(playSong().slice().buffer);
    expect(channels).toHaveLength(2);
    const mono = channels[0].map((value, at) => (value + channels[1][at]) / 2);
    const found = trackBeats(mono, sampleRate).beats;
    const met = beats.filter((time) => found.some((other) => Math.abs(other - time) < 0.03)).length;
    expect(met / beats.length).toBeGreaterThan(0.95);
  });
});

describe('the film set', () => {
  const folder = mkdtempSync(join(tmpdir(), 'set-'));
  afterAll(() => rmSync(folder, { recursive: true }));

  it('stands until it is bumped, swings, and rests where the fault says', () => {
    expect(cameraAt([bump], 5.1)).toMatchObject({ dx: 0, dy: 0, rotation: 0 });
    expect(cameraAt([bump], 5.21).dx).toBeGreaterThan(3);
    expect(cameraAt([bump], 7)).toMatchObject({ dx: 2.2, dy: 0.9, rotation: 0.03 });
    expect(cameraAt([], 7)).toMatchObject({ dx: 0, dy: 0 });
  });

  it('loses the planted light in linear light, and films no two frames with the same grain', () => {
    const room = canvasAt(cameraAt([], 0));
    drawWorkshop(room);
    const mean = (faults: Fault[]) => {
      const picture = expose(room, faults, 3, 1);
      let sum = 0;
      for (let at = 1; at < picture.length; at += 3) sum += toLinear(picture[at]);
      return sum;
    };
    const stops = Math.log2(mean([{ kind: 'light', stops: -1 / 3, warmth: 0 }]) / mean([]));
    expect(stops).toBeCloseTo(-1 / 3, 1);
    expect(Buffer.compare(expose(room, [], 3, 1), expose(room, [], 4, 1))).not.toBe(0);
    expect(Buffer.compare(expose(room, [], 3, 1), expose(room, [], 3, 1))).toBe(0);
  });

  it('plants each fault once and keeps a good take of each role', () => {
    const good = scenes.filter(
      (scene) =>
        scene.file.startsWith('bench-') && scene.faults.length === 0 && !scene.file.includes('plate'),
    );
    expect(good.map((scene) => scene.file.split('-')[1]).sort()).toEqual(['left', 'right']);
    const planted = scenes.filter(({ file }) => file.startsWith('bench-')).flatMap(({ faults }) => faults);
    expect(planted.map(({ kind }) => kind).sort()).toEqual(['bump', 'light']);
  });

  it('encodes a film of the frames, rate and tags that a careful phone would write', async () => {
    const path = join(folder, 'short.mp4');
    const seconds = timeOfFrame(filmRate, 5);
    await filmScene({ ...scenes[1], file: 'short.mp4', seconds }, path, 1);
    const fields = 'width,height,r_frame_rate,nb_read_frames,color_range,color_space,codec_name';
    const args = ['-v', 'error', '-count_frames', '-show_entries', `stream=${fields}`, '-of', 'json', path];
    const [stream] = JSON.parse(execFileSync('ffprobe', args, { encoding: 'utf8' })).streams;
    expect(stream).toEqual({
      codec_name: 'h264',
      width: 1280,
      height: 720,
      color_range: 'tv',
      color_space: 'bt709',
      r_frame_rate: '24000/1001',
      nb_read_frames: '5',
    });
  });
});
