import { readPcm, toPcm, wavHead } from '@/core/formats/wav';
import { laySound, mixSounds, type LaidSound } from '@/core/sounds/lay';
import type { SoundName, WholeSound } from '@/core/sounds/sound';
import { soundRate, synthesise } from '@/core/sounds/synthesis';
import { mixed } from './measure-song';

/** A sound that comes with the bench, or a 48 kHz WAV, and the second of the song that it belongs to. */
export type SoundTask = { source: SoundName | Blob; settings: WholeSound; seconds: number };

/** Lays each sound on its second. */
export const laySounds = (tasks: readonly SoundTask[]): Promise<LaidSound[]> =>
  Promise.all(
    tasks.map(async ({ source, settings, seconds }) => {
      const samples =
        typeof source === 'string' ? synthesise(source) : mixed(readPcm(await source.arrayBuffer()).channels);
      return laySound(samples, settings, seconds);
    }),
  );

/** A stretch of the song with its sounds, as planar floats; silence before the song's start and after its end. */
export async function soundBetween(
  song: Blob | null,
  sounds: readonly LaidSound[],
  from: number,
  seconds: number,
): Promise<Float32Array[]> {
  const count = Math.round(seconds * soundRate);
  const channels = song ? await songBetween(song, from, count) : [new Float32Array(count)];
  mixSounds(channels, from, sounds);
  return channels;
}

async function songBetween(wav: Blob, from: number, count: number): Promise<Float32Array[]> {
  const head = await wav.slice(0, 44).arrayBuffer();
  const { channels, sampleRate } = readPcm(head);
  const bytes = channels.length * 2;
  const first = Math.round(from * sampleRate);
  const offset = 44 + Math.max(0, first) * bytes;
  const body = await wav.slice(offset, Math.max(offset, 44 + (first + count) * bytes)).arrayBuffer();
  const joined = new Uint8Array(44 + body.byteLength);
  joined.set(new Uint8Array(head));
  joined.set(new Uint8Array(body), 44);
  return readPcm(joined.buffer).channels.map((samples) => {
    const data = new Float32Array(count);
    const silent = Math.min(count, Math.max(0, -first));
    data.set(samples.subarray(0, count - silent), silent);
    return data;
  });
}

/** Sound as a WAV. */
export function wavOf(channels: readonly Float32Array[]): Blob {
  const pcm = toPcm(channels) as Int16Array<ArrayBuffer>;
  const head = wavHead(channels[0].length, channels.length, soundRate) as Uint8Array<ArrayBuffer>;
  return new Blob([head, pcm], { type: 'audio/wav' });
}

/** The sounds of a shot alone, from its first second until its last, as a WAV. */
export async function soundsAlone(tasks: readonly SoundTask[], from: number, seconds: number): Promise<Blob> {
  return wavOf(await soundBetween(null, await laySounds(tasks), from, seconds));
}

/** Seconds round a sound that are written anew with it: more than limiting reaches. */
const margin = 0.05;

/**
 * The song with sounds mixed in, as a WAV: only stretches with sounds in them are written anew.
 * @param song at 48 kHz; null where there is none
 * @param seconds that it lasts at least
 */
export async function songWithSounds(
  song: Blob | null,
  tasks: readonly SoundTask[],
  seconds: number,
): Promise<Blob> {
  const sounds = await laySounds(tasks);
  const count = song ? readPcm(await song.slice(0, 44).arrayBuffer()).channels.length : 1;
  const bytes = count * 2;
  const frames = song ? Math.floor((song.size - 44) / bytes) : Math.round(seconds * soundRate);
  const stretches = sounds
    .map(({ from, samples }) => [from - margin, from + samples.length / soundRate + margin])
    .map((ends) => ends.map((end) => Math.min(frames, Math.max(0, Math.round(end * soundRate)))))
    .sort(([a], [b]) => a - b);
  const parts: BlobPart[] = [wavHead(frames, count, soundRate) as Uint8Array<ArrayBuffer>];
  let written = 0;
  const plain = (until: number) => {
    if (until <= written) return;
    parts.push(
      song ? song.slice(44 + written * bytes, 44 + until * bytes) : new Uint8Array((until - written) * bytes),
    );
    written = until;
  };
  for (const [index, [from, to]] of stretches.entries()) {
    // Stretches that meet are one.
    const next = stretches[index + 1];
    if (next && next[0] <= to) {
      next[0] = Math.min(from, next[0]);
      next[1] = Math.max(to, next[1]);
      continue;
    }
    plain(from);
    const channels = await soundBetween(song, sounds, from / soundRate, (to - from) / soundRate);
    parts.push(toPcm(channels) as Int16Array<ArrayBuffer>);
    written = to;
  }
  plain(frames);
  return new Blob(parts, { type: 'audio/wav' });
}
