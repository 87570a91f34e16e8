import type { Finding } from '../../finding/finding';
import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import { solveRamp, type RampCode } from '../../motion/ramp';
import { timeTrack, type TimeMap } from '../../motion/time-map';
import { groupOf, type Node } from '../../picture/node';
import { timeOfFrame } from '../../time/rate';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { wholeRamp } from './settings';
import { passSlot, poseAnchor } from './slots';

export type RampMoment = MomentOf<'speed-ramp'>;

const titles = { start: 'Begins on', lands: 'Pose 1 on', end: 'Ends on' };

/** Numbers of the poses, from 1. */
export const posesOf = ({ settings }: RampMoment): number[] =>
  Array.from({ length: settings.poses }, (_, index) => index + 1);

/** The instants of a ramp: the first pose is where it lands; those that nobody set lie evenly until the end. */
export function rampAnchors(moment: RampMoment, ruler: Ruler): Anchor[] {
  const { lands, end, settings, pins = {} } = moment;
  const [start, first, last] = spanAnchors(moment, ruler, titles, 'Pose 1');
  const placed = posesOf(moment).map((pose) =>
    pose === 1 ? lands : (pins[poseAnchor(pose)] ?? evenly(lands, end, pose - 1, settings.poses)),
  );
  const others = posesOf(moment)
    .slice(1)
    .map((pose) =>
      pinAnchor(ruler, {
        name: poseAnchor(pose),
        title: `Pose ${pose} on`,
        position: placed[pose - 1],
        between: [placed[pose - 2], placed[pose] ?? end],
        marks: `Pose ${pose}`,
      }),
    );
  return [start, first, ...others, last];
}

/** Where a pose is in the take, in seconds: where it was marked, else where it would be had time never bent. */
export function instantOf(
  moment: RampMoment,
  ruler: Ruler,
  pose: number,
): { seconds: number; marked: boolean } {
  const marked = wholeRamp(moment.settings).instants[pose];
  if (typeof marked === 'number') return { seconds: marked, marked: true };
  const anchors = rampAnchors(moment, ruler);
  const at = (name: string) => anchors.find((anchor) => anchor.name === name)?.frame ?? 0;
  const { rate } = ruler.project;
  const since = timeOfFrame(rate, at(poseAnchor(pose)) - at('start'));
  return { seconds: fillOf(moment, passSlot.key).at + since, marked: false };
}

/** The bent time of a ramp over seconds of the film, and what had to give way; null where its beats do not rise. */
export function rampTime(
  moment: RampMoment,
  ruler: Ruler,
): { map: TimeMap; findings: Finding<RampCode>[] } | null {
  const { slow, fast, ease } = wholeRamp(moment.settings);
  const { rate } = ruler.project;
  const anchors = rampAnchors(moment, ruler);
  const songs = anchors.map(({ frame }) => timeOfFrame(rate, frame));
  if (songs.some((song, index) => index > 0 && !(song > songs[index - 1]))) return null;
  const poses = posesOf(moment).map((pose) => instantOf(moment, ruler, pose).seconds);
  const after = songs[songs.length - 1] - songs[songs.length - 2];
  const sources = [
    fillOf(moment, passSlot.key).at,
    ...poses,
    // The last pose is held to the end at its own speed.
    poses[poses.length - 1] + (after * slow) / 100,
  ];
  const points = sources.map((source, index) => ({
    source,
    song: songs[index],
    ...(index > 0 && index < sources.length - 1 ? { speed: slow / 100 } : {}),
  }));
  return solveRamp(points, { ease: ease / 100, minSpeed: 0.02, maxSpeed: fast / 100 });
}

/** The picture of a ramp: its take with bent time; as it was filmed where its beats do not rise. */
export function buildRamp(moment: RampMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const anchors = rampAnchors(moment, ruler);
  const [start, last] = [anchors[0].frame, anchors[anchors.length - 1].frame];
  const end = Math.max(start + 1, last);
  const chosen = material.takes[passSlot.key] ?? null;
  const solved = rampTime(moment, ruler);
  const size = { width: project.width, height: project.height };
  return groupOf(
    'shot',
    size,
    { from: start, until: end },
    takeNode(project, passSlot.key, `Pass: ${chosen?.take.name ?? ''}`, chosen, {
      from: start,
      until: end,
      at: fillOf(moment, passSlot.key).at,
      ...(solved ? { time: timeTrack(solved.map, project.rate) } : {}),
    }),
  );
}
