import {
  ALL_FORMATS,
  BlobSource,
  EncodedPacketSink,
  Input,
  VideoSampleSink,
  type InputVideoTrack,
} from 'mediabunny';
import { refuse } from '@/core/error';
import type { Probe } from '@/core/model/measures';
import { checkFormat } from './formats';

export const openInput = (blob: Blob): Input =>
  new Input({ formats: ALL_FORMATS, source: new BlobSource(blob) });

/** Zero bytes after a file's end: readers of FLAC look this far ahead, and pass over a last block that is shorter. */
const lookAhead = new Uint8Array(16);

/** A file of sound, to its last block. */
export async function openSound(blob: Blob): Promise<Input> {
  const head = await blob.slice(0, 4).text();
  return openInput(head === 'fLaC' ? new Blob([blob, lookAhead]) : blob);
}

/** ISO files begin with a box named ftyp; such a file that cannot be read was cut off before its index. */
async function looksLikeMovie(blob: Blob): Promise<boolean> {
  const head = new Uint8Array(await blob.slice(4, 8).arrayBuffer());
  return String.fromCharCode(...head) === 'ftyp';
}

/**
 * What a file holds.
 * @throws CoreError `media.empty`, `media.not-media`, `media.truncated`, `media.no-pictures`, `media.codec`,
 * `media.hdr` or `media.depth`, each with what to do
 */
export async function probeFile(blob: Blob): Promise<Probe> {
  if (blob.size === 0) refuse('media.empty', 'The file is empty. Copy it from the camera again.');
  const input = await openSound(blob);
  try {
    const readable = await input.canRead().catch(() => false);
    if (!readable) {
      if (await looksLikeMovie(blob)) {
        refuse('media.truncated', 'The file breaks off before its index. Copy it from the camera again.');
      }
      refuse(
        'media.not-media',
        'This is neither sound nor video that can be read. Choose MP4, MOV, WebM, WAV, MP3 …',
      );
    }
    const tracks = await input.getTracks().catch(() => null);
    if (!tracks)
      refuse('media.truncated', 'The file breaks off before its index. Copy it from the camera again.');
    const video = await input.getPrimaryVideoTrack();
    const audio = await input.getPrimaryAudioTrack();
    if (!video && !audio) {
      if (await looksLikeMovie(blob)) {
        refuse('media.truncated', 'The file breaks off before its index. Copy it from the camera again.');
      }
      refuse('media.no-pictures', 'The file holds neither pictures nor sound. Choose another one.');
    }
    // A sound without one packet has no duration that could be looked for.
    if (!video && audio && !(await new EncodedPacketSink(audio).getFirstPacket()))
      refuse('media.truncated', 'The file breaks off before its sound. Copy or export it again.');
    const duration = await input.computeDuration();
    return {
      duration,
      video: video ? await probeVideo(video) : null,
      audio: audio
        ? {
            codec: (await audio.getCodec()) ?? 'unknown',
            sampleRate: await audio.getSampleRate(),
            channels: await audio.getNumberOfChannels(),
          }
        : null,
    };
  } finally {
    input.dispose();
  }
}

async function probeVideo(track: InputVideoTrack): Promise<NonNullable<Probe['video']>> {
  const codec = await track.getCodec();
  if (!codec || !(await track.canDecode())) {
    refuse(
      'media.codec',
      `This browser cannot decode ${(codec ?? 'its codec').toUpperCase()}. Set the camera to H.264, or convert the file to H.264.`,
    );
  }
  const first = await track.getFirstTimestamp();
  const stats = await track.computePacketStats(120);
  if (stats.packetCount === 0) {
    refuse('media.no-pictures', 'The video holds no pictures. Copy it from the camera again.');
  }
  if (await track.hasHighDynamicRange()) {
    refuse(
      'media.hdr',
      'This is HDR or wide-colour video: a film in SDR cannot hold its light. Set the camera to SDR (standard range), or convert the file to SDR, BT.709.',
    );
  }
  // What breaks off already here is said when it is measured, with where it does.
  const sample = await new VideoSampleSink(track).getSample(first).catch(() => null);
  try {
    if (sample) checkFormat(sample.format);
  } finally {
    sample?.close();
  }
  return {
    codec,
    size: { width: await track.getDisplayWidth(), height: await track.getDisplayHeight() },
    turned: await track.getRotation(),
    rate: Number.isFinite(first) ? stats.averagePacketRate : 0,
  };
}
