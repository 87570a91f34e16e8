/**
 * Stored values as text and back, with typed arrays and blobs. Both functions are also run inside pages, and so
 * refer to nothing outside themselves.
 */
export async function pack(value: unknown): Promise<string> {
  const blobs = new Map<Blob, string>();
  const code = (bytes: Uint8Array) => {
    let text = '';
    for (let at = 0; at < bytes.length; at += 32768)
      text += String.fromCharCode(...bytes.subarray(at, at + 32768));
    return btoa(text);
  };
  const visit = async (one: unknown): Promise<void> => {
    if (one instanceof Blob) blobs.set(one, code(new Uint8Array(await one.arrayBuffer())));
    else if (one && typeof one === 'object' && !ArrayBuffer.isView(one))
      for (const part of Object.values(one)) await visit(part);
  };
  await visit(value);
  return JSON.stringify(value, function (this: Record<string, unknown>, key, plain: unknown) {
    const one = this[key];
    if (one instanceof Blob) return { $: 'Blob', type: one.type, data: blobs.get(one) };
    if (ArrayBuffer.isView(one))
      return {
        $: one.constructor.name,
        data: code(new Uint8Array(one.buffer, one.byteOffset, one.byteLength)),
      };
    return plain;
  });
}

export function unpack(text: string): unknown {
  type Packed = { $: string; type: string; data: string };
  const bytes = (data: string) => {
    const letters = atob(data);
    const out = new Uint8Array(letters.length);
    for (let at = 0; at < letters.length; at++) out[at] = letters.charCodeAt(at);
    return out;
  };
  const views: Record<string, new (buffer: ArrayBuffer) => unknown> = {
    Float64Array,
    Float32Array,
    Uint8Array,
    Uint8ClampedArray,
    Int32Array,
    Uint32Array,
    Uint16Array,
  };
  return JSON.parse(text, (_, one: unknown) => {
    if (!one || typeof one !== 'object' || !('$' in one)) return one;
    const { $, type, data } = one as Packed;
    if ($ === 'Blob') return new Blob([bytes(data)], { type });
    return new views[$](bytes(data).buffer as ArrayBuffer);
  });
}
