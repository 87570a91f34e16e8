/** "4.2 MB", "1.3 GB": millions and thousands of millions of bytes. */
export function sayBytes(bytes: number): string {
  const [value, unit] = bytes >= 1e9 ? [bytes / 1e9, 'GB'] : [bytes / 1e6, 'MB'];
  return `${value.toFixed(value < 10 ? 1 : 0)} ${unit}`;
}
