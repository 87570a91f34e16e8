import type { Setup } from '../model/plan-records';
import type { Moment } from '../model/records';
import type { Filming, FilmRecipe, ShotNeed } from '../recipes/film';
import { films } from '../recipes/films';
import { remembered, rememberedWith } from '../remember';
import { timeOfBeat } from '../time/grid';
import { frameOfTime } from '../time/rate';
import { usualDay, type PlanInput } from './plan';

/** A shot of the plan, with every moment it serves. Its id stays the same while the plan is edited. */
export type PlannedShot = ShotNeed & {
  id: string;
  setup: string;
  moments: string[];
  /** minutes from the first slate to the last cut */
  minutes: number;
  /** it follows another within one unbroken take */
  oneTake?: true;
};

/** A moment with all that it asks of the set. */
export type PlannedMoment = { moment: Moment; filming: Filming; seconds: number; frames: number };

/** Where a moment is filmed: the setup that was chosen, else the first there is; '' without any. */
export function setupOf(setups: readonly Setup[], chosen: string | null | undefined): string {
  return setups.find((setup) => setup.id === chosen)?.id ?? setups[0]?.id ?? '';
}

/** The second place of a moment: the one chosen, else the setup after its first, else the same. */
export function secondSetupOf(setups: readonly Setup[], moment: Moment): string {
  const first = setupOf(setups, moment.setup);
  const chosen = setups.find((setup) => setup.id === moment.second);
  return chosen?.id ?? setups[setups.findIndex((setup) => setup.id === first) + 1]?.id ?? first;
}

const plannedMoments = rememberedWith<Moment, PlannedMoment>();

/** Each moment with what it needs. Lengths come from the song's beats; without them a beat counts as a second. */
export const planMoments = remembered(({ project, grid, moments, day }: PlanInput): PlannedMoment[] => {
  const handle = day?.handle ?? usualDay.handle;
  return moments.map((moment) =>
    plannedMoments(moment, [project, grid, handle], () => {
      const time = (beat: number) => (grid ? timeOfBeat(grid, beat) : beat);
      const [from, until] = [time(moment.start), time(moment.end)];
      const seconds = Math.max(0.04, until - from);
      const frames = Math.max(1, frameOfTime(project.rate, until) - frameOfTime(project.rate, from));
      const recipe = films[moment.recipe] as FilmRecipe<unknown>;
      return { moment, seconds, frames, filming: recipe.film(moment.settings, { seconds, frames, handle }) };
    }),
  );
});

/** Minutes that a shot takes: every take with its reset, and a rehearsal where it can go wrong. */
function minutesOf(shot: ShotNeed, risk: number, day: PlanInput['day']): number {
  const { reset, rehearsal } = day ?? usualDay;
  const resets = shot.undoable === false ? reset * 4 : reset;
  const rehearsed = shot.what === 'action' && risk >= 2 ? rehearsal : 0;
  return Math.ceil(rehearsed + shot.takes * (shot.seconds / 60 + resets));
}

/** Within one unbroken take the parts of a moment follow one another: nothing is set back between them. */
function inOneTake(need: ShotNeed, { shots }: Filming): ShotNeed & Pick<PlannedShot, 'oneTake'> {
  const parts = (need.after ?? []).filter((key) => !shots.find((shot) => shot.key === key)?.share);
  if (need.what !== 'action' || parts.length !== 1) return need;
  const note = `Part of one unbroken take: the camera runs on. ${need.note}`;
  const after = need.after?.filter((key) => key !== parts[0]);
  return { ...need, note, straightAfter: parts[0], after, oneTake: true };
}

/** Shots of the performance: whole passes, spare whips, the same action from a second camera. */
function passShots({ passes, setups, grid, songSeconds, day }: PlanInput): PlannedShot[] {
  return passes.map((pass) => {
    const time = (beat: number | null, otherwise: number) =>
      beat === null ? otherwise : grid ? timeOfBeat(grid, beat) : beat;
    const seconds = Math.max(1, time(pass.until, songSeconds || 60) - time(pass.from, 0));
    const whole = pass.from === null && pass.until === null;
    const title = {
      pass: `${whole ? 'Whole song' : 'Part of the song'}, ${pass.size}, ${pass.angle}, ${pass.steadiness}`,
      whip: 'Spare whip in camera',
      'second camera': `Second camera, ${pass.size}, ${pass.angle}`,
    }[pass.what];
    const handle = day?.handle ?? usualDay.handle;
    const shot: ShotNeed = {
      key: pass.id,
      what: 'pass',
      title,
      note:
        pass.what === 'whip'
          ? 'Swing out of one thing and into another; the same once more the other way.'
          : 'Perform to the song from the set; clap or snap once before it starts.',
      seconds: Math.ceil((pass.what === 'whip' ? 3 : seconds) + 2 * handle),
      speed: 1,
      takes: pass.times,
      same: [],
    };
    const setup = setupOf(setups, pass.setup);
    return { ...shot, id: pass.id, setup, moments: [], minutes: minutesOf(shot, 0, day) };
  });
}

/**
 * All shots of the plan. Plates are shared by every moment of a setup; everything else belongs to one moment,
 * so that taking a moment away takes away just what nothing else needs.
 */
export const planShots = remembered((input: PlanInput): PlannedShot[] => {
  const shots = new Map<string, PlannedShot>();
  const chosen = new Map(input.choices.map((choice) => [choice.shot, choice]));
  for (const { moment, filming } of planMoments(input)) {
    const first = setupOf(input.setups, moment.setup);
    for (const need of filming.shots) {
      const setup = need.second ? secondSetupOf(input.setups, moment) : first;
      const id = need.share ? `${setup}/${need.share}` : `${moment.id}/${need.key}`;
      const before = shots.get(id);
      const unbroken = input.setups.find((one) => one.id === setup)?.approach === 'unbroken';
      const seconds = Math.max(before?.seconds ?? 0, need.seconds);
      const takes = chosen.get(id)?.takes ?? need.takes;
      const shot = { ...(unbroken ? inOneTake(need, filming) : need), seconds, takes };
      const minutes = chosen.get(id)?.minutes ?? minutesOf(shot, filming.risk, input.day);
      shots.set(id, { ...shot, id, setup, moments: [...(before?.moments ?? []), moment.id], minutes });
    }
  }
  for (const shot of passShots(input)) {
    const choice = chosen.get(shot.id);
    shots.set(shot.id, {
      ...shot,
      takes: choice?.takes ?? shot.takes,
      minutes: choice?.minutes ?? shot.minutes,
    });
  }
  return [...shots.values()];
});

/** The shots that would go with a moment, because no other moment needs them. */
export const shotsOnlyFor = (shots: readonly PlannedShot[], moment: string): PlannedShot[] =>
  shots.filter((shot) => shot.moments.length > 0 && shot.moments.every((one) => one === moment));
