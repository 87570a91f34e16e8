import {
  EncodedAudioPacketSource,
  EncodedPacketSink,
  EncodedVideoPacketSource,
  Mp4OutputFormat,
  MovOutputFormat,
  Output,
  QTFF,
  WebMOutputFormat,
  type EncodedPacket,
  type InputAudioTrack,
  type InputVideoTrack,
} from 'mediabunny';
import { refuse } from '@/core/error';
import type { Stretch } from '@/core/footage/action';
import { GrowingBlob } from './growing-blob';
import { openInput } from './open';
import { withRecordedAt } from './recorded-at';

/** A part of a file by itself, and the second of the file that it begins with. */
export type CutPart = { blob: Blob; from: number };

/** Copies pictures from a key picture to the end of a part, in the order in which they are decoded, none left out. */
async function copyPictures(
  track: InputVideoTrack,
  source: EncodedVideoPacketSource,
  key: EncodedPacket,
  until: number,
): Promise<void> {
  const decoderConfig = (await track.getDecoderConfig()) ?? undefined;
  let last = -Infinity;
  for await (const packet of new EncodedPacketSink(track).packets(key)) {
    // What is decoded after it and shown before it belongs to it; a later picture is the next that others are made from.
    if (packet.timestamp >= until && packet.timestamp > last) break;
    last = Math.max(last, packet.timestamp);
    // Pictures before the key picture need some that are not in the part.
    if (packet.timestamp < key.timestamp) continue;
    await source.add(packet.clone({ timestamp: packet.timestamp - key.timestamp }), { decoderConfig });
  }
  source.close();
}

/** Copies the sound between two seconds. */
async function copySound(
  track: InputAudioTrack,
  source: EncodedAudioPacketSource,
  { from, until }: Stretch,
): Promise<void> {
  const sink = new EncodedPacketSink(track);
  const decoderConfig = (await track.getDecoderConfig()) ?? undefined;
  const first = (await sink.getPacket(from)) ?? (await sink.getFirstPacket());
  for await (const packet of first ? sink.packets(first) : []) {
    if (packet.timestamp >= until) break;
    if (packet.timestamp < from) continue;
    await source.add(packet.clone({ timestamp: packet.timestamp - from }), { decoderConfig });
  }
  source.close();
}

/** The kind of file that holds what a file holds, without another coding. */
async function formatFor(input: ReturnType<typeof openInput>, mime: string) {
  if (/webm|matroska/.test(await input.getMimeType()))
    return { format: new WebMOutputFormat(), type: 'video/webm' };
  return (await input.getFormat()) === QTFF
    ? { format: new MovOutputFormat({ fastStart: false }), type: 'video/quicktime' }
    : { format: new Mp4OutputFormat({ fastStart: false }), type: mime || 'video/mp4' };
}

/**
 * Copies a part of a film into a file of its own, picture for picture and sound as they were recorded, from the key
 * picture before it: a camera has one every second or so.
 * @param recorded when the film was begun, in milliseconds since 1970
 * @throws CoreError `media.part` where such a file cannot be written
 */
export async function cutPart(film: Blob, stretch: Stretch, recorded: number | null): Promise<CutPart> {
  const input = openInput(film);
  try {
    const track = await input.getPrimaryVideoTrack();
    const codec = track && (await track.getCodec());
    const { format, type } = await formatFor(input, film.type);
    if (!track || !codec || !format.getSupportedVideoCodecs().includes(codec))
      return refuse(
        'media.part',
        'This kind of film cannot be divided here. Divide it in another program, then bring its parts in.',
      );
    const sink = new EncodedPacketSink(track);
    const key =
      (await sink.getKeyPacket(stretch.from, { verifyKeyPackets: true })) ?? (await sink.getFirstPacket());
    if (!key || key.timestamp >= stretch.until)
      return refuse('media.part', 'There is no picture between these seconds. Choose others.');
    const from = key.timestamp;
    const sound = await input.getPrimaryAudioTrack();
    const heard = sound && (await sound.getCodec());
    const grown = new GrowingBlob();
    const output = new Output({ format, target: grown.target });
    const seen = new EncodedVideoPacketSource(codec);
    output.addVideoTrack(seen, { rotation: await track.getRotation() });
    const ears =
      heard && format.getSupportedAudioCodecs().includes(heard) ? new EncodedAudioPacketSource(heard) : null;
    if (ears) output.addAudioTrack(ears);
    await output.start();
    await Promise.all([
      copyPictures(track, seen, key, stretch.until),
      sound && ears ? copySound(sound, ears, { from, until: stretch.until }) : null,
    ]);
    await output.finalize();
    const begun = recorded === null ? null : recorded + 1000 * from;
    return { blob: await withRecordedAt(grown.as(type), begun), from };
  } finally {
    input.dispose();
  }
}
