import { takeWords } from '../footage/take-words';
import { bodyWords } from '../people/body-words';
import { adviceWords } from '../plan/advice/advice-words';
import { orderWords } from '../plan/order/order-words';
import { planWords } from '../plan/plan-words';
import { setupWords } from '../plan/setup/setup-words';
import { zoneWords } from '../plan/setup/zone-words';
import { builtWords } from '../recipes/built';
import { soundWords } from '../recipes/examine-sounds';
import { playbackWords } from '../recipes/examine-playback';
import { framingWords } from '../recipes/framing';
import { repeatWords } from '../recipes/examine-repeats';
import { smoothWords } from '../recipes/smoothing';
import { grainWords } from '../recipes/held-grain';
import { softnessWords } from '../recipes/held-softness';
import { veilWords } from '../recipes/veils';
import { handWords } from '../hand/examine';
import { flashWords } from '../safety/flash-words';
import { shootWords } from '../shoot/shoot-words';
import { songWords } from '../song/song-words';
import { passWords } from '../watch/pass-words';
import { watchWords } from '../watch/watch-words';
import type { Finding, FixCommand } from './finding';
import { tellingOf, type Names, type Words } from './words';

/** All findings that there are, in words. */
export const books: readonly Words[] = [
  takeWords,
  bodyWords,
  songWords,
  planWords,
  setupWords,
  zoneWords,
  orderWords,
  adviceWords,
  watchWords,
  passWords,
  shootWords,
  ...builtWords,
  flashWords,
  soundWords,
  playbackWords,
  framingWords,
  handWords,
  veilWords,
  grainWords,
  softnessWords,
  smoothWords,
  repeatWords,
];
const words: Words = Object.assign({}, ...books);

/** What the fixes are called, by their commands. */
export const fixNames: Record<FixCommand, string> = {
  setSetup: 'Set it so',
  askedStory: 'Do not ask again',
  steadyTake: 'Steady it',
  unsteadyTake: 'Leave it as filmed',
  matchTake: 'Match it to the plate',
  unmatchTake: 'Leave it as filmed',
  readColours: 'Read them the other way',
  repeatMove: 'Hold takes against it picture by picture',
  standStill: 'Hold them against one picture of it',
  buildPlate: 'Put one together from the takes',
  leaveOut: 'Leave it out',
  startEarlier: 'Start it earlier',
  frameMoment: 'Push the frame to them',
  fitMoment: 'Make it as short as there is room',
  followFall: 'Follow what falls',
  layOnSong: 'Lay it on the song',
  layInStep: 'Lay it in step',
  keepShadows: 'Keep the shadows',
  hideShadows: 'Hide the shadows',
  evenHeld: 'Even it out',
  leaveHeld: 'Leave it as it is',
  readBeatsOtherwise: 'Read it so',
  dropMedia: 'Take it off the list',
};

/** A finding in words: what, how much, allowed, so what, do this. Numbers in delivery pixels. */
export function sayFinding(finding: Finding, names: Names): { text: string; fix: string | null } {
  const telling = tellingOf(finding, names);
  // What a file was refused with is said in its own words.
  const text = words[finding.code]?.(telling) ?? `${telling.facts.name}: ${telling.facts.message}`;
  return { text, fix: finding.fix ? fixNames[finding.fix.command] : null };
}
