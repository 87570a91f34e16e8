/** Bytes of a name before its ending: every file system takes 255 in all. */
const most = 120;

/**
 * A name that every file system takes, in any script: "Out to the yard" becomes "out-to-the-yard".
 * @param otherwise where nothing of the name can be kept
 */
export function fileName(text: string, otherwise = 'film'): string {
  const words = text
    .normalize('NFC')
    .toLowerCase()
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '');
  const encoder = new TextEncoder();
  let [kept, bytes] = ['', 0];
  for (const { segment } of new Intl.Segmenter().segment(words)) {
    bytes += encoder.encode(segment).length;
    if (bytes > most) break;
    kept += segment;
  }
  return kept.replace(/-+$/, '') || otherwise;
}
