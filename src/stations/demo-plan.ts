import type { Mark, Piece, Setup, Zone } from '@/core/model/plan-records';
import { plateSlot } from '@/core/model/slots';
import type { MomentKind } from '@/core/recipes/films';
import { change, type Edit } from '@/store/change';
import { inTurn, newDay, newPasses, newRoles, newSetup } from '@/store/commands/plan';
import { newRecord } from '@/store/commands/projects';
import { newMoment } from '@/store/commands/moments';
import type { Store } from '@/store/db';
import type { Snapshot } from '@/store/snapshot';

/** A moment of the demo beside its first. Bars counted from 0; `bars` may be a part of one. */
type DemoMoment = {
  kind: MomentKind;
  name: string;
  bar: number;
  bars: number;
  story?: string;
  settings?: object;
  /** beats from its beginning to where it lands, and to further instants, where that is not as usual */
  lands?: number;
  pins?: Record<string, number>;
  /** by slot: the file of its take, and the seconds of it at which that first shows */
  filmed: Record<string, readonly [file: string, at: number]>;
};

const [left, right] = ['bench-left-1.mp4', 'bench-right-1.mp4'];

/** A patch round the tin on the bench, in shares of the frame. */
const patch = [
  [0.588, 0.57],
  [0.643, 0.57],
  [0.643, 0.634],
  [0.588, 0.634],
];

const demoMoments: DemoMoment[] = [
  {
    kind: 'masked-reveal',
    name: 'Powder falls',
    bar: 12,
    bars: 2,
    story: 'The day turns: her suit is red once the powder has fallen.',
    settings: { edge: 'falling', frames: 20 },
    filmed: { before: [right, 0], fall: ['powder-falls.mp4', 0.5] },
  },
  {
    kind: 'freeze-stack',
    name: 'Wheel pose',
    bar: 14,
    bars: 1,
    story: 'She becomes a part among parts.',
    settings: { frozen: 1.6 },
    filmed: { pose: ['wheel-pose.mp4', 0] },
  },
  {
    kind: 'cover-swap',
    name: 'The tin',
    bar: 15,
    bars: 2,
    settings: { frames: 2, soft: 8, patch },
    filmed: { swap: ['tin-swap.mp4', 0] },
  },
  {
    kind: 'built-whip',
    name: 'Out to the yard',
    bar: 17,
    bars: 1,
    filmed: { out: [left, 4], in: ['yard-arrives.mp4', 0.9] },
  },
  {
    kind: 'speed-ramp',
    name: 'Wheel spin',
    bar: 18,
    bars: 3,
    story: 'Time belongs to the wheel.',
    settings: { slow: 40, fast: 300, poses: 3, instants: { 1: 1.5, 2: 3.5, 3: 5.5 } },
    filmed: { pass: ['wheel-spin.mp4', 0] },
  },
  {
    kind: 'split-screen',
    name: 'Four hands',
    bar: 22,
    bars: 2,
    settings: { panels: 4, cut: 'grid' },
    filmed: {
      'panel-1': [left, 2.4],
      'panel-2': [right, 1.4],
      'panel-3': ['wheel-spin.mp4', 3.6],
      'panel-4': ['hands-upright.mp4', 0.3],
    },
  },
  {
    kind: 'take-off',
    name: 'Gone and back',
    bar: 24,
    bars: 2,
    lands: 5,
    pins: { leaves: 2 },
    filmed: { up: ['leap-up.mp4', 0], down: ['leap-down.mp4', 0] },
  },
];

/** The files that these moments are filmed on, beside those of the first one, each with the slot that it was filmed for. */
const filmedFor: Record<string, string> = {};
for (const { filmed } of demoMoments)
  for (const [slot, [file]] of Object.entries(filmed))
    if (!file.startsWith('bench-')) filmedFor[file] ??= slot;

/** The files of these moments, in the order in which they are wanted. */
export const momentFiles: readonly string[] = Object.keys(filmedFor);

const piece = (
  setup: Setup,
  given: Omit<Piece, keyof ReturnType<typeof newRecord> | 'kind' | 'setup'>,
): Piece => ({
  ...newRecord(setup.project),
  kind: 'piece',
  setup: setup.id,
  ...given,
});

