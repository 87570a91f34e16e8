/** Seconds from the epoch of ISO files (1904) to 1970. */
const epoch = 2_082_844_800;

/**
 * When a recording was made by its camera's clock, from the movie header.
 * @returns milliseconds since 1970; null where the file has no such header, or its camera left it empty
 * @see ISO/IEC 14496-12, 8.2.2 (movie header box)
 */
export async function recordedAt(file: Blob): Promise<number | null> {
  let at = 0;
  // A handful of boxes lie side by side at the top of a movie.
  for (let box = 0; box < 64 && at + 16 <= file.size; box++) {
    const head = new DataView(await file.slice(at, at + 16).arrayBuffer());
    const name = String.fromCharCode(...[4, 5, 6, 7].map((byte) => head.getUint8(byte)));
    const short = head.getUint32(0);
    const size = short === 1 ? Number(head.getBigUint64(8)) : short === 0 ? file.size - at : short;
    if (size < 8) return null;
    if (name === 'moov') {
      const start = at + (short === 1 ? 16 : 8);
      const inner = new DataView(await file.slice(start, start + 28).arrayBuffer());
      if (inner.byteLength < 28 || inner.getUint32(4) !== 0x6d766864) return null;
      const wide = inner.getUint8(8) === 1;
      const seconds = wide ? Number(inner.getBigUint64(12)) : inner.getUint32(12);
      return seconds > epoch ? (seconds - epoch) * 1000 : null;
    }
    at += size;
  }
  return null;
}
