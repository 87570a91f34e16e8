import { BlobReader, BlobWriter, TextReader, ZipWriter } from '@zip.js/zip.js';
import { AudioSampleSink, type InputAudioTrack } from 'mediabunny';
import { refuse } from '@/core/error';
import { alignSound, type Alignment } from '@/core/footage/align-sound';
import { recorderCsv, type FieldRecording } from '@/core/footage/field-recorder';
import { fileName } from '@/core/formats/file-name';
import { Resampler } from '@/core/song/resample';
import type { Progress } from './measure-take';
import { openSound } from './open';
import { wavOf } from './sounds';

/** samples a second at which a recording is held in memory: two hours are 460 MB */
const listenRate = 16_000;
/** seconds of a recording that can be listened to */
const longest = 7200;
/** samples a second of what is given out */
const outRate = 48_000;

/** Works on a file's sound. @throws CoreError `media.no-sound` where it has none that can be decoded, `media.long` */
async function withSound<Result>(
  file: Blob,
  work: (track: InputAudioTrack, seconds: number) => Promise<Result>,
): Promise<Result> {
  const input = await openSound(file);
  try {
    const track = (await input.canRead().catch(() => false)) ? await input.getPrimaryAudioTrack() : null;
    if (!track || !(await track.canDecode()))
      return refuse(
        'media.no-sound',
        'This file holds no sound that can be decoded. Choose WAV, MP3, FLAC, Opus or M4A.',
      );
    const seconds = await input.computeDuration();
    if (seconds > longest)
      return refuse(
        'media.long',
        'This recording is longer than two hours. Cut it into shorter ones, and choose those.',
      );
    return await work(track, seconds);
  } finally {
    input.dispose();
  }
}

/** The samples of a stretch of a track, at its own rate; silence where it has none. */
async function samplesOf(track: InputAudioTrack, from: number, until: number) {
  const rate = await track.getSampleRate();
  const channels = Math.min(2, await track.getNumberOfChannels());
  const first = Math.round(from * rate);
  const planes = Array.from({ length: channels }, () => new Float32Array(Math.ceil((until - from) * rate)));
  for await (const sample of new AudioSampleSink(track).samples(Math.max(0, from), Math.max(0, until))) {
    const place = Math.round(sample.timestamp * rate) - first;
    const data = new Float32Array(sample.numberOfFrames);
    planes.forEach((plane, planeIndex) => {
      sample.copyTo(data, { planeIndex, format: 'f32-planar' });
      const skipped = Math.max(0, -place);
      const room = plane.length - Math.max(0, place);
      if (skipped < data.length && room > 0)
        plane.set(data.subarray(skipped, skipped + room), Math.max(0, place));
    });
    sample.close();
  }
  return { rate, planes };
}

/** seconds that are decoded at once */
const atOnce = 30;

/** One channel of a file's sound at the rate at which is listened. */
const heardOf = (file: Blob, onProgress: Progress): Promise<{ sound: Float32Array; seconds: number }> =>
  withSound(file, async (track, seconds) => {
    const sound = new Float32Array(Math.ceil(seconds * listenRate));
    for (let from = 0; from < seconds; from += atOnce) {
      const until = Math.min(seconds, from + atOnce);
      const { rate, planes } = await samplesOf(track, from, until);
      const mono = planes[0].map(
        (_, at) => planes.reduce((sum, plane) => sum + plane[at], 0) / planes.length,
      );
      const resampler = new Resampler(rate, listenRate);
      const parts = [mono, new Float32Array(resampler.latency)].map((part) => resampler.push(part));
      let place = Math.round(from * listenRate);
      for (const part of parts) {
        sound.set(part.subarray(0, Math.max(0, sound.length - place)), Math.min(place, sound.length));
        place += part.length;
      }
      onProgress(until / seconds);
    }
    return { sound, seconds };
  });

/**
 * Where takes lie on what a recorder beside the camera has heard.
 * @param takes their files, by ids of the caller's
 * @returns of each take where it lies, surely or not; nowhere where it has no sound that can be decoded
 * @throws CoreError `media.no-sound` where the recording has none, `media.long` where it is too long
 */
export async function layOnRecording(
  recording: File,
  takes: readonly { id: string; file: Blob }[],
  onProgress: Progress,
): Promise<FieldRecording> {
  const listening = 0.3;
  const { sound, seconds } = await heardOf(recording, (share) => onProgress(listening * share));
  const heard: Record<string, Alignment> = {};
  for (const [index, { id, file }] of takes.entries()) {
    const own = await heardOf(file, () => undefined).catch(() => null);
    heard[id] = own ? alignSound(sound, own.sound, listenRate) : { offset: 0, drift: 0, confidence: 0 };
    onProgress(listening + ((1 - listening) * (index + 1)) / takes.length);
  }
  return { name: recording.name, seconds, heard };
}

/** A take that lies on a recording. */
export type LaidTake = { name: string; seconds: number; alignment: Alignment };

/**
 * What a recording has of takes, as long as each of them and running with its clock, so that it lies under it from its
 * first picture on: WAV at 48 kHz, with a list of where each lies, in a zip.
 */
export const cutForTakes = (
  recording: File,
  takes: readonly LaidTake[],
  onProgress: Progress,
): Promise<Blob> =>
  withSound(recording, async (track) => {
    const zip = new ZipWriter(new BlobWriter('application/zip'), { useWebWorkers: false });
    const names = new Set<string>();
    for (const [index, { name, seconds, alignment }] of takes.entries()) {
      const { offset, drift } = alignment;
      const faster = 1 + drift / 1e6;
      const { rate, planes } = await samplesOf(track, offset, offset + seconds * faster + 0.1);
      const channels = planes.map((plane) => {
        const resampler = new Resampler(rate * faster, outRate);
        const parts = [plane, new Float32Array(resampler.latency)].map((part) => resampler.push(part));
        const out = new Float32Array(Math.round(seconds * outRate));
        out.set(parts[0].subarray(0, out.length));
        if (parts[0].length < out.length)
          out.set(parts[1].subarray(0, out.length - parts[0].length), parts[0].length);
        return out;
      });
      let entry = fileName(name, 'take');
      for (let number = 2; names.has(entry); number++) entry = `${fileName(name, 'take')}-${number}`;
      names.add(entry);
      await zip.add(`${entry}.wav`, new BlobReader(wavOf(channels)), { level: 0 });
      onProgress((index + 1) / takes.length);
    }
    const list = takes.map(({ name, alignment }) => ({ take: name, recording: recording.name, alignment }));
    await zip.add('takes.csv', new TextReader(recorderCsv(list)));
    return zip.close();
  });
