import { readPcm } from '@/core/formats/wav';
import { countIn, layBeep, soundOfClicks, type Click } from '@/core/song/click';
import { Resampler } from '@/core/song/resample';
import { stretch } from '@/core/song/stretch';
import { mixed } from './measure-song';
import { wavOf } from './sounds';

const sampleRate = 48_000;

/** The song on the left, clicks on its beats on the right. @param wav the song at 48 kHz */
export async function songWithClick(wav: Blob, clicks: readonly Click[]): Promise<Blob> {
  const song = mixed(readPcm(await wav.arrayBuffer()).channels);
  return wavOf([song, soundOfClicks(clicks, song.length, sampleRate)]);
}

type ClickTrackTask = {
  /** the song at 48 kHz; null for clicks alone */
  wav: Blob | null;
  clicks: readonly Click[];
  /** seconds of the song that are played */
  from: number;
  to: number;
  /** 1 is the song's own; 2.5 for shooting at 40 % */
  speed: number;
  keepPitch: boolean;
  /** seconds of a beat where the passage begins, and beats in its bar, for the count-in */
  beat: number;
  beatsPerBar: number;
  /** seconds before the count, with a beep at one of them for lining up */
  slate?: { seconds: number; beep: number };
};

/** For playback on the set: a count that can be spoken, then the passage; song on the left, clicks on the right. */
export async function clickTrack(task: ClickTrackTask): Promise<Blob> {
  const { from, to, speed, slate } = task;
  const count = countIn(task.beat / speed, task.beatsPerBar);
  const before = slate?.seconds ?? 0;
  const lead = Math.round((before + count.length) * sampleRate);
  const length = Math.round(((to - from) / speed) * sampleRate);
  const clicks = [
    ...count.clicks.map((click) => ({ ...click, time: click.time + before })),
    ...task.clicks
      .filter(({ time }) => time >= from - 1e-6 && time < to)
      .map(({ time, accent }) => ({ time: lead / sampleRate + (time - from) / speed, accent })),
  ];
  const right = soundOfClicks(clicks, lead + length, sampleRate);
  const left = new Float32Array(lead + length);
  if (task.wav) {
    const song = mixed(readPcm(await task.wav.arrayBuffer()).channels);
    const passage = song.slice(Math.round(from * sampleRate), Math.round(to * sampleRate));
    left.set(atSpeed(passage, speed, task.keepPitch).subarray(0, length), lead);
  }
  if (slate) for (const channel of [left, right]) layBeep(channel, slate.beep, sampleRate);
  return wavOf([left, right]);
}

function atSpeed(sound: Float32Array, speed: number, keepPitch: boolean): Float32Array {
  if (speed === 1) return sound;
  if (keepPitch) return stretch([sound], sampleRate, speed)[0];
  const resampler = new Resampler(sampleRate * speed, sampleRate);
  const padded = new Float32Array(sound.length + resampler.latency);
  padded.set(sound);
  return resampler.push(padded);
}
