import type { Song } from '@/core/model/records';
import { newRecord } from '@/store/commands/projects';
import { songPartKey, songParts } from '@/core/song/parts';
import type { MeasureValue, Store } from '@/store/db';

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
  const sound = {
    duration: seconds,
    perSecond: 80,
    peaks: Float32Array.from({ length: seconds * 80 }, (_, at) => Math.abs(Math.sin(at / 7))),
    silent: false,
  };
  const hits = beats.map((time, at) => ({ time, strength: at % 4 ? 0.6 : 1, band: 'low' as const }));
  const found = { beats, downbeats: [], beatsPerBar: 4, bpm, confidence: 1, hits };
  const form = { levels: new Float32Array(seconds * 10).fill(0.1), sections: [] };
  const values: MeasureValue[] = [
    { method: 'sound', sound },
    { method: 'beats', beats: found },
    { method: 'sections', form },
  ];
  await store.writeRows(
    'measures',
    values.map((value, index) => ({
      key: songPartKey(songParts[index], 'long'),
      project,
      subject: 'long',
      value,
    })),
  );
  return {
    ...newRecord(project),
    kind: 'song',
    media: 'long',
    confidence: 1,
    grid: { beats, beatsPerBar: 4, firstDownbeat: 0 },
  };
}
