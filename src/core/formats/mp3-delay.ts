/** Samples that every MP3 decoder adds before the first one of the music. */
const decoderDelay = 529;

/** Bytes of the tag that an MP3 may begin with. @see ID3v2.3.0, section 3.1 */
function tagLength(bytes: Uint8Array): number {
  if (bytes.length < 10 || String.fromCharCode(...bytes.subarray(0, 3)) !== 'ID3') return 0;
  const size = bytes.subarray(6, 10).reduce((sum, byte) => (sum << 7) | (byte & 0x7f), 0);
  return 10 + size + (bytes[5] & 0x10 ? 10 : 0);
}

/**
 * Samples, at the file's own rate, that a decoded MP3 has before its music begins: what the encoder put there, as its
 * first frame says, and what decoders add. 0 where the file does not say.
 * @param head the beginning of the file, with at least its first frame
 * @see Bouvigne 2003, "Mp3 Info Tag rev 1 specifications"; ISO/IEC 11172-3, section 2.4.1.3
 */
export function mp3Delay(head: Uint8Array): number {
  let at = tagLength(head);
  while (at + 4 < head.length && !(head[at] === 0xff && (head[at + 1] & 0xe0) === 0xe0)) at++;
  const isFirst = ((head[at + 1] ?? 0) & 0x18) === 0x18;
  const isMono = ((head[at + 3] ?? 0) & 0xc0) === 0xc0;
  const side = isFirst ? (isMono ? 17 : 32) : isMono ? 9 : 17;
  const info = at + 4 + side;
  const name = String.fromCharCode(...head.subarray(info, info + 4));
  if (name !== 'Xing' && name !== 'Info') return 0;
  const flags = head[info + 7] ?? 0;
  const skipped = (flags & 1 ? 4 : 0) + (flags & 2 ? 4 : 0) + (flags & 4 ? 100 : 0) + (flags & 8 ? 4 : 0);
  const encoder = info + 8 + skipped;
  const delay = encoder + 21;
  if (delay + 2 > head.length || head[encoder] === 0) return 0;
  return ((head[delay] << 4) | (head[delay + 1] >> 4)) + decoderDelay;
}

/** Bytes of a file that {@link mp3Delay} needs: the first frame, behind a tag with a picture. */
export const mp3HeadLength = 4_000_000;
