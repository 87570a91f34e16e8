/** What a song can lack: its decoded sound, or what an analyser finds in it. */
export const songParts = ['sound', 'beats', 'sections'] as const;
export type SongPart = (typeof songParts)[number];

/** counted up whenever the same file would give another answer */
const versions: Record<SongPart, number> = { sound: 1, beats: 3, sections: 1 };
const madeFrom = { beats: 'sound', sections: 'beats' } as const;

/** The key that a part of a song is kept under; it holds what it is made from. @param media id of its file */
export const songPartKey = (part: SongPart, media: string): string =>
  part === 'sound'
    ? `sound-${versions.sound}:${media}`
    : `${part}-${versions[part]}(${songPartKey(madeFrom[part], media)})`;
