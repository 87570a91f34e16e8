import { refuse } from '../error';

/** The head of a 16-bit PCM WAV file for `frames` sample frames. @see RIFF WAVE, fmt and data chunks */
export function wavHead(frames: number, channels: number, sampleRate: number): Uint8Array {
  const bytes = frames * channels * 2;
  const head = new DataView(new ArrayBuffer(44));
  const text = (at: number, value: string) =>
    [...value].forEach((c, i) => head.setUint8(at + i, c.charCodeAt(0)));
  text(0, 'RIFF');
  head.setUint32(4, 36 + bytes, true);
  text(8, 'WAVEfmt ');
  head.setUint32(16, 16, true);
  head.setUint16(20, 1, true);
  head.setUint16(22, channels, true);
  head.setUint32(24, sampleRate, true);
  head.setUint32(28, sampleRate * channels * 2, true);
  head.setUint16(32, channels * 2, true);
  head.setUint16(34, 16, true);
  text(36, 'data');
  head.setUint32(40, bytes, true);
  return new Uint8Array(head.buffer);
}

/** Interleaved 16-bit samples of planar floats -1..1. */
export function toPcm(channels: readonly Float32Array[]): Int16Array {
  const out = new Int16Array(channels[0].length * channels.length);
  channels.forEach((data, channel) => {
    for (let at = 0; at < data.length; at++) {
      out[at * channels.length + channel] = Math.round(Math.min(1, Math.max(-1, data[at])) * 32767);
    }
  });
  return out;
}

/** Planar floats of a file that {@link wavHead} and {@link toPcm} wrote. */
export function readPcm(bytes: ArrayBuffer): { channels: Float32Array[]; sampleRate: number } {
  const view = new DataView(bytes);
  if (view.byteLength < 44 || view.getUint32(0, false) !== 0x52494646 || view.getUint16(34, true) !== 16) {
    refuse('wav', 'This is not a 16-bit WAV file. Bring the song in again.');
  }
  const count = view.getUint16(22, true);
  const samples = new Int16Array(bytes, 44, Math.floor((view.byteLength - 44) / 2));
  const channels = Array.from({ length: count }, (_, channel) =>
    Float32Array.from(
      { length: Math.floor(samples.length / count) },
      (_, at) => samples[at * count + channel] / 32767,
    ),
  );
  return { channels, sampleRate: view.getUint32(24, true) };
}
