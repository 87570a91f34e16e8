import { sayLength, type Units } from '../units';
import type { PoseMatch, Step } from './compare-poses';

/** Metres to a side from which on a step to that side is worth a word. */
const worth = 0.02;

/** How far something is to go, as the picture shows it: "4 cm further left, 6 cm lower". */
function sayStep({ right, down }: Step, units: Units): string {
  const ways: [number, string][] = [
    [right, right < 0 ? 'further left' : 'further right'],
    [down, down < 0 ? 'higher' : 'lower'],
  ];
  return ways
    .filter(([metres]) => Math.abs(metres) >= worth)
    .sort(([a], [b]) => Math.abs(b) - Math.abs(a))
    .map(([metres, way]) => `${sayLength(Math.abs(metres), units)} ${way}`)
    .join(', ');
}

/**
 * What is to be done to stand as before, the most telling first: the whole body, then its distance, then its parts.
 * @returns sentences' parts; none where everything is in place
 */
export function poseSteps({ whole, size, parts }: PoseMatch, units: Units): string[] {
  const percent = Math.round(Math.abs(1 / size - 1) * 100);
  return [
    ...(whole ? [`stand ${sayStep(whole, units)}`] : []),
    ...(size > 1 ? [`come nearer, you are ${percent} % too small`] : []),
    ...(size < 1 ? [`stand further back, you are ${percent} % too large`] : []),
    ...parts.map((one) => `${one.part} ${sayStep(one, units)}`),
  ];
}

/**
 * The next thing to do, and whether that is all: "Left foot 4 cm further left, then you stand as before". What is not
 * seen is never said to be in place.
 */
export function sayPose(match: PoseMatch, units: Units): string {
  const [first, ...more] = poseSteps(match, units);
  const { unseen } = match;
  const all = unseen.length === 0;
  const rest = all ? '' : `; not seen: ${unseen.join(', ')}`;
  if (!first) return all ? 'You stand as before' : `What is seen stands as before${rest}`;
  const begun = first[0].toUpperCase() + first.slice(1);
  if (more.length > 0) return begun;
  return `${begun}, then ${all ? 'you stand' : 'what is seen stands'} as before${rest}`;
}
