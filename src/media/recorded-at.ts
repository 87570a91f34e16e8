/** Seconds from the epoch of ISO files (1904) to 1970. */
const epoch = 2_082_844_800;

/** Where a movie's header says when it was recorded: the byte, and whether in eight bytes; null where it has none. */
async function placeOf(file: Blob): Promise<{ at: number; wide: boolean } | null> {
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
      return { at: start + 12, wide: inner.getUint8(8) === 1 };
    }
    at += size;
  }
  return null;
}

/**
 * When a recording was made by its camera's clock, from the movie header.
 * @returns milliseconds since 1970; null where the file has no such header, or its camera left it empty
 * @see ISO/IEC 14496-12, 8.2.2 (movie header box)
 */
export async function recordedAt(file: Blob): Promise<number | null> {
  const place = await placeOf(file);
  if (!place) return null;
  const view = new DataView(await file.slice(place.at, place.at + 8).arrayBuffer());
  const seconds = place.wide ? Number(view.getBigUint64(0)) : view.getUint32(0);
  return seconds > epoch ? (seconds - epoch) * 1000 : null;
}

/**
 * A movie with another time of recording in its header; a file without one stays as it is.
 * @param recorded milliseconds since 1970; null for none
 */
export async function withRecordedAt(file: Blob, recorded: number | null): Promise<Blob> {
  const place = await placeOf(file);
  if (!place) return file;
  const seconds = recorded === null ? 0 : Math.round(recorded / 1000) + epoch;
  const bytes = new DataView(new ArrayBuffer(place.wide ? 8 : 4));
  if (place.wide) bytes.setBigUint64(0, BigInt(seconds));
  else bytes.setUint32(0, seconds);
  const after = place.at + bytes.byteLength;
  return new Blob([file.slice(0, place.at), bytes.buffer, file.slice(after)], { type: file.type });
}
