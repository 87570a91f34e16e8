import { lightHolds, sunDay } from '../../camera/sun';
import type { Setup } from '../../model/plan-records';
import { clockTime, instantOf } from '../../time/zone';
import { orderJobs, type Changes, type Order } from './order';
import { usualDay, type PlanInput } from '../plan';
import type { Job, Rule, Why } from './rule';
import { rulesOf } from './rules';
import { planShots, type PlannedShot } from '../shots';

/** Why a shot stands where it stands. `other` is the shot or setup that decides. */
export type Reason = {
  why: Why | 'opens the setup' | 'same clothes' | 'same moment' | 'song order' | 'same setup' | 'window';
  other?: string;
};

/** One line of the timetable; milliseconds where a day is set. */
export type Slot = {
  shot: PlannedShot;
  reason: Reason;
  /** minutes from the start of the day */
  from: number;
  until: number;
  newSetup: boolean;
  newClothes: boolean;
  /** it cannot be done within its daylight */
  late: boolean;
};

export type Schedule = {
  task: OrderTask;
  slots: Slot[];
  order: Order | null;
  /** rules that contradict each other; then the shots stand as they are listed */
  conflict: Rule[];
  minutes: number;
  /** minutes that the day has; null while there is no day */
  available: number | null;
  /** instant at which the day starts; null while there is no day */
  start: number | null;
};

const minute = 60_000;

/** Start and end of the day as instants: an end before the start lies on the next day. */
export function dayOf(day: NonNullable<PlanInput['day']>): { start: number; end: number } {
  const start = instantOf(day.date, day.start, day.zone);
  const end = instantOf(day.date, day.end, day.zone);
  return { start, end: end > start ? end : instantOf(day.date, day.end, day.zone, 1) };
}

/** When daylight suits a setup outside: from sunrise, or the start of the day, until sunset. Minutes. */
function daylight(setup: Setup | undefined, day: PlanInput['day']): Job['window'] {
  if (setup?.place !== 'outside' || !day || day.latitude === null || day.longitude === null) return undefined;
  const { start } = dayOf(day);
  const sun = sunDay({ latitude: day.latitude, longitude: day.longitude }, start);
  if (sun.sunrise === null || sun.sunset === null) return undefined;
  return { from: Math.max(0, (sun.sunrise - start) / minute), until: (sun.sunset - start) / minute };
}

function reasonOf(
  index: number,
  slots: readonly PlannedShot[],
  about: readonly Rule[],
  windowed: boolean,
): Reason {
  const shot = slots[index];
  const before = slots[index - 1];
  if (shot.share === 'first plate') return { why: 'plate first' };
  if (shot.share === 'last plate') return { why: 'plate last' };
  const locked = about.find((rule) => rule.why === 'locked');
  if (locked?.tight && locked.then === shot.id) return { why: 'locked', other: locked.first };
  if (locked && !locked.tight && locked.first === shot.id) return { why: 'locked' };
  const tight = about.find((rule) => rule.tight && rule.then === shot.id);
  if (tight) return { why: tight.why, other: tight.first };
  if (shot.undoable === false) return { why: 'cannot be undone' };
  const layered = about.find((rule) => rule.why === 'back to front' && rule.then === shot.id);
  if (layered) return { why: 'back to front', other: layered.first };
  if (shot.dressing) return { why: 'performer first' };
  const needed = about.find((rule) => rule.why === 'needs' && rule.then === shot.id);
  if (needed) return { why: 'needs', other: needed.first };
  if (windowed && before?.setup !== shot.setup) return { why: 'window' };
  if (before?.setup !== shot.setup) return { why: 'opens the setup', other: shot.setup };
  if (shot.clothes && before.clothes === shot.clothes) return { why: 'same clothes', other: before.id };
  const [moment] = shot.moments;
  if (moment === undefined || shot.what === 'sound') return { why: 'same setup', other: shot.setup };
  return !before.share && before.moments.includes(moment)
    ? { why: 'same moment', other: moment }
    : { why: 'song order' };
}

/** What has to be put in order: jobs, rules, and what changes cost. */
export type OrderTask = { jobs: Job[]; rules: Rule[]; changes: Changes };

