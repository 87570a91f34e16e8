import type { FilmRecipe } from './film';
import { buildUp } from './build-up';
import { whipFilm } from './built-whip/film';
import { cameraWhip } from './camera-whip';
import { cloneFilm } from './clone/film';
import { coverFilm } from './cover-swap/film';
import { creepOrbit } from './creep-orbit';
import { flash } from './flash';
import { flyingCutout } from './flying-cutout';
import { freezeFilm } from './freeze-stack/film';
import { ghostFilm } from './ghost-trail/film';
import { hiddenWipe } from './hidden-wipe';
import { isolate } from './isolate';
import { lightHits } from './light-hits';
import { revealFilm } from './masked-reveal/film';
import { pushPull } from './push-pull';
import { shake } from './shake';
import { rampFilm } from './speed-ramp/film';
import { splitFilm } from './split-screen/film';
import { leapFilm } from './take-off/film';
import { vanish } from './vanish';

/** Every kind of moment, as it is filmed. A new kind is one line here, a folder and a weave. */
export const films = {
  clone: cloneFilm,
  'masked-reveal': revealFilm,
  'cover-swap': coverFilm,
  'freeze-stack': freezeFilm,
  'take-off': leapFilm,
  'built-whip': whipFilm,
  'camera-whip': cameraWhip,
  'hidden-wipe': hiddenWipe,
  'speed-ramp': rampFilm,
  'split-screen': splitFilm,
  'ghost-trail': ghostFilm,
  flash,
  shake,
  'push-pull': pushPull,
  vanish,
  'flying-cutout': flyingCutout,
  'build-up': buildUp,
  'light-hits': lightHits,
  isolate,
  'creep-orbit': creepOrbit,
} as const;

export type MomentKind = keyof typeof films;

/** A kind as it is filmed, whatever its settings are. */
export const filmOf = (kind: MomentKind): FilmRecipe<unknown> => films[kind] as FilmRecipe<unknown>;

/** What a new moment of a kind is called. */
export const calledOf = (kind: MomentKind): string => filmOf(kind).called ?? filmOf(kind).title;

export const momentKinds = Object.keys(films) as MomentKind[];
