import type { CloneSettings } from '../../model/clone';
import type { CloneMoment } from '../../model/records';
import type { Recipe, Sentence } from '../recipe';
import { buildClone, cloneAnchors } from './build';
import { examineClone } from './examine';
import { explainClone } from './explain';
import { cloneFilm } from './film';
import { otherSide, type CloneMaterial } from './material';

/** The moment in a sentence; each field is edited where it stands. */
function sayClone(moment: CloneMoment): Sentence {
  const { first, fade } = moment.settings;
  const copy = otherSide(first);
  return [
    'From ',
    { field: 'start' },
    ' she is on the ',
    { field: 'first', role: first },
    ' in ',
    { field: `${first}Take`, role: first },
    ' from ',
    { field: `${first}In`, role: first },
    '. Her copy appears on ',
    { field: 'lands', role: copy },
    fade > 0 ? ' over ' : ', ',
    { field: 'fade', role: copy },
    ', in ',
    { field: `${copy}Take`, role: copy },
    ' from ',
    { field: `${copy}In`, role: copy },
    '. Both stay until ',
    { field: 'end' },
    ', with ',
    { field: 'plate' },
    ' behind them; the join is ',
    { field: 'feather' },
    ' soft.',
  ];
}

/** A performer meets a copy of themself: two takes of one locked camera, joined along a seam. */
export const clone: Recipe<CloneMoment, CloneMaterial, CloneSettings> = {
  ...cloneFilm,
  anchors: cloneAnchors,
  say: sayClone,
  build: buildClone,
  examine: examineClone,
  explain: explainClone,
};
