import type { Finding } from '@/core/finding/finding';
import { cautionsOf } from '@/core/plan/lists/danger';
import { bedEnergy, examineCoverage } from '@/core/plan/advice/coverage';
import { examineSchedule } from '@/core/plan/order/examine-order';
import { examineSetup } from '@/core/plan/setup/examine-setup';
import { setupNumbers, type SetupNumbers } from '@/core/plan/setup/numbers';
import type { PlanInput } from '@/core/plan/plan';
import type { PlanCode } from '@/core/plan/plan-words';
import { priceOf, type Price } from '@/core/plan/advice/price';
import type { Order } from '@/core/plan/order/order';
import { scheduleOf, type OrderTask, type Schedule } from '@/core/plan/order/schedule';
import { planMoments, setupOf, type PlannedMoment } from '@/core/plan/shots';
import { boardOf, type Board } from '@/core/shoot/board';
import { adviseStyle, type SectionEnergy } from '@/core/plan/advice/style';
import { examineZones } from '@/core/plan/setup/zones';
import { energyOf, type Energy } from '@/core/song/energy';
import { beatOfTime, timeOfBeat } from '@/core/time/grid';
import type { Project } from '@/core/model/records';
import { rememberedWith } from '@/core/remember';
import { songMeasure, type Snapshot } from './snapshot';

/** Everything that follows from the plan, worked out once for each state of the project. */
export type Plan = {
  input: PlanInput;
  moments: PlannedMoment[];
  schedule: Schedule;
  numbers: Map<string, SetupNumbers>;
  zones: Map<string, Finding[]>;
  prices: Map<string, Price>;
  sections: SectionEnergy[];
  names: Record<string, string>;
  findings: Finding[];
  /** what was filmed in each setup, in the order of the setups */
  boards: Board[];
};

/** The song's sections with their energy; empty until the song is measured. */
export function sectionEnergies(snapshot: Snapshot): (SectionEnergy & Energy)[] {
  const measure = songMeasure(snapshot);
  const grid = snapshot.song?.grid;
  const { sections } = snapshot;
  if (!measure || !grid || sections.length === 0) return [];
  const edges = [...sections.map(({ at }) => Math.max(0, timeOfBeat(grid, at))), measure.song.duration];
  const energies = energyOf(measure.song.levels, measure.beats.hits, edges);
  return sections.map(({ name, at }, index) => ({
    name,
    from: at,
    until: sections[index + 1]?.at ?? beatOfTime(grid, measure.song.duration),
    song: energies[index].share,
    ...energies[index],
  }));
}

const inputs = rememberedWith<Project, PlanInput>();

function inputOf(snapshot: Snapshot): PlanInput {
  const { project, song, moments, setups, marks, pieces, zones, passes, choices, day } = snapshot;
  const songSeconds = songMeasure(snapshot)?.song.duration ?? 0;
  const grid = song?.grid ?? null;
  const parts = [grid, songSeconds, moments, setups, marks, pieces, zones, passes, choices, day];
  const input = { project, grid, songSeconds, moments, setups, marks, pieces, zones, passes, choices, day };
  return inputs(project, parts, () => input);
}

/**
 * What a plan as a whole lacks.
 * @param open cautions that nobody has ticked
 */
function wholeFindings(moments: number, setups: number, open: number): Finding<PlanCode>[] {
  if (moments === 0) return [{ code: 'plan.empty', severity: 'watch', where: {} }];
  if (setups === 0) return [{ code: 'plan.no-setup', severity: 'fix', where: {} }];
  if (open === 0) return [];
  return [{ code: 'caution.open', severity: 'watch', where: {}, measured: { value: open, unit: 'count' } }];
}

/** What follows from the plan alone, whatever was filmed of it. */
function workOut(snapshot: Snapshot, input: PlanInput): Omit<Plan, 'boards'> {
  const { project, moments, setups, zones, passes } = input;
  const planned = planMoments(input);
  const schedule = scheduleOf(input, (task) => foundOrders.get(orderKey(task)));
  const names = Object.fromEntries([
    ...setups.map(({ id, name }) => [id, name]),
    ...moments.map(({ id, name }) => [id, name]),
    ...schedule.slots.map(({ shot }) => [shot.id, shot.title]),
  ]);
  const numbers = new Map(setups.map((setup) => [setup.id, setupNumbers(input, setup)]));
  const zoneFindings = new Map(
    setups.map(({ id }) => [
      id,
      examineZones(
        id,
        zones.filter((zone) => zone.setup === id),
      ),
    ]),
  );
  const sections = sectionEnergies(snapshot);
  const prices = new Map(
    planned.map((one) => [
      one.moment.id,
      priceOf(one, zoneFindings.get(setupOf(setups, one.moment.setup)) ?? []),
    ]),
  );
  const ticked = new Set(snapshot.ticks.filter(({ done }) => done).map((tick) => tick.of));
  const open = cautionsOf(input)
    .flatMap(({ steps }) => steps)
    .filter(({ key }) => !ticked.has(key)).length;
  const findings: Finding[] = [];
  if (moments.length > 0 && setups.length > 0) {
    for (const setup of setups) {
      const mine = numbers.get(setup.id);
      if (mine) findings.push(...examineSetup(input, setup, mine));
      findings.push(...(zoneFindings.get(setup.id) ?? []));
    }
    findings.push(
      ...examineSchedule(input, schedule, names),
      ...adviseStyle(planned, sections, { kinds: project.kinds, bed: bedEnergy(passes) }),
      ...examineCoverage(passes, sections),
    );
  }
  findings.push(...wholeFindings(moments.length, setups.length, open));
  return {
    input,
    moments: planned,
    schedule,
    numbers,
    zones: zoneFindings,
    prices,
    sections,
    names,
    findings,
  };
}

function boardsOf(snapshot: Snapshot, { slots }: Schedule): Board[] {
  const shots = slots.map(({ shot }) => shot);
  return snapshot.setups.map(({ id }) =>
    boardOf(
      id,
      shots.filter((shot) => shot.setup === id),
      snapshot,
    ),
  );
}

const foundOrders = new Map<string, Order>();
/** Text that is equal for equal tasks. */
export const orderKey = (task: OrderTask): string => JSON.stringify(task);

let learned = 0;
const listeners = new Set<() => void>();

/** Keeps an order that a worker found with more time; every plan is worked out anew with it. */
export function learnOrder(key: string, order: Order): void {
  foundOrders.set(key, order);
  learned++;
  listeners.forEach((listener) => listener());
}

/** Calls back whenever a better order was found. */
export function onLearned(listener: () => void): () => void {
  listeners.add(listener);
  return () => listeners.delete(listener);
}
export const ordersLearned = (): number => learned;

const plans = rememberedWith<PlanInput, Omit<Plan, 'boards'>>();
const boards = rememberedWith<Schedule, Board[]>();
const wholes = rememberedWith<Snapshot, Plan>();

/** The plan of a snapshot: each part is worked out again only once something that it follows from has changed. */
export function planOf(snapshot: Snapshot): Plan {
  return wholes(snapshot, [learned], () => {
    const input = inputOf(snapshot);
    const { sections, ticks, logs, strikes, pickups } = snapshot;
    const plan = plans(input, [learned, songMeasure(snapshot), sections, ticks], () =>
      workOut(snapshot, input),
    );
    const filmed = [snapshot.setups, logs, strikes, pickups];
    return { ...plan, boards: boards(plan.schedule, filmed, () => boardsOf(snapshot, plan.schedule)) };
  });
}
