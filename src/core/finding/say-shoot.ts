import type { Finding } from './finding';
import type { Names } from './say';

/** "to the right and down" by the larger parts of a shift, or what a change of size means. */
function movement(facts: Record<string, string | number>): string {
  const [dx, dy, scale] = ['dx', 'dy', 'scale'].map((key) => Number(facts[key] ?? 0));
  const grown = (scale - 1) * 640;
  if (Math.abs(grown) > Math.hypot(dx, dy)) return grown > 0 ? 'by growing' : 'by shrinking';
  if (Math.abs(dx) >= Math.abs(dy)) return dx > 0 ? 'to the right' : 'to the left';
  return dy > 0 ? 'down' : 'up';
}

/** A finding of the set in words; undefined for any other. */
export function shootWords(
  finding: Finding,
  names: Names,
  { measured, allowed, at }: { measured: string; allowed: string; at: string },
): string | undefined {
  const facts = finding.facts ?? {};
  const value = finding.measured?.value ?? 0;
  const setup = finding.where.setup ? (names.things?.[finding.where.setup] ?? 'This setup') : 'This setup';
  const words: Record<string, () => string> = {
    'watch.moved': () => {
      const way = movement(facts);
      return way.startsWith('by')
        ? `The picture changed size${at}: its corners lie ${measured} off (allowed ${allowed}). Somebody zoomed, or the camera focuses by itself. Hold the focus and film the plate again.`
        : `The camera moved ${measured} ${way}${at} (allowed ${allowed}). The join will show. Put it back until this goes, or film the plate again.`;
    },
    'watch.light': () =>
      `The light is ${measured} ${value > 0 ? 'brighter' : 'darker'} than on the plate${at} (allowed ${allowed}). Hold the exposure, wait for the cloud, or film the plate again.`,
    'watch.colour': () =>
      `The colour is ${measured} off the plate${at} (allowed ${allowed}). Lock the white balance, or turn off the lamp that came on.`,
    'watch.soft': () =>
      `The picture has ${measured} of the plate’s sharpness${at} (at least ${allowed}). Lock the focus, wipe the lens.`,
    'watch.view': () =>
      `This is not the plate’s view: ${measured} of the picture fits${at} (at least ${allowed}). Turn back to it, or film a plate here.`,
    'watch.crossing': () =>
      `The performer reaches over ${facts.seam}${at}. A hand would be cut off there: a moving mask for those frames, or keep off it.`,
    'watch.shadow': () =>
      `A shadow falls over ${facts.seam}${at}. It gives the trick away: move the lamp or stand further off.`,
    'watch.changed': () =>
      `Something stands or hangs elsewhere than on the plate${at}, ${measured} of the picture. Put it back, or film the plate again.`,
    'watch.nothing': () => 'Not one picture of this clip could be read. Choose another one.',
    'watch.good': () =>
      `This clip can be used: the camera stood (${measured} at most), the light held (${Math.abs(Number(facts.stops ?? 0)).toFixed(2)} stop), nobody crossed the join.`,
    'pass.first': () =>
      `This is the first pass: ${measured}, ${facts.pictures} pictures. Every later one is held against it.`,
    'pass.short': () =>
      'The pass was too short to be held against. Start it again and let it run to its end.',
    'pass.other': () =>
      `Only ${measured} of this pass shows the first one’s view. Start from the same mark, the same way round.`,
    'pass.late': () =>
      `This pass runs ${measured} ${value > 0 ? 'behind' : 'ahead of'} the first one (allowed ${allowed}). It can be moved on the timeline; start on the count next time.`,
    'pass.uneven': () =>
      `This pass speeds up or slows down by up to ${measured} against the first one (allowed ${allowed}). Repeat it, slower.`,
    'pass.drift': () =>
      `This pass lies ${measured} beside the first one${at} (allowed ${allowed}). Check the rail and the floor there, and repeat it.`,
    'pass.fits': () =>
      `This pass follows the first one: ${measured} beside it at most (allowed ${allowed}), corrected picture by picture.`,
    'strike.moment': () =>
      `${facts.name} is given up: ${facts.lacks} was not filmed. That is ${measured} of the film (${facts.frames} frames)${Number(facts.takes) > 0 ? `, and ${facts.takes} take${facts.takes === 1 ? '' : 's'} for nothing` : ''}.`,
    'strike.maybe': () =>
      `${facts.shot} rests on a take that is only a maybe. Once more, while everything stands.`,
    'strike.plate': () =>
      `${facts.shot} is missing: every edge of ${facts.moments} moment${facts.moments === 1 ? '' : 's'} must be drawn by hand, frame by frame, and what steadying uncovers stays black.`,
    'strike.drift': () => `${facts.shot} is missing: how far light and camera drifted cannot be measured.`,
    'strike.late-plate': () => `${facts.shot} is missing; the one at the end stands in for it.`,
    'strike.sound': () => `${facts.shot} was not recorded: it has to be made afterwards.`,
    'strike.pass': () => `${facts.shot} was not filmed: less to cut to between the moments.`,
    'strike.variation': () =>
      `${facts.shot} lacks ${facts.names}: if none of the others fits, there is nothing to fall back on.`,
    'strike.pickup': () => `${facts.shot} was not filmed again. ${facts.why}`,
    'shoot.missing': () =>
      `${setup}: ${measured} of ${facts.of} shots have no good take yet. Next: ${facts.next}.`,
    'shoot.ready': () => `${setup}: every shot has a good take. This set may be struck.`,
    'shoot.given': () => `${setup} was struck without ${measured} of its shots.`,
    'shoot.draft': () =>
      `${measured} take${value === 1 ? '' : 's'} of ${setup} ${value === 1 ? 'is a draft' : 'are drafts'}: the browser could not hold exposure, focus or white balance. Use ${value === 1 ? 'it' : 'them'} to try the moment, and film with the camera’s own application.`,
  };
  return words[finding.code]?.();
}
