import { AudioSampleSink, MP3, type AudioSample, type Input } from 'mediabunny';
import { refuse } from '@/core/error';
import { mp3Delay, mp3HeadLength } from '@/core/formats/mp3-delay';
import { readPcm, toPcm, wavHead } from '@/core/formats/wav';
import type { SongSound } from '@/core/model/measures';
import { findEvents, type SoundEvent } from '@/core/song/events';
import { peaksOf } from '@/core/song/loudness';
import { analyseSong, type SongFound } from '@/core/song/analyse';
import type { SongPart } from '@/core/song/parts';
import { Resampler } from '@/core/song/resample';
import { trackBeats, type BeatHints, type BeatTrack } from '@/core/song/track';
import { openSound } from './open';
import type { Progress } from './measure-take';

/** samples a second at which sound is kept and measured */
export const songRate = 48_000;

/**
 * Samples of a track, at its own rate, that were put before its first second by its encoder and are not to be heard:
 * what is timed before zero, and in a plain MP3, which has no times, what its first frame says.
 * @param first the first decoded sample
 */
async function delayOf(blob: Blob, input: Input, first: AudioSample): Promise<number> {
  if (first.timestamp < 0) return Math.round(-first.timestamp * first.sampleRate);
  if ((await input.getFormat()) !== MP3) return 0;
  return mp3Delay(new Uint8Array(await blob.slice(0, mp3HeadLength).arrayBuffer()));
}

/** All sound of a file at 48 kHz, from its second zero: as 16-bit pieces, and mixed down to one channel. */
async function decodeSound(blob: Blob, onProgress: Progress) {
  const input = await openSound(blob);
  try {
    const track = await input.getPrimaryAudioTrack();
    if (!track || !(await track.canDecode())) {
      return refuse(
        'media.no-sound',
        'This file holds no sound that can be decoded. Choose WAV, MP3, FLAC, Opus or M4A.',
      );
    }
    const duration = await input.computeDuration();
    const channels = Math.min(2, await track.getNumberOfChannels());
    let resamplers: Resampler[] = [];
    let from = 0;
    let unheard = 0;
    let early = 0;
    const parts: Int16Array<ArrayBuffer>[] = [];
    const mono: Float32Array[] = [];
    let frames = 0;
    const take = (planes: Float32Array[]) => {
      const pcm = toPcm(planes) as Int16Array<ArrayBuffer>;
      parts.push(pcm);
      frames += planes[0].length;
      mono.push(planes[0].map((value, at) => (channels === 2 ? (value + planes[1][at]) / 2 : value)));
    };
    for await (const sample of new AudioSampleSink(track).samples()) {
      if (resamplers.length === 0) {
        unheard = await delayOf(blob, input, sample);
        early = unheard / sample.sampleRate;
      }
      if (from !== sample.sampleRate) {
        from = sample.sampleRate;
        resamplers = Array.from({ length: channels }, () => new Resampler(from, songRate));
        const lead = early > 0 ? 0 : Math.max(0, Math.round(sample.timestamp * songRate) - frames);
        if (lead > 0) take(resamplers.map(() => new Float32Array(lead)));
      }
      const skipped = Math.min(unheard, sample.numberOfFrames);
      unheard -= skipped;
      const planes = resamplers.map((resampler, channel) => {
        const data = new Float32Array(sample.numberOfFrames);
        sample.copyTo(data, { planeIndex: channel, format: 'f32-planar' });
        return resampler.push(data.subarray(skipped));
      });
      take(planes);
      onProgress(Math.min(1, sample.timestamp / Math.max(0.1, duration)));
      sample.close();
    }
    if (resamplers.length === 0)
      refuse('media.no-sound', 'Not one sample of this sound can be decoded. Export it again as WAV.');
    take(resamplers.map((resampler) => resampler.push(new Float32Array(resampler.latency))));
    return { parts, channels, frames, early, whole: join(mono, frames) };
  } finally {
    input.dispose();
  }
}

/** A song's sound, decoded. */
export type DecodedSong = {
  sound: SongSound;
  /** 48 kHz: every time of the song refers to it */
  wav: Blob;
  /** seconds before it that its encoder had put there, and that are left out */
  early: number;
};

const peaksPerSecond = 80;

/** @throws CoreError `media.no-sound` where the file has none */
async function decodeSong(blob: Blob, onProgress: Progress) {
  const { parts, channels, frames, early, whole } = await decodeSound(blob, onProgress);
  const duration = frames / songRate;
  const decoded: DecodedSong = {
    sound: {
      duration,
      perSecond: peaksPerSecond,
      peaks: peaksOf(whole, Math.ceil(duration * peaksPerSecond)),
      silent: peaksOf(whole, 1)[0] < 0.001,
    },
    wav: new Blob([wavHead(frames, channels, songRate) as Uint8Array<ArrayBuffer>, ...parts], {
      type: 'audio/wav',
    }),
    early,
  };
  return { decoded, whole };
}

/**
 * Measures whatever is missing of a song: decodes it once where that is among it, else listens to its WAV.
 * @param source the song's file where its sound is missing, else its WAV
 * @param known its beats where they are known
 * @throws CoreError `media.no-sound` where the file has none
 */
export async function measureSong(
  source: Blob,
  parts: readonly SongPart[],
  known: BeatTrack | null,
  onProgress: Progress,
): Promise<SongFound & { decoded: DecodedSong | null }> {
  const missing = parts.includes('sound');
  const { decoded, whole } = missing
    ? await decodeSong(source, (share) => onProgress(0.7 * share))
    : { decoded: null, whole: await songSoundOf(source) };
  const done = missing ? 0.7 : 0;
  const found = analyseSong(whole, songRate, parts, known, (share) => onProgress(done + (1 - done) * share));
  return { ...found, decoded };
}

/** Snaps, hits and ends of words in the sound of a take. @throws CoreError `media.no-sound` where it has none */
export async function takeEvents(blob: Blob, onProgress: Progress): Promise<SoundEvent[]> {
  return findEvents(await soundOf(blob, (share) => onProgress(0.8 * share)), songRate);
}

/** One channel of a file's sound. @throws CoreError `media.no-sound` where it has none */
export const soundOf = async (blob: Blob, onProgress: Progress): Promise<Float32Array> =>
  (await decodeSound(blob, onProgress)).whole;

/** Finds beats again in a song's WAV, so that they join the passages that are locked. */
export async function findBeatsAgain(
  wav: Blob,
  locked: NonNullable<BeatHints['locked']>,
  onProgress: Progress,
): Promise<BeatTrack> {
  return trackBeats(await songSoundOf(wav), songRate, { locked, report: onProgress });
}

/** One channel of a song's WAV. */
export async function songSoundOf(wav: Blob): Promise<Float32Array> {
  const { channels } = readPcm(await wav.arrayBuffer());
  return channels.length === 1 ? channels[0] : mixed(channels);
}

/** The mean of all channels. */
export const mixed = (channels: readonly Float32Array[]): Float32Array =>
  channels[0].map((_, at) => channels.reduce((sum, data) => sum + data[at], 0) / channels.length);

function join(parts: readonly Float32Array[], length: number): Float32Array {
  const out = new Float32Array(length);
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}
