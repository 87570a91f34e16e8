import { StreamTarget } from 'mediabunny';
import { readPcm } from '@/core/formats/wav';
import type { Node } from '@/core/picture/node';
import type { Size } from '@/core/geometry/size';
import { flashesOfFilm, lightsOf } from '@/core/safety/flash';
import { timeOfFrame, type Rate } from '@/core/time/rate';
import { Footage, type Source } from './footage';
import { openRenderFile } from './render-files';
import { ShotPainter } from './shot-painter';
import { mimeOf, MovieWriter, type Container } from './writer';
import type { Progress } from './measure-take';

type RenderTask = {
  tree: Node;
  /** frames of the film, end excluded */
  start: number;
  end: number;
  delivery: Size;
  rate: Rate;
  container: Container;
  /** bits a second */
  bitrate: number;
  sources: Source[];
  /** the song's 48 kHz WAV; null for a shot without sound */
  song: Blob | null;
  /** of the render, which its file is called by while it grows */
  id: string;
};

/** A piece of the song as planar floats; silence before its start and after its end. */
async function songPiece(wav: Blob, from: number, seconds: number) {
  const head = await wav.slice(0, 44).arrayBuffer();
  const { channels, sampleRate } = readPcm(head);
  const bytes = channels.length * 2;
  const first = Math.round(from * sampleRate);
  const count = Math.round(seconds * sampleRate);
  const offset = 44 + Math.max(0, first) * bytes;
  const body = await wav.slice(offset, Math.max(offset, 44 + (first + count) * bytes)).arrayBuffer();
  const joined = new Uint8Array(44 + body.byteLength);
  joined.set(new Uint8Array(head));
  joined.set(new Uint8Array(body), 44);
  const piece = readPcm(joined.buffer).channels;
  const data = new Float32Array(count * channels.length);
  piece.forEach((samples, channel) =>
    data.set(samples.subarray(0, count), channel * count + Math.max(0, -first)),
  );
  return { data, count, channels: channels.length, sampleRate };
}

/** A film, and how often it flashes in its worst second. */
export type Rendered = { blob: Blob; flashes: number };

/** Renders a shot from its originals with the song under it. */
export async function renderShot(task: RenderTask, onProgress: Progress): Promise<Rendered> {
  const footage = new Footage(task.sources);
  const place = await openRenderFile(task.id);
  const frames = task.end - task.start;
  const length = timeOfFrame(task.rate, frames);
  const sound = task.song && (await songPiece(task.song, timeOfFrame(task.rate, task.start), length));
  const writer = await MovieWriter.open({
    container: task.container,
    size: task.delivery,
    bitrate: task.bitrate,
    keyEvery: 1,
    rate: task.rate,
    sound: sound && { sampleRate: sound.sampleRate, channels: sound.channels },
    target: place ? new StreamTarget(place.stream, { chunked: true }) : undefined,
  });
  const painter = new ShotPainter(footage, task.delivery);
  const lights: { time: number; lights: number[] }[] = [];
  let heard = 0;
  try {
    for (let frame = 0; frame < frames; frame++) {
      const picture = await painter.paint(task.tree, task.start + frame);
      lights.push({ time: timeOfFrame(task.rate, frame), lights: lightsOf(picture) });
      await writer.addFrame(picture, frame);
      // Sound goes along in step, so that neither waits long for the other in the file.
      const until = sound
        ? Math.min(sound.count, Math.round(timeOfFrame(task.rate, frame + 1) * sound.sampleRate))
        : 0;
      if (sound && until > heard) {
        const part = new Float32Array((until - heard) * sound.channels);
        for (let channel = 0; channel < sound.channels; channel++) {
          part.set(
            sound.data.subarray(channel * sound.count + heard, channel * sound.count + until),
            channel * (until - heard),
          );
        }
        await writer.addSound(part, sound.channels, sound.sampleRate, heard / sound.sampleRate);
        heard = until;
      }
      onProgress((frame + 1) / frames);
    }
    const buffered = await writer.finish();
    const file = buffered ?? (await (place as NonNullable<typeof place>).file());
    return { blob: new Blob([file], { type: mimeOf[task.container] }), flashes: flashesOfFilm(lights) };
  } catch (error) {
    await writer.cancel().catch(() => undefined);
    throw error;
  } finally {
    await footage.close();
  }
}
