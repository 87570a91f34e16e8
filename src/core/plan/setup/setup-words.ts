import type { Words } from '../../finding/words';

/** What setups are found to be, in words. */
export const setupWords = {
  'plan.sharp': ({ setup, allowed, metres }) =>
    `${setup}: all marks are sharp, from ${metres('near')} to ${metres('far')} (refocused to ${metres('focus')}, ${allowed} or a higher number holds them).`,
  'plan.unsharp': ({ setup, facts, measured, metres, number }) =>
    `${setup}: ${facts.name} stands at ${measured}, sharp is ${metres('near')} to ${metres('far')}. f/${facts.aperture} focused at ${metres('focus')} holds every mark; it costs ${Number(number('stops'))} stop${Number(number('stops')) === 1 ? '' : 's'}: more light, or ISO ${facts.iso}.`,
  'plan.too-deep': ({ setup, metres }) =>
    `${setup}: no f-number holds all marks, from ${metres('near')} to ${metres('far')}. Bring them closer together, step back, or use a wider lens.`,
  'plan.mark-behind': ({ setup, facts }) =>
    `${facts.name} stands behind the camera of ${setup}. Drag the mark in front of it.`,
  'plan.mark-outside': ({ setup, facts }) =>
    `${facts.name} stands outside the frame of ${setup}. Move the mark, step back, or use a wider lens.`,
  'plan.eye-height': ({ facts, measured, allowed }) =>
    `${facts.name}: their eyes are ${measured} apart in height at one distance (allowed ${allowed}). A touch would miss: put a block under one, or change the distance.`,
  'plan.distance': ({ facts, measured, allowed }) =>
    `${facts.name} stand ${measured} apart in depth (allowed ${allowed}). For a touch they need the same distance from the lens.`,
  'plan.flicker': ({ setup, facts, measured, allowed }) =>
    `${setup}: lamps on ${facts.mains} Hz mains pulse; at 1/${facts.shutter} s the light differs by up to ${measured} from picture to picture (allowed ${allowed}). Use 1/${facts.steady} s.`,
  'plan.shutter': ({ setup, facts, measured }) =>
    `${setup}: the shutter is open for ${measured} of each turn; ${facts.wide ? 'movement smears' : 'movement looks chopped'}. 180° is usual.`,
  'plan.shutter-long': ({ setup, facts }) =>
    `${setup}: a shutter of 1/${facts.shutter} s is longer than a picture at ${facts.rate} a second. Use 1/${facts.steady} s.`,
  'plan.too-slow': ({ setup, facts, measured, allowed }) =>
    `${setup}: shots are slowed to ${measured}, but ${facts.rate} pictures a second only give ${allowed}. Film at ${facts.needed}.`,
  'plan.no-rate': ({ setup, measured }) =>
    `${setup}: shots are slowed to ${measured}; no listed camera is that fast. Slow them less, or pictures will be doubled.`,
  'plan.playback': ({ setup, measured }) =>
    `${setup}: play the song at ${measured} on the set for the slowest shot, so that lips fit when the picture is slowed; each shot's own speed stands on its slate.`,
  'plan.reserve': ({ setup, measured, allowed }) =>
    `${setup}: zooms, follows and shakes enlarge the picture to ${measured}; it was planned ${allowed} larger than the delivery. Film larger, or expect softness.`,
  'plan.upright': ({ setup, facts, measured }) =>
    `${setup}: an upright film keeps ${measured} of the width. Keep arms and props within the middle ${facts.pixels} px.`,
  'plan.storage': ({ setup, facts, measured, allowed }) =>
    `${setup} needs ${measured} for ${facts.minutes} min; the card holds ${allowed}. Bring another card or empty it between.`,
  'plan.battery': ({ setup, measured, allowed }) =>
    `${setup} records for ${measured}; the battery lasts ${allowed}. Bring a spare or a cable.`,
  'plan.backdrop': ({ setup, facts, measured }) =>
    `${setup}: ${facts.name} does not fill the frame; ${measured} stays open at the ${facts.side}. Move it closer, or use a longer lens.`,
  'plan.footprint': ({ setup, facts, measured, allowed }) =>
    `${setup}: the ${facts.rig} needs ${allowed} round the camera, ${facts.name} is ${measured} away. Move the camera, or use something smaller.`,
  'plan.door': ({ setup, facts, measured, allowed }) =>
    `${setup}: the ${facts.rig} is ${allowed} wide, ${facts.name} only ${measured}. It will not go through.`,
  'plan.second-place': ({ setup, facts, measured, metres }) =>
    `${setup}: the performer would be ${measured} of the size in ${facts.name}. Stand ${metres('distance')} from the lens, with the lens at ${metres('height')}.`,
} satisfies Words;

export type SetupCode = keyof typeof setupWords;