/** The workshop as the demo's plates show it: bench across, window and wheel on the wall, a cloth that moves. */
function workshop(snapshot: Snapshot): { setup: Setup; parts: (Mark | Piece | Zone)[] } {
  const { project } = snapshot;
  const setup: Setup = {
    ...newSetup(project, 1, 'Bench, wide'),
    height: 1.25,
    focus: 2.6,
    walls: { left: 2.4, right: 2.4, ahead: 3.6, behind: 0.9 },
    colours: '#2c5f8d #8a2f24 #c9bb9f',
    still: snapshot.takes.find(({ slot }) => slot === plateSlot)?.id ?? null,
  };
  const cloth: Zone = {
    ...newRecord(project.id),
    kind: 'zone',
    setup: setup.id,
    what: 'moves',
    name: 'Cloth',
    from: [0.88, 0.3],
    to: [0.96, 0.62],
  };
  const bench = piece(setup, {
    what: 'furniture',
    name: 'Bench',
    x: 0,
    y: 2,
    width: 1.8,
    depth: 0.6,
    height: 0.9,
  });
  const door = piece(setup, {
    what: 'door',
    name: 'Door',
    x: -1.6,
    y: 3.6,
    width: 0.9,
    depth: 0.06,
    height: 2,
  });
  return { setup, parts: inTurn([...newRoles(setup), cloth, bench, door]) };
}

/** The yard behind the workshop, where the light is the sun's. */
function yard(snapshot: Snapshot, model: Setup): { setup: Setup; parts: (Mark | Piece | Zone)[] } {
  const { project } = snapshot;
  const setup: Setup = {
    ...newSetup(project, 2, 'Yard'),
    place: 'outside',
    focal: 35,
    shutter: 100,
    iso: 100,
    kelvin: 5600,
    focus: 3.8,
    capture: { width: 1920, height: 1080, rate: { num: 60000, den: 1001 }, megabits: 100 },
    walls: { left: 4, right: 4, ahead: 9, behind: 3 },
    matches: model.id,
  };
  const mark: Mark = {
    ...newRecord(project.id),
    kind: 'mark',
    setup: setup.id,
    name: 'Mechanic',
    x: 0,
    y: 3.65,
    stature: 1.7,
  };
  return { setup, parts: [mark] };
}

/** Eight moments, two setups and an autumn afternoon: the demo's plan, in one step that undo passes over. */
export async function layDemoPlan(store: Store, snapshot: Snapshot, clone: string): Promise<void> {
  const { project, song } = snapshot;
  const perBar = song?.grid?.beatsPerBar ?? 4;
  const bench = workshop(snapshot);
  const outside = yard(snapshot, bench.setup);
  const takeOf = (file: string) =>
    snapshot.takes.find(({ media }) => snapshot.media.get(media)?.name === file);
  const moments = demoMoments.map(({ kind, name, bar, bars, story, settings, lands, pins = {}, filmed }) => {
    const start = bar * perBar;
    const made = newMoment(project.id, kind, start, start + bars * perBar, name);
    const fills = Object.entries(filmed).map(([slot, [file, at]]) => [
      slot,
      { take: takeOf(file)?.id ?? null, at },
    ]);
    return {
      ...made,
      ...(story ? { story } : {}),
      ...(lands ? { lands: start + lands } : {}),
      pins: Object.fromEntries(Object.entries(pins).map(([pin, beats]) => [pin, start + beats])),
      setup: kind === 'speed-ramp' ? outside.setup.id : bench.setup.id,
      ...(kind === 'built-whip' ? { second: outside.setup.id } : {}),
      settings: { ...made.settings, ...settings },
      slots: Object.fromEntries(fills),
    } as typeof made;
  });
  const day = {
    ...newDay(project.id, '2026-11-28', 'Europe/Lisbon'),
    start: '09:30',
    end: '16:30',
    latitude: 41.15,
    longitude: -8.61,
  };
  const made = [
    bench.setup,
    outside.setup,
    ...bench.parts,
    ...outside.parts,
    ...moments,
    ...newPasses(project.id, bench.setup.id),
    day,
  ];
  const edits: Edit[] = [
    ...made.map((create): Edit => ({ create })),
    ...Object.entries(filmedFor).flatMap(([file, slot]): Edit[] => {
      const take = takeOf(file);
      return take ? [{ record: take.id, set: { slot } }] : [];
    }),
    {
      record: clone,
      set: {
        setup: bench.setup.id,
        story: 'She waits for someone, and it is herself.',
        'settings.way': 'contact',
      },
    },
  ];
  await change(store, project.id, 'The demo’s plan', edits, true);
}
