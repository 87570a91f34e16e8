import { lightHolds, sunDay } from '../../camera/sun';
import type { Setup } from '../../model/plan-records';
import { clockTime, instantOf } from '../../time/zone';
import { orderJobs, type Changes, type Order } from './order';
import { usualDay, type PlanInput } from '../plan';
import { layOut, type Days, type Place, type Span } from './lay-out';
import { reasonOf, type Reason } from './reason';
import type { Job, Rule } from './rule';
import { rulesOf } from './rules';
import { planShots, type PlannedShot } from '../shots';

/** One line of the timetable; milliseconds where a day is set. */
export type Slot = Place & { shot: PlannedShot; reason: Reason };

export type Schedule = {
  task: OrderTask;
  slots: Slot[];
  order: Order | null;
  /** rules that contradict each other; then the shots stand as they are listed */
  conflict: Rule[];
  /** minutes of work on each day of filming, waiting for daylight included */
  days: Span[];
  /** minutes that a day has; null while there is no day */
  available: number | null;
  /** instant at which the day starts; null while there is no day */
  start: number | null;
};

const minute = 60_000;

/**
 * Start and end of a day of filming as instants: an end before the start lies on the next date.
 * @param later days after the first
 */
export function dayOf(day: NonNullable<PlanInput['day']>, later = 0): { start: number; end: number } {
  const start = instantOf(day.date, day.start, day.zone, later);
  const end = instantOf(day.date, day.end, day.zone, later);
  return { start, end: end > start ? end : instantOf(day.date, day.end, day.zone, later + 1) };
}

/**
 * When daylight suits a setup outside: from sunrise, or the start of the day, until sunset. A day of filming
 * that goes over midnight takes the light of the date that gives it more of it.
 * @param later days after the first
 */
function daylight(setup: Setup | undefined, day: PlanInput['day'], later: number): Span | undefined {
  if (setup?.place !== 'outside' || !day || day.latitude === null || day.longitude === null) return undefined;
  const spot = { latitude: day.latitude, longitude: day.longitude };
  const { start } = dayOf(day);
  const filmed = dayOf(day, later);
  const lights = [later, later + 1].map((date) => sunDay(spot, instantOf(day.date, '12:00', day.zone, date)));
  const shared = ({ sunrise, sunset }: (typeof lights)[number]) =>
    Math.max(0, Math.min(filmed.end, sunset ?? 0) - Math.max(filmed.start, sunrise ?? Infinity));
  const { sunrise, sunset } = shared(lights[1]) > shared(lights[0]) ? lights[1] : lights[0];
  if (sunrise === null || sunset === null) return undefined;
  return {
    from: (Math.max(filmed.start, sunrise) - start) / minute,
    until: (sunset - start) / minute,
  };
}

/** What has to be put in order: jobs, rules, and what changes cost. */
export type OrderTask = { jobs: Job[]; rules: Rule[]; changes: Changes };

function orderTask(input: PlanInput, shots: readonly PlannedShot[]): OrderTask {
  const { setUp, changing } = input.day ?? usualDay;
  const times = new Map(input.moments.map((moment) => [moment.id, moment.start]));
  const setups = new Map(input.setups.map((setup, index) => [setup.id, { setup, index }]));
  const jobs = shots.map((shot): Job => {
    const place = setups.get(shot.setup);
    const window = daylight(place?.setup, input.day, 0);
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
  const { jobs, rules, changes } = task;
  const better = known?.(task);
  const found = better ? { order: better } : orderJobs(jobs, rules, changes);
  const order = 'order' in found ? found.order : null;
  const byId = new Map(shots.map((shot, index) => [shot.id, { shot, job: jobs[index] }]));
  const row = (order?.ids ?? shots.map(({ id }) => id)).flatMap((id) => byId.get(id) ?? []);
  const days = input.day && daysOf(input, input.day, new Map(shots.map(({ id, setup }) => [id, setup])));
  const glued = new Set(rules.filter(({ tight }) => tight).map(({ then }) => then));
  const places = layOut(
    row.map(({ job }) => job),
    glued,
    changes,
    days,
  );
  const about = new Map<string, Rule[]>(shots.map(({ id }) => [id, []]));
  for (const rule of rules) {
    about.get(rule.then)?.push(rule);
    if (rule.why === 'locked') about.get(rule.first)?.push(rule);
  }
  const starts = new Map(input.moments.map((moment) => [moment.id, moment.start]));
  const inOrder = row.map(({ shot }) => shot);
  const slots = inOrder.map((shot, index): Slot => ({
    ...places[index],
    shot,
    reason: order
      ? reasonOf(index, inOrder, about.get(shot.id) ?? [], {
          start: (moment) => starts.get(moment) ?? 0,
          lit: byId.get(shot.id)?.job.window !== undefined && !places[index].late,
        })
      : { why: 'listed' },
  }));
  const day = input.day && dayOf(input.day);
  return {
    task,
    slots,
    order,
    conflict: 'conflict' in found ? found.conflict : [],
    days: [...new Set(places.map((place) => place.day))].map((one) => ({
      from: days?.span(one).from ?? 0,
      until: Math.max(...places.filter((place) => place.day === one).map(({ until }) => until)),
    })),
    available: day && (day.end - day.start) / minute,
    start: day?.start ?? null,
  };
}

/** The days that a plan can be filmed on, all with the hours of the first. */
function daysOf(
  input: PlanInput,
  day: NonNullable<PlanInput['day']>,
  setupOfShot: ReadonlyMap<string, string>,
): Days {
  const { start } = dayOf(day);
  const setups = new Map(input.setups.map((setup) => [setup.id, setup]));
  const lights = new Map<string, Span | undefined>();
  return {
    span: (later) => {
      const hours = dayOf(day, later);
      return { from: (hours.start - start) / minute, until: (hours.end - start) / minute };
    },
    light: (id, later) => {
      const setup = setups.get(setupOfShot.get(id) ?? '');
      const key = `${setup?.id}/${later}`;
      if (!lights.has(key)) lights.set(key, daylight(setup, day, later));
      return lights.get(key);
    },
  };
}

/** Minutes from the start of the first day until all is filmed. */
export const doneAt = ({ days }: Schedule): number => days.at(-1)?.until ?? 0;

/** A slot's time of day, "18:40", on later days "day 2, 09:00"; minutes from the start without a day. */
export function slotClock(schedule: Schedule, minutes: number, day: PlanInput['day']): string {
  if (schedule.start === null || !day) {
    const whole = Math.round(minutes);
    return `+${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
  }
  const clock = clockTime(schedule.start + minutes * minute, day.zone);
  const later = schedule.days.findLastIndex(({ from }) => from <= minutes);
  return later > 0 ? `day ${later + 1}, ${clock}` : clock;
}

/** For how many minutes of a setup's slots sunlight stays within the allowed change, for each day; none inside. */
export function lightFor(schedule: Schedule, input: PlanInput, setup: Setup) {
  const { day } = input;
  const { start } = schedule;
  if (setup.place !== 'outside' || !day || day.latitude === null || day.longitude === null || start === null)
    return [];
  const spot = { latitude: day.latitude, longitude: day.longitude };
  const mine = schedule.slots.filter(({ shot }) => shot.setup === setup.id);
  return [...new Set(mine.map((slot) => slot.day))].map((later) => {
    const slots = mine.filter((slot) => slot.day === later);
    const from = start + slots[0].from * minute;
    const until = start + slots[slots.length - 1].until * minute;
    const holds = lightHolds(spot, from, day);
    return { day: later, from, until, needed: (until - from) / minute, there: (holds - from) / minute };
  });
}
