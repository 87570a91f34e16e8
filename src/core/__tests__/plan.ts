import { type Moment, type Project, momentSchema } from '../model/records';
import type { Day, Mark, Pass, Setup, ShotChoice, Zone } from '../model/plan-records';
import { usualDay, usualSetup, type PlanInput } from '../plan/plan';
import { films, type MomentKind } from '../recipes/films';
import { regularGrid } from '../time/grid';

const base = (id: string) => ({ id, project: 'p', created: 0, changed: 0, alive: true });

export const project: Project = {
  ...base('p'),
  kind: 'project',
  name: 'Test',
  width: 1920,
  height: 1080,
  rate: { num: 24000, den: 1001 },
  container: 'mov',
  megabits: 16,
};

/** 120 beats a minute: a beat is half a second. */
export const grid = regularGrid(120, 0, 120);

export const moment = (kind: MomentKind, start: number, end: number, more: Partial<Moment> = {}): Moment =>
  momentSchema.parse({
    ...base(more.id ?? `${kind}-${start}`),
    kind: 'moment',
    recipe: kind,
    name: films[kind].title,
    start,
    lands: (start + end) / 2,
    end,
    ...more,
    settings: { ...films[kind].start, ...more.settings },
  }) as Moment;

export const setup = (id: string, more: Partial<Setup> = {}): Setup => ({
  ...base(id),
  kind: 'setup',
  name: `Setup ${id}`,
  order: 1,
  ...usualSetup,
  capture: { width: 1920, height: 1080, rate: { num: 24000, den: 1001 }, megabits: 100 },
  ...more,
});

export const mark = (name: string, x: number, y: number, more: Partial<Mark> = {}): Mark => ({
  ...base(name),
  kind: 'mark',
  setup: 'a',
  name,
  x,
  y,
  stature: 1.7,
  ...more,
});

export const zone = (
  what: Zone['what'],
  name: string,
  from: [number, number],
  to: [number, number],
): Zone => ({
  ...base(name),
  kind: 'zone',
  setup: 'a',
  what,
  name,
  from,
  to,
});

export const pass = (id: string, more: Partial<Pass> = {}): Pass => ({
  ...base(id),
  kind: 'pass',
  setup: 'a',
  what: 'pass',
  angle: 'front',
  size: 'wide',
  steadiness: 'steady',
  from: null,
  until: null,
  times: 2,
  ...more,
});

export const choice = (shot: string, more: Partial<ShotChoice>): ShotChoice => ({
  ...base(`choice-${shot}`),
  kind: 'shot',
  shot,
  after: null,
  takes: null,
  minutes: null,
  ...more,
});

export const day = (more: Partial<Day> = {}): Day => ({
  ...base('day'),
  kind: 'day',
  date: '2026-11-28',
  start: '09:00',
  end: '17:00',
  zone: 'Europe/Lisbon',
  latitude: null,
  longitude: null,
  ...usualDay,
  ...more,
});

export const plan = (more: Partial<PlanInput> = {}): PlanInput => ({
  project,
  grid,
  songSeconds: 60,
  moments: [],
  setups: [setup('a')],
  marks: [],
  pieces: [],
  zones: [],
  passes: [],
  choices: [],
  day: null,
  ...more,
});
