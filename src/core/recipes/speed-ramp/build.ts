import type { Finding } from '../../finding/finding';
import type { MomentOf } from '../../model/records';
import { fillOf } from '../../model/slots';
import { solveRamp, type RampCode } from '../../motion/ramp';
import { blended } from '../../motion/blended';
import { gentle } from '../../motion/easing';
import { still, type Track } from '../../motion/keyframes';
import { sourceAt, timeTrack, type TimeMap } from '../../motion/time-map';
import { meanStep } from '../../footage/picture-times';
import { groupOf, type Node, type Transform } from '../../picture/node';
import { timeOfFrame } from '../../time/rate';
import { evenly, pinAnchor, spanAnchors } from '../anchors';
import type { Material } from '../material';
import type { Anchor, Ruler } from '../recipe';
import { takeNode } from '../take-node';
import { following } from './follow';
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

/** The zoom that goes in on one pose and out on the next; nothing where there is none. */
function punch(moment: RampMoment, anchors: readonly Anchor[], { project }: Ruler): Transform[] {
  const { zoom } = wholeRamp(moment.settings);
  if (zoom === 0) return [];
  const scale: Track = anchors.slice(0, -1).map(({ frame }, index) => ({
    frame,
    value: index % 2 === 1 ? 1 + zoom / 100 : 1,
    ease: gentle,
  }));
  const { width, height } = project;
  const at = still(0);
  return [{ is: 'move', size: { width, height }, x: at, y: at, rotation: at, scale, undone: false }];
}

/** The pictures of a ramp’s take that show, and what is made of two of them; null where one is shown twice instead. */
export function rampBlend(moment: RampMoment, ruler: Ruler, material: Material) {
  const times = material.takes[passSlot.key]?.measure?.times;
  const solved = rampTime(moment, ruler);
  const step = times ? meanStep(times) : 0;
  if (wholeRamp(moment.settings).lacking === 'repeats' || !times || !solved || step === 0) return null;
  const anchors = rampAnchors(moment, ruler);
  const span = { from: anchors[0].frame, until: anchors[anchors.length - 1].frame };
  const found = blended(timeTrack(solved.map, ruler.project.rate), { first: times.first, step }, span);
  return found.mixed > 0 ? found : null;
}

/** What holds the followed point of a ramp still. */
export function rampFollow(
  moment: RampMoment,
  ruler: Ruler,
  material: Material,
): ReturnType<typeof following> {
  const solved = rampTime(moment, ruler);
  const anchors = rampAnchors(moment, ruler);
  const from = anchors[0].frame;
  const { rate } = ruler.project;
  const seconds = Array.from({ length: Math.max(1, anchors[anchors.length - 1].frame - from) }, (_, index) =>
    solved ? sourceAt(solved.map, timeOfFrame(rate, from + index)) : 0,
  );
  return following(moment, material, seconds, from, ruler.project);
}

/** The picture of a ramp: its take with bent time; as it was filmed where its beats do not rise. */
export function buildRamp(moment: RampMoment, ruler: Ruler, material: Material): Node {
  const { project } = ruler;
  const anchors = rampAnchors(moment, ruler);
  const [start, last] = [anchors[0].frame, anchors[anchors.length - 1].frame];
  const end = Math.max(start + 1, last);
  const chosen = material.takes[passSlot.key] ?? null;
  const solved = rampTime(moment, ruler);
  const blend = rampBlend(moment, ruler, material);
  const moves = wholeRamp(moment.settings).lacking === 'moves';
  const time =
    (moves ? blend?.exact : blend?.under) ?? (solved ? timeTrack(solved.map, project.rate) : undefined);
  const transforms = solved
    ? [...rampFollow(moment, ruler, material).step, ...punch(moment, anchors, ruler)]
    : [];
  const name = chosen?.take.name ?? '';
  const layer = (id: string, title: string, of: Track | undefined, rest: Partial<Node> = {}) =>
    takeNode(
      project,
      id,
      `${title}: ${name}`,
      chosen,
      { from: start, until: end, at: fillOf(moment, passSlot.key).at, ...(of ? { time: of } : {}) },
      { transforms, ...rest },
    );
  const pass = layer(passSlot.key, 'Pass', time).map((node) =>
    moves && blend ? { ...node, content: { ...node.content, between: 'moves' as const } } : node,
  );
  const size = { width: project.width, height: project.height };
  return groupOf('shot', size, { from: start, until: end }, [
    ...pass,
    ...(blend && !moves ? layer('next', 'Next picture', blend.over, { opacity: blend.opacity }) : []),
  ]);
}
