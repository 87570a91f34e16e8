import type { Changes } from './order';
import type { Job } from './rule';

/** Minutes from the start of the first day. */
export type Span = { from: number; until: number };

/** When a shot is filmed. */
export type Place = Span & {
  /** days after the first */
  day: number;
  newSetup: boolean;
  newClothes: boolean;
  /** it cannot be done within its daylight */
  late: boolean;
  /** it cannot be done within a day at all */
  over: boolean;
};

/** The days that there are to film on: when each begins and ends, and when it is light for a job. */
export type Days = { span: (day: number) => Span; light: (id: string, day: number) => Span | undefined };

type Standing = { day: number; at: number; setup: string | null; clothes: string };

/** Lays jobs one after another on one day, without regard to its end. */
function inTurn(jobs: readonly Job[], changes: Changes, standing: Standing, days: Days | null) {
  let { at, setup, clothes } = standing;
  const { day } = standing;
  const end = days?.span(day).until ?? Infinity;
  const places = jobs.map((job): Place => {
    const newSetup = job.setup !== setup;
    const newClothes = Boolean(job.clothes && clothes && job.clothes !== clothes);
    const light = days ? days.light(job.id, day) : job.window;
    const ready = at + (newSetup ? changes.setUp : 0) + (newClothes ? changes.changing : 0);
    // Light that begins after the day has ended is none.
    const dark = light !== undefined && light.from >= end;
    const from = dark ? ready : Math.max(ready, light?.from ?? 0);
    at = from + job.minutes;
    setup = job.setup;
    clothes = job.clothes || clothes;
    return {
      from,
      until: at,
      day,
      newSetup,
      newClothes,
      late: dark || at > (light?.until ?? Infinity) + 1e-9,
      over: at > end + 1e-9,
    };
  });
  return { places, standing: { day, at, setup, clothes } };
}

/** Jobs in groups: a new one wherever `breaks` says so of a job and the one before it. */
function grouped(jobs: readonly Job[], breaks: (job: Job, before: Job) => boolean): Job[][] {
  const groups: Job[][] = [];
  jobs.forEach((job, index) => {
    if (index === 0 || breaks(job, jobs[index - 1])) groups.push([job]);
    else groups[groups.length - 1].push(job);
  });
  return groups;
}

/**
 * Gives jobs that are in order their times. What does not fit a day goes on to the next: a whole setup where
 * that fits one, else what cannot be parted of it.
 * @param glued ids of jobs that follow the one before with nothing between
 * @param days null while no day is set: then there is no end
 */
export function layOut(
  jobs: readonly Job[],
  glued: ReadonlySet<string>,
  changes: Changes,
  days: Days | null,
): Place[] {
  const places: Place[] = [];
  let standing: Standing = { day: 0, at: 0, setup: null, clothes: '' };
  const fits = (found: readonly Place[]) => found.every(({ late, over }) => !late && !over);
  const tomorrow = (): Standing => {
    const day = standing.day + 1;
    return { day, at: days?.span(day).from ?? 0, setup: null, clothes: '' };
  };
  /** Whether jobs want to wait for the next day: they do not fit today and would fit then. */
  const waits = (group: readonly Job[]) =>
    days !== null &&
    !fits(inTurn(group, changes, standing, days).places) &&
    fits(inTurn(group, changes, tomorrow(), days).places);
  /** Whether what is too long for any day would at least begin one. */
  const begins = (group: readonly Job[]) =>
    places.at(-1)?.day === standing.day &&
    inTurn(group, changes, standing, days).places.some(({ over }) => over);
  for (const run of grouped(jobs, (job, before) => job.setup !== before.setup)) {
    if (waits(run)) standing = tomorrow();
    for (const block of grouped(run, (job) => !glued.has(job.id))) {
      if (waits(block) || begins(block)) standing = tomorrow();
      const laid = inTurn(block, changes, standing, days);
      places.push(...laid.places);
      standing = laid.standing;
    }
  }
  return places;
}
