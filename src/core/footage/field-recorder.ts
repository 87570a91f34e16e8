import { allowed } from '../finding/allowed';
import { writeCsv } from '../formats/csv';
import type { Alignment } from './align-sound';

/** What a recorder beside the camera heard of takes, by their files; nothing of a file that was not listened to. */
export type FieldRecording = {
  /** its file's name and seconds */
  name: string;
  seconds: number;
  heard: Readonly<Record<string, Alignment>>;
};

/** True where a take lies on a recording surely. */
export const isHeard = (found: Alignment | undefined): found is Alignment =>
  found !== undefined && found.confidence >= allowed.heard;

/**
 * By how much a take and the recorder drift apart until its end, seconds; positive where the recorder's clock is fast.
 * @param seconds of the take
 */
export const apartAtEnd = ({ drift }: Alignment, seconds: number): number => (drift * seconds) / 1e6;

/**
 * Where takes lie on recordings, for any editor.
 * @param laid a take's name and seconds, and where it lies on which recording
 */
export const recorderCsv = (
  laid: readonly { take: string; recording: string; alignment: Alignment }[],
): string =>
  writeCsv(
    ['take', 'recording', 'begins at second of recording', 'drift in parts per million', 'sure, 0 to 1'],
    laid.map(({ take, recording, alignment: { offset, drift, confidence } }) => [
      ...[take, recording, offset.toFixed(6), drift.toFixed(2), confidence.toFixed(2)],
    ]),
  );
