import { expose, transfer } from 'comlink';
import type { Task } from '@/core/footage/task';
import { buildPlate } from '@/media/build-plate';
import { compareRepeat } from '@/media/compare-repeat';
import { compareTake } from '@/media/compare-take';
import { clickTrack, songWithClick } from '@/media/click-track';
import { cutPart } from '@/media/cut-part';
import { levelsOf } from '@/media/levels';
import { findBeatsAgain, measureSong, takeEvents } from '@/media/measure-song';
import { filmOfStill } from '@/media/film-of-still';
import { cutForTakes, layOnRecording } from '@/media/field-recorder';
import { findJoins, joinInMotion } from '@/media/find-joins';
import type { Source } from '@/media/footage';
import { findBodies } from '@/media/find-bodies';
import { findLips, type Sung } from '@/media/find-lips';
import { findPlayback } from '@/media/find-playback';
import { measureTake, type Progress } from '@/media/measure-take';
import { probeFile } from '@/media/open';
import { motionIn } from '@/media/region-motion';
import { packBundle, unpackBundle } from '@/media/bundle-zip';
import { sheetAt } from '@/media/picture-sheet';
import { platePictures, quickCheck } from '@/media/quick-check';
import { solveTask } from '@/media/solve-task';
import { songWithSounds, soundsAlone } from '@/media/sounds';
import { takeApart } from '@/media/take-apart';
import { peopleBeside } from './people-beside';
import { plainErrors } from './plain-errors';

const api = plainErrors({
  probeFile,
  filmOfStill,
  measureTake,
  measureSong,
  findBeatsAgain,
  songWithClick,
  clickTrack,
  songWithSounds,
  soundsAlone,
  takeApart,
  levelsOf,
  sheetAt,
  cutPart,
  takeEvents,
  findPlayback,
  motionIn,
  layOnRecording,
  cutForTakes,
  findBodies: (film: Blob, times: Float64Array, onProgress: Progress) =>
    findBodies(film, times, peopleBeside.find, onProgress),
  findLips: (film: Blob, times: Float64Array, sung: Sung, onProgress: Progress) =>
    findLips(film, times, sung, peopleBeside, onProgress),
  compareTake,
  compareRepeat,
  buildPlate,
  findJoins,
  joinInMotion: async (...asked: Parameters<typeof joinInMotion>) => {
    const images = await joinInMotion(...asked);
    return transfer(images, images);
  },
  solveTask: (task: Task, sources: readonly Source[], onProgress: Progress) =>
    solveTask(task, sources, onProgress, peopleBeside),
  platePictures,
  quickCheck,
  packBundle,
  unpackBundle,
});
export type MediaApi = typeof api;
expose(api);
