/** What can be switched on to go wrong in front of the practice camera. */
export const faultKinds = [
  'bump',
  'knock',
  'auto exposure',
  'light drifts',
  'focus breathes',
  'cloth moved',
  'over the seam',
  'hard shadow',
] as const;
export type PracticeFault = (typeof faultKinds)[number];

/** Each switch in words, and what it does to the picture. */
export const faultWords: Record<PracticeFault, { name: string; what: string }> = {
  bump: { name: 'A little bump', what: 'The tripod was touched: the camera rests 0.8 px further right.' },
  knock: { name: 'A knock', what: 'Somebody ran into the tripod: the camera swings and rests 3 px away.' },
  'auto exposure': {
    name: 'Automatic exposure',
    what: 'The camera sets its exposure by itself whenever somebody walks in.',
  },
  'light drifts': { name: 'Light drifts', what: 'A cloud: the light falls by a third of a stop.' },
  'focus breathes': {
    name: 'Focus breathes',
    what: 'The camera focuses by itself: soft for a moment, and the picture grows a little.',
  },
  'cloth moved': {
    name: 'A cloth was moved',
    what: 'The cloth on the wall hangs elsewhere than on the plate.',
  },
  'over the seam': { name: 'Over the seam', what: 'The performer walks across the join.' },
  'hard shadow': { name: 'A hard shadow', what: 'A lamp throws the performer’s shadow over the join.' },
};

/** Where the join lies on the practice set, as a share of the width. */
export const practiceSeam = 0.5;

const ease = (share: number) => {
  const t = Math.min(1, Math.max(0, share));
  return t * t * (3 - 2 * t);
};

/** What a fault does a number of seconds after it was switched on; nothing is changed by `null`. */
export type Disturbance = {
  dx: number;
  dy: number;
  rotation: number;
  scale: number;
  stops: number;
  warmth: number;
  /** radius of the softness in pixels of the film size */
  blur: number;
  cloth: number;
  walk: number;
  shadow: boolean;
};

export const undisturbed: Disturbance = {
  dx: 0,
  dy: 0,
  rotation: 0,
  scale: 1,
  stops: 0,
  warmth: 0,
  blur: 0,
  cloth: 0,
  walk: 0,
  shadow: false,
};

/** A knocked tripod swings for a moment and comes to rest elsewhere; share of where it rests. */
export const swing = (since: number): number =>
  since > 0.6 ? 1 : 1 + 1.2 * Math.exp(-since * 9) * Math.cos(since * 40);

/** The sum of what went wrong. Pixels count at the film's size. @param since seconds since each fault began */
export function disturb(since: Partial<Record<PracticeFault, number>>): Disturbance {
  const out = { ...undisturbed };
  for (const [fault, seconds] of Object.entries(since) as [PracticeFault, number][]) {
    switch (fault) {
      case 'bump':
        out.dx += 0.8;
        break;
      case 'knock':
        out.dx += 2.6 * swing(seconds);
        out.dy += 1.5 * swing(seconds);
        out.rotation += 0.04 * swing(seconds);
        break;
      case 'auto exposure':
        out.stops += 0.28 * ease(seconds / 1.5);
        break;
      case 'light drifts':
        out.stops -= 0.34 * ease(seconds / 3);
        out.warmth += 0.03 * ease(seconds / 3);
        break;
      case 'focus breathes': {
        const share = 0.5 - 0.5 * Math.cos(Math.min(1, seconds / 1.2) * Math.PI);
        out.scale *= 1 + 0.004 * share;
        out.blur += 2.6 * share;
        break;
      }
      case 'cloth moved':
        out.cloth = -34;
        break;
      case 'over the seam':
        out.walk = 190 * ease(seconds / 1.5);
        break;
      case 'hard shadow':
        out.shadow = true;
    }
  }
  return out;
}
