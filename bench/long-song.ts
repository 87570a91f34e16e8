import type { Song } from '@/core/model/records';
import { newRecord } from '@/store/commands/projects';
import type { Store } from '@/store/db';
import { songKey } from '@/store/snapshot';

const bpm = 120;

/** A medium without a file, as it lies in the store. */
export const mediumOf = (project: string, id: string, audio: boolean) => ({
  id,
  project,
  name: `${id}.${audio ? 'wav' : 'mp4'}`,
  type: audio ? 'audio/wav' : 'video/mp4',
  size: 1,
  fingerprint: id,
  place: 'blob' as const,
  probe: null,
  problem: null,
  created: 0,
});

/** Keeps a song of some seconds with its measure, as the bench itself would have kept it. @returns its record */
export async function layLongSong(store: Store, project: string, seconds: number): Promise<Song> {
  const beats = Array.from({ length: (seconds * bpm) / 60 }, (_, index) => (index * 60) / bpm);
  await store.writeRows('media', [mediumOf(project, 'long', true)]);
  await store.writeRows('measures', [
    {
      key: songKey('long'),
      project,
      subject: 'long',
      value: {
        method: 'song-2',
        song: {
          duration: seconds,
          perSecond: 80,
          peaks: Float32Array.from({ length: seconds * 80 }, (_, at) => Math.abs(Math.sin(at / 7))),
          silent: false,
          levels: new Float32Array(seconds * 10).fill(0.1),
          sections: [],
        },
        beats: {
          beats,
          downbeats: [],
          beatsPerBar: 4,
          bpm,
          confidence: 1,
          hits: beats.map((time, at) => ({ time, strength: at % 4 ? 0.6 : 1, band: 'low' as const })),
        },
      },
    },
  ]);
  return {
    ...newRecord(project),
    kind: 'song',
    media: 'long',
    confidence: 1,
    grid: { beats, beatsPerBar: 4, firstDownbeat: 0 },
  };
}
