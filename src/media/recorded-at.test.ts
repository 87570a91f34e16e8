import { describe, expect, it } from 'vitest';
import { recordedAt, withRecordedAt } from './recorded-at';

/** A box of an ISO file: size, name, content. */
const box = (name: string, content: Uint8Array): Uint8Array => {
  const out = new Uint8Array(8 + content.length);
  new DataView(out.buffer).setUint32(0, out.length);
  out.set(new TextEncoder().encode(name), 4);
  out.set(content, 8);
  return out;
};
const header = (seconds: number, wide = false): Uint8Array => {
  const content = new Uint8Array(100);
  const view = new DataView(content.buffer);
  view.setUint8(0, wide ? 1 : 0);
  if (wide) view.setBigUint64(4, BigInt(seconds));
  else view.setUint32(4, seconds);
  return box('mvhd', content);
};
const file = (...boxes: Uint8Array[]) => new Blob(boxes as Uint8Array<ArrayBuffer>[]);

// ISO/IEC 14496-12, 8.2.2: creation time in seconds since midnight, 1 January 1904, UTC; both widths.
describe('the time of a recording', () => {
  const noon = Date.UTC(2026, 10, 28, 12) / 1000 + 2_082_844_800;
  it.each([false, true])('is read behind other boxes, wide or not: %s', async (wide) => {
    const movie = file(
      box('ftyp', new Uint8Array(12)),
      box('mdat', new Uint8Array(500)),
      box('moov', header(noon, wide)),
    );
    expect(new Date((await recordedAt(movie)) as number).toISOString()).toBe('2026-11-28T12:00:00.000Z');
    // Another one in its place changes nothing else.
    const later = await withRecordedAt(movie, Date.UTC(2026, 10, 28, 13));
    expect(new Date((await recordedAt(later)) as number).toISOString()).toBe('2026-11-28T13:00:00.000Z');
    expect(later.size).toBe(movie.size);
    expect(await recordedAt(await withRecordedAt(later, null))).toBeNull();
  });

  it('is unknown where the camera left it empty, or where there is no such box', async () => {
    expect(await recordedAt(file(box('moov', header(0))))).toBeNull();
    expect(await recordedAt(file(box('ftyp', new Uint8Array(12))))).toBeNull();
    expect(await recordedAt(new Blob(['RIFF and so on, but no movie at all']))).toBeNull();
    expect(await recordedAt(new Blob([]))).toBeNull();
  });
});