function orderTask(input: PlanInput, shots: readonly PlannedShot[]): OrderTask {
  const { setUp, changing } = input.day ?? usualDay;
  const times = new Map(input.moments.map((moment) => [moment.id, moment.start]));
  const setups = new Map(input.setups.map((setup, index) => [setup.id, { setup, index }]));
  const jobs = shots.map((shot): Job => {
    const place = setups.get(shot.setup);
    const window = daylight(place?.setup, input.day);
    return {
      id: shot.id,
      setup: shot.setup,
      clothes: shot.clothes ?? '',
      minutes: shot.minutes,
      rank:
        (place?.index ?? 0) * 1e6 + (times.get(shot.moments[0]) ?? 1e5) + (shot.what === 'sound' ? 2e5 : 0),
      ...(window ? { window } : {}),
    };
  });
  return { jobs, rules: rulesOf(shots, input.choices), changes: { setUp, changing } };
}

/**
 * Shots in the order of filming, each with its reason and its time.
 * @param known an order that was found elsewhere for this very task, if there is one
 */
export function scheduleOf(input: PlanInput, known?: (task: OrderTask) => Order | undefined): Schedule {
  const shots = planShots(input);
  const task = orderTask(input, shots);
  const { jobs, rules } = task;
  const { setUp, changing } = task.changes;
  const better = known?.(task);
  const found = better ? { order: better } : orderJobs(jobs, rules, task.changes);
  const about = new Map<string, Rule[]>(shots.map(({ id }) => [id, []]));
  for (const rule of rules) {
    about.get(rule.then)?.push(rule);
    if (rule.why === 'locked') about.get(rule.first)?.push(rule);
  }
  const byId = new Map(shots.map((shot) => [shot.id, shot]));
  const order = 'order' in found ? found.order : null;
  const row = order ? order.ids.flatMap((id) => byId.get(id) ?? []) : shots;
  const windows = new Map(jobs.map((job) => [job.id, job.window]));
  let [at, clothes] = [0, ''];
  const slots = row.map((shot, index): Slot => {
    const newSetup = row[index - 1]?.setup !== shot.setup;
    const newClothes = Boolean(shot.clothes && clothes && shot.clothes !== clothes);
    clothes = shot.clothes ?? clothes;
    const ready = at + (newSetup ? setUp : 0) + (newClothes ? changing : 0);
    const from = Math.max(ready, windows.get(shot.id)?.from ?? 0);
    at = from + shot.minutes;
    const late = at > (windows.get(shot.id)?.until ?? Infinity) + 1e-9;
    return {
      shot,
      reason: reasonOf(index, row, about.get(shot.id) ?? [], windows.get(shot.id) !== undefined),
      from,
      until: at,
      newSetup,
      newClothes,
      late,
    };
  });
  const day = input.day && dayOf(input.day);
  return {
    task,
    slots,
    order,
    conflict: 'conflict' in found ? found.conflict : [],
    minutes: at,
    available: day && (day.end - day.start) / minute,
    start: day?.start ?? null,
  };
}

/** A slot's time of day, "18:40"; minutes from the start without a day. */
export function slotClock(schedule: Schedule, minutes: number, day: PlanInput['day']): string {
  if (schedule.start === null || !day) {
    const whole = Math.round(minutes);
    return `+${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
  }
  return clockTime(schedule.start + minutes * minute, day.zone);
}

/** For how many minutes of a setup's slots sunlight stays within the allowed change; null inside. */
export function lightFor(schedule: Schedule, input: PlanInput, setup: Setup) {
  const { day } = input;
  if (setup.place !== 'outside' || !day || day.latitude === null || day.longitude === null) return null;
  const mine = schedule.slots.filter(({ shot }) => shot.setup === setup.id);
  if (schedule.start === null || mine.length === 0) return null;
  const from = schedule.start + mine[0].from * minute;
  const until = schedule.start + mine[mine.length - 1].until * minute;
  const holds = lightHolds({ latitude: day.latitude, longitude: day.longitude }, from, day);
  return { from, until, holds, needed: (until - from) / minute, there: (holds - from) / minute };
}
