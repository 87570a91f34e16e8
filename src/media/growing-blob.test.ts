import {
  BufferTarget,
  EncodedAudioPacketSource,
  EncodedPacket,
  Output,
  WavOutputFormat,
  type Target,
} from 'mediabunny';
import { expect, test } from 'vitest';
import { GrowingBlob } from './growing-blob';

/** Writes 12 MB of sound, whose header is written again at the end. */
async function write(target: Target): Promise<void> {
  const output = new Output({ format: new WavOutputFormat(), target });
  const sound = new EncodedAudioPacketSource('pcm-s16');
  output.addAudioTrack(sound);
  await output.start();
  const decoderConfig = { codec: 'pcm-s16', sampleRate: 48_000, numberOfChannels: 2 };
  for (let second = 0; second < 64; second++) {
    const data = Uint8Array.from({ length: 192_000 }, (_, at) => (at * 7 + second * 31) & 255);
    await sound.add(new EncodedPacket(data, 'key', second, 1), { decoderConfig });
  }
  await output.finalize();
}

test('a file that grows in pieces is the one that grows in a buffer, its header written over at the end', async () => {
  const [buffer, grown] = [new BufferTarget(), new GrowingBlob()];
  await Promise.all([write(buffer), write(grown.target)]);
  const file = grown.as('audio/wav');
  expect(file.type).toBe('audio/wav');
  const [bytes, wanted] = [new Uint8Array(await file.arrayBuffer()), new Uint8Array(buffer.buffer!)];
  expect(bytes.length).toBe(wanted.length);
  expect(Buffer.compare(bytes, wanted)).toBe(0);
});
