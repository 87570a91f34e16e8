import { AudioSampleSink } from 'mediabunny';
import { perSecond } from '@/core/footage/parts';
import { openInput } from './open';
import type { Progress } from './measure-take';

/**
 * How loud a film is all along: root mean square of its first channel, a tenth of a second each.
 * @returns null where it has no sound, or none that this browser decodes
 */
export async function levelsOf(film: Blob, onProgress: Progress): Promise<Float32Array | null> {
  const input = openInput(film);
  try {
    const track = await input.getPrimaryAudioTrack();
    if (!track || !(await track.canDecode())) return null;
    const seconds = await input.computeDuration();
    const count = Math.max(1, Math.ceil(seconds * perSecond));
    const [sums, heard] = [new Float64Array(count), new Uint32Array(count)];
    for await (const sample of new AudioSampleSink(track).samples()) {
      const data = new Float32Array(sample.numberOfFrames);
      sample.copyTo(data, { planeIndex: 0, format: 'f32-planar' });
      const { timestamp, sampleRate } = sample;
      sample.close();
      for (let at = 0; at < data.length; at++) {
        const place = Math.floor((timestamp + at / sampleRate) * perSecond);
        if (place < 0 || place >= count) continue;
        sums[place] += data[at] ** 2;
        heard[place]++;
      }
      onProgress(Math.min(1, timestamp / Math.max(0.1, seconds)));
    }
    return Float32Array.from(sums, (sum, place) => Math.sqrt(sum / Math.max(1, heard[place])));
  } finally {
    input.dispose();
  }
}
