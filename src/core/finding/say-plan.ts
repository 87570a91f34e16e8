import { beatLabel } from '../time/grid';
import { sayLength } from '../units';
import type { Finding } from './finding';
import type { Names } from './say';

/** What the fixes of a plan are called. */
export const planFixes: Record<string, string> = {
  setSetup: 'Set it so',
  askedStory: 'Do not ask again',
};

/** A finding about the plan in words; undefined for any other. */
export function planWords(
  finding: Finding,
  names: Names,
  { measured, allowed }: { measured: string; allowed: string },
): string | undefined {
  const facts = finding.facts ?? {};
  const setup = finding.where.setup ? (names.things?.[finding.where.setup] ?? 'This setup') : 'This setup';
  const shot = finding.where.shot ? (names.things?.[finding.where.shot] ?? 'This shot') : 'This shot';
  const metres = (key: string) => sayLength(Number(facts[key]), names.units ?? 'metric');
  const bar = (key: string) =>
    names.grid ? beatLabel(names.grid, Number(facts[key])) : `second ${facts[key]}`;
  const stops = Number(Number(facts.stops ?? 0).toFixed(1));
  const words: Record<string, () => string> = {
    'plan.empty': () => 'Nothing is planned yet. Drag over some bars on the song to make the first moment.',
    'plan.no-setup': () =>
      'There is no setup yet: a camera, a lens, a light. Add one, and every moment says what it needs there.',
    'plan.sharp': () =>
      `${setup}: all marks are sharp, from ${metres('near')} to ${metres('far')} (${allowed} or a higher number holds them).`,
    'plan.unsharp': () =>
      `${setup}: ${facts.name} stands at ${measured}, sharp is ${metres('near')} to ${metres('far')}. f/${facts.aperture} focused at ${metres('focus')} holds every mark; it costs ${stops} stop${stops === 1 ? '' : 's'}: more light, or ISO ${facts.iso}.`,
    'plan.too-deep': () =>
      `${setup}: no f-number holds all marks, from ${metres('near')} to ${metres('far')}. Bring them closer together, step back, or use a wider lens.`,
    'plan.mark-behind': () =>
      `${facts.name} stands behind the camera of ${setup}. Drag the mark in front of it.`,
    'plan.mark-outside': () =>
      `${facts.name} stands outside the frame of ${setup}. Move the mark, step back, or use a wider lens.`,
    'plan.eye-height': () =>
      `${facts.name}: their eyes are ${measured} apart in height at one distance (allowed ${allowed}). A touch would miss: put a block under one, or change the distance.`,
    'plan.distance': () =>
      `${facts.name} stand ${measured} apart in depth (allowed ${allowed}). For a touch they need the same distance from the lens.`,
    'plan.flicker': () =>
      `${setup}: lamps on ${facts.mains} Hz mains pulse; at 1/${facts.shutter} s the light differs by up to ${measured} from picture to picture (allowed ${allowed}). Use 1/${facts.steady} s.`,
    'plan.shutter': () =>
      `${setup}: the shutter is open for ${measured} of each turn; ${facts.wide ? 'movement smears' : 'movement looks chopped'}. 180° is usual.`,
    'plan.shutter-long': () =>
      `${setup}: a shutter of 1/${facts.shutter} s is longer than a picture at ${facts.rate} a second. Use 1/${facts.steady} s.`,
    'plan.too-slow': () =>
      `${setup}: shots are slowed to ${measured}, but ${facts.rate} pictures a second only give ${allowed}. Film at ${facts.needed}.`,
    'plan.no-rate': () =>
      `${setup}: shots are slowed to ${measured}; no listed camera is that fast. Slow them less, or pictures will be doubled.`,
    'plan.playback': () =>
      `${setup}: play the song at ${measured} on the set, so that lips fit when the picture is slowed.`,
    'plan.reserve': () =>
      `${setup}: zooms, follows and shakes enlarge the picture to ${measured}; it was planned ${allowed} larger than the delivery. Film larger, or expect softness.`,
    'plan.upright': () =>
      `${setup}: an upright film keeps ${measured} of the width. Keep arms and props within the middle ${facts.pixels} px.`,
    'plan.storage': () =>
      `${setup} needs ${measured} for ${facts.minutes} min; the card holds ${allowed}. Bring another card or empty it between.`,
    'plan.battery': () =>
      `${setup} records for ${measured}; the battery lasts ${allowed}. Bring a spare or a cable.`,
    'plan.backdrop': () =>
      `${setup}: ${facts.name} does not fill the frame; ${measured} stays open at the ${facts.side}. Move it closer, or use a longer lens.`,
    'plan.footprint': () =>
      `${setup}: the ${facts.rig} needs ${allowed} round the camera, ${facts.name} is ${measured} away. Move the camera, or use something smaller.`,
    'plan.door': () =>
      `${setup}: the ${facts.rig} is ${allowed} wide, ${facts.name} only ${measured}. It will not go through.`,
    'plan.second-place': () =>
      `${setup}: the performer would be ${measured} of the size in ${facts.name}. Stand ${metres('distance')} from the lens, with the lens at ${metres('height')}.`,
    'plan.light': () =>
      `${setup}: the sun's light holds for ${measured} from ${facts.from}, filming takes ${allowed}. Start when it holds longer (${facts.best}), or film the plate beside every take.`,
    'plan.sun-down': () => `${setup}: the sun is down at ${facts.from}. Film earlier, or bring lamps.`,
    'zone.overlap': () =>
      `${setup}: the zones ${facts.one} and ${facts.other} cover each other by ${measured} (allowed ${allowed}). The copies would run into one another: move them apart.`,
    'zone.reach': () =>
      `${setup}: ${facts.one} reaches over ${facts.other} by ${measured} (allowed ${allowed}). A hand would be cut off there: move the join or the zone.`,
    'zone.moving': () =>
      `${setup}: ${facts.one} moves under ${facts.other}. The join will show: tie it down, or join elsewhere.`,
    'zone.shadow': () =>
      `${setup}: the shadow of ${facts.one} falls across ${facts.other}. It gives the trick away: move the lamp, or let the join follow the shadow.`,
    'zone.no-seam': () =>
      `${setup}: no join is drawn. Draw one along a natural line: a door frame, an edge, a corner.`,
    'zone.clear': () => `${setup}: every copy keeps to its zone, and nothing moves under a join.`,
    'order.conflict': () => `These cannot all hold: ${facts.rules}. Free one of them.`,
    'order.late': () =>
      `${shot} cannot be filmed within its daylight. Start earlier, or film it on another day.`,
    'order.over': () =>
      `Filming takes ${measured}, the day has ${allowed}. Drop takes, start earlier, or plan a second day.`,
    'order.fits': () =>
      `${facts.shots} shots in ${measured}${facts.spare ? `, ${facts.spare} to spare` : ''}: ${facts.setups} and ${facts.clothes}${facts.proved ? '; no order that keeps the rules has fewer' : ''}.`,
    'style.kinds': () =>
      `${measured} kinds of effect (advice: at most ${allowed}), ${facts.once} of them only once. A few that return make a style; many make a catalogue.`,
    'style.no-rest': () =>
      `${measured} moments follow one another without a rest, ${bar('from')} to ${bar('until')}. Leave a bar where nothing happens.`,
    'style.too-calm': () =>
      `${facts.section}: the song's energy is ${allowed}, the pictures bring ${measured}. Closer, handheld, more cuts, or a moment here.`,
    'style.too-wild': () =>
      `${facts.section}: the song's energy is ${allowed}, the pictures bring ${measured}. Let something rest here.`,
    'style.story': () => `What does ${facts.name} add to the story? One line is enough.`,
    'coverage.none': () =>
      'No performance is planned for the film between the moments. Add full passes of the song, or there is nothing to cut to.',
    'coverage.few': () =>
      `${facts.section} can be cut from ${measured} different picture${measured === '1' ? '' : 's'}; its energy asks for ${allowed}. Add another angle or size.`,
    'coverage.still': () =>
      `${facts.section} is loud, and nothing handheld or close is planned for it. Add a close, moving pass.`,
    'caution.open': () =>
      `${measured} of the cautions for this plan are not ticked yet. Read them before filming.`,
  };
  return words[finding.code]?.();
}
