import { StreamTarget } from 'mediabunny';
import type { Node } from '@/core/picture/node';
import type { Size } from '@/core/geometry/size';
import { flashesOfFilm, lightsOf } from '@/core/safety/flash';
import { timeOfFrame, type Rate } from '@/core/time/rate';
import { Footage, type Source } from './footage';
import { openRenderFile } from './render-files';
import { ShotPainter } from './shot-painter';
import type { Painters } from '@/core/picture/painters';
import { laySounds, soundBetween, type SoundTask } from './sounds';
import { soundRate } from '@/core/sounds/synthesis';
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
  /** what is mixed in with it */
  sounds: SoundTask[];
  /** who paints on this device */
  painters?: Painters;
  /** of the render, which its file is called by while it grows */
  id: string;
};

/** A film, and how often it flashes in its worst second. */
export type Rendered = { blob: Blob; flashes: number };

/** Renders a shot from its originals with the song under it. */
export async function renderShot(task: RenderTask, onProgress: Progress): Promise<Rendered> {
  const footage = new Footage(task.sources);
  const place = await openRenderFile(task.id);
  const frames = task.end - task.start;
  const length = timeOfFrame(task.rate, frames);
  const laid = await laySounds(task.sounds);
  const sound =
    task.song || laid.length > 0
      ? await soundBetween(task.song, laid, timeOfFrame(task.rate, task.start), length)
      : null;
  const writer = await MovieWriter.open({
    container: task.container,
    size: task.delivery,
    bitrate: task.bitrate,
    keyEvery: 1,
    rate: task.rate,
    sound: sound && { sampleRate: soundRate, channels: sound.length },
    target: place ? new StreamTarget(place.stream, { chunked: true }) : undefined,
  });
  const painter = new ShotPainter(footage, task.delivery, task.delivery, task.painters);
  const lights: { time: number; lights: number[] }[] = [];
  let heard = 0;
  try {
    for (let frame = 0; frame < frames; frame++) {
      const picture = await painter.paint(task.tree, task.start + frame);
      lights.push({ time: timeOfFrame(task.rate, frame), lights: lightsOf(picture) });
      await writer.addFrame(picture, frame);
      // Sound goes along in step, so that neither waits long for the other in the file.
      const until = Math.min(
        sound?.[0].length ?? 0,
        Math.round(timeOfFrame(task.rate, frame + 1) * soundRate),
      );
      if (sound && until > heard) {
        await writer.addSound(
          sound.map((channel) => channel.subarray(heard, until)),
          soundRate,
          heard / soundRate,
        );
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
    painter.close();
    await footage.close();
  }
}
