import { apertureFor, angleOfView, depthOfField, matchedDistance, widthInFrame } from '../../camera/lens';
import {
  flickerShare,
  isoFor,
  markedAperture,
  shutterAngle,
  steadyShutter,
  stopsBetween,
} from '../../camera/exposure';
import { coloursIn, rankScreens, readColour } from '../../camera/key-colour';
import { pictureReserve, uprightShare, type Draw } from '../../camera/reserve';
import { circleOfConfusion, usedSensor } from '../../camera/sensors';
import { blurLength, captureRateFor, playbackSpeed, slowestSpeed } from '../../camera/speed';
import { supplies } from '../../camera/storage';
import { backdropGaps, depthOf, frameOf, tapeTo, type View } from '../../camera/view';
import type { Mark, Setup } from '../../model/plan-records';
import { usualDay, type PlanInput } from '../plan';
import { planMoments, planShots, secondSetupOf, setupOf, type PlannedMoment } from '../shots';

/** The camera of a setup as the room sees it. */
export const viewOf = (setup: Setup): View => ({
  sensor: usedSensor(setup.sensor, setup.capture),
  focal: setup.focal,
  height: setup.height,
  tilt: setup.tilt,
});

/** Where a mark falls: feet and eyes in the frame (null behind the camera), tape and depth in metres. */
export function placeMark(setup: Setup, { x, y, stature }: Mark) {
  const view = viewOf(setup);
  const eyes = stature * eyeShare;
  return {
    feet: frameOf(view, { x, y, z: 0 }),
    eyes: frameOf(view, { x, y, z: eyes }),
    top: frameOf(view, { x, y, z: stature }),
    tape: tapeTo({ x, y }),
    depth: depthOf(view, { x, y, z: eyes }),
    eyeHeight: eyes,
  };
}
/** Height of the eyes as a share of the stature. Common proportion of figure drawing, no published source. */
export const eyeShare = 0.936;

/** Focus and f-number that hold every mark, and what that costs against what is set. */
function depthNumbers(setup: Setup, depths: readonly number[]) {
  const circle = circleOfConfusion(setup.sensor);
  const { focal, aperture, focus } = setup;
  const sharp = depthOfField({ focal, aperture, focus, circle });
  if (depths.length === 0) return { sharp, needed: null };
  const [near, far] = [Math.min(...depths), Math.max(...depths)];
  const wanted = apertureFor({ focal, circle }, near, Math.max(far, near + 0.01));
  const marked = markedAperture(wanted.aperture);
  const stops = marked === null ? Infinity : Math.max(0, stopsBetween(aperture, marked));
  return { sharp, needed: { ...wanted, marked, stops, iso: isoFor(setup.iso, stops), near, far } };
}

/**
 * Everything that eats picture in the moments of a setup, the worst of each name. An upright film of as many
 * pixels has the wide picture's width for its height, and is that much larger than what was filmed.
 */
function drawsOf(
  planned: readonly PlannedMoment[],
  { upright, width, height }: PlanInput['project'],
): Draw[] {
  const most = new Map<string, number>();
  if (upright && width > height) most.set('upright cut', width / height);
  for (const { filming } of planned)
    for (const { name, scale } of filming.draws.filter((draw) => draw.scale > 1))
      most.set(name, Math.max(most.get(name) ?? 1, scale));
  return [...most].map(([name, scale]) => ({ name, scale }));
}

/** The distance and lens height that repeat another place's picture of the performer. */
function matchNumbers(setup: Setup, input: PlanInput) {
  const model = input.setups.find((one) => one.id === setup.matches);
  const marksOf = (id: string) => input.marks.filter((mark) => mark.setup === id);
  const [mark] = model ? marksOf(model.id) : [];
  if (!model || !mark) return null;
  const depth = placeMark(model, mark).depth;
  if (depth <= 0) return null;
  const distance = matchedDistance(
    { sensorWidth: viewOf(model).sensor.width, focal: model.focal, distance: depth },
    { sensorWidth: viewOf(setup).sensor.width, focal: setup.focal },
  );
  const [own] = marksOf(setup.id);
  const actual = own ? placeMark(setup, own).depth : setup.focus;
  return {
    model: model.id,
    distance,
    height: model.height,
    tilt: model.tilt,
    actual,
    size: distance / actual,
  };
}

/** Every number of a setup that follows from the plan. */
export function setupNumbers(input: PlanInput, setup: Setup) {
  const view = viewOf(setup);
  const mains = input.day?.mains ?? usualDay.mains;
  const marks = input.marks.filter((mark) => mark.setup === setup.id);
  const placed = marks.map((mark) => ({ mark, ...placeMark(setup, mark) }));
  // Nearer than the focal length nothing can be focused at all.
  const depths = placed.map(({ depth }) => depth).filter((depth) => depth > setup.focal / 1000);
  const planned = planMoments(input).filter(
    ({ moment, filming }) =>
      setupOf(input.setups, moment.setup) === setup.id ||
      (filming.shots.some((shot) => shot.second) && secondSetupOf(input.setups, moment) === setup.id),
  );
  const shots = planShots(input).filter((shot) => shot.setup === setup.id);
  const slowest = Math.min(1, ...shots.map((shot) => shot.speed));
  const minutes = shots.reduce((sum, shot) => sum + (shot.takes * shot.seconds) / 60, 0);
  const travel = Math.max(0, ...planned.map(({ filming }) => filming.travel));
  const draws = drawsOf(planned, input.project);
  const open = 1 / setup.shutter;
  const distance = depths.length > 0 ? Math.min(...depths) : setup.focus;
  return {
    view,
    marks: placed,
    planned,
    shots,
    ...depthNumbers(setup, depths),
    frame: {
      angle: angleOfView(view.sensor.width, setup.focal),
      distance,
      width: widthInFrame(view.sensor.width, setup.focal, distance),
    },
    shutter: {
      angle: shutterAngle(open, setup.capture.rate),
      flicker: flickerShare(open, mains),
      steady: steadyShutter(open, mains),
      mains,
    },
    speed: {
      slowest,
      possible: slowestSpeed(setup.capture.rate, input.project.rate),
      needed: captureRateFor(input.project.rate, slowest),
      playback: playbackSpeed(slowest),
    },
    reserve: {
      draws,
      ...pictureReserve(draws, setup.capture, input.project),
      upright: uprightShare(input.project),
    },
    blur: { travel, pixels: blurLength(travel * input.project.width, open) },
    supplies: { minutes, ...supplies(minutes, setup.capture.megabits, setup) },
    screens: rankScreens(coloursIn(setup.colours).map(readColour)),
    match: matchNumbers(setup, input),
    backdrops: input.pieces
      .filter((piece) => piece.setup === setup.id && piece.what === 'backdrop')
      .map((piece) => ({ piece, gaps: backdropGaps(view, piece) })),
  };
}

export type SetupNumbers = ReturnType<typeof setupNumbers>;
