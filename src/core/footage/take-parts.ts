import type { YuvMatrix } from '../picture/planes';

/** Each analyser, counted up whenever it would give the same take another answer. */
const versions = { camera: 5, motion: 2, light: 2, white: 1 };
export type AnalyserName = keyof typeof versions;
const names = Object.keys(versions) as AnalyserName[];

/** What a take can lack: its decoded pictures, or what an analyser finds in them. */
export type TakePart = 'pictures' | AnalyserName;
/** All of them, the pictures first. */
export const takeParts: readonly TakePart[] = ['pictures', ...names];

/** counted up whenever the same file would give other times, stills or proxies */
const picturesVersion = 4;

/** What a take's pictures are made from: its file, and how its colours are read where somebody chose that. */
export type TakeSource = { media: string; matrix?: YuvMatrix };

/** The key that a part of a take is kept under; it holds what it is made from. */
export const partKey = (part: TakePart, source: TakeSource): string =>
  part === 'pictures'
    ? `pictures-${picturesVersion}:${source.media}${source.matrix ? `~${source.matrix}` : ''}`
    : `${part}-${versions[part]}(${partKey('pictures', source)})`;
