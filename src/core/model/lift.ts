import type * as z from 'zod/mini';
import type { fieldOpSchema } from './command';
import { noSlot, type Slots } from './slots';

type Op = Pick<z.infer<typeof fieldOpSchema>, 'kind' | 'field' | 'before' | 'after'>;

/** The version of the records and histories that are written now. Older ones are lifted, step by step. */
export const modelVersion = 3;

/** Fields of the first version's clones that say what fills a slot, with where that stands now. */
const filled: Record<string, string> = {
  'settings.plate': 'slots.plate.take',
  'settings.left': 'slots.left.take',
  'settings.right': 'slots.right.take',
  'settings.leftIn': 'slots.left.at',
  'settings.rightIn': 'slots.right.at',
  'settings.leftTap': 'slots.left.tap',
  'settings.rightTap': 'slots.right.tap',
};

/** A first version's settings as settings and slots; other kinds' settings held no slots. */
function partSettings(value: unknown): { settings: unknown; slots: Slots | undefined } {
  if (typeof value !== 'object' || value === null || !('leftIn' in value)) {
    return { settings: value, slots: value === undefined ? undefined : {} };
  }
  const { plate, left, right, leftIn, rightIn, leftTap, rightTap, ...settings } = value as Record<
    string,
    never
  >;
  return {
    settings,
    slots: {
      plate: { take: plate },
      left: { take: left, at: leftIn, tap: leftTap } as never,
      right: { take: right, at: rightIn, tap: rightTap } as never,
    },
  };
}

/** Version 1 to 2: takes had one role for all moments, and clones held their takes among their settings. */
function toSlots<Some extends Op>(op: Some): Some[] {
  if (op.kind === 'take' && op.field === 'role') {
    // A clip came in with the role "none"; only later could a person say so.
    const after = op.before === undefined && op.after === noSlot ? null : op.after;
    return [{ ...op, field: 'slot', after }];
  }
  if (op.kind !== 'moment') return [op];
  if (op.field in filled) return [{ ...op, field: filled[op.field] }];
  if (op.field !== 'settings') return [op];
  const [before, after] = [partSettings(op.before), partSettings(op.after)];
  return [
    { ...op, before: before.settings, after: after.settings },
    { ...op, field: 'slots', before: before.slots, after: after.slots },
  ];
}

/** A tap of the second version, of which a slot held one or none, as a list. */
const asTaps = (tap: unknown): unknown => (tap === undefined ? undefined : tap === null ? [] : [tap]);

/** Slots of the second version with a list of taps each. */
function partTaps(slots: unknown): unknown {
  if (typeof slots !== 'object' || slots === null) return slots;
  return Object.fromEntries(
    Object.entries(slots).map(([slot, fill]) => {
      if (typeof fill !== 'object' || fill === null || !('tap' in fill)) return [slot, fill];
      const { tap, ...rest } = fill;
      return [slot, { ...rest, taps: asTaps(tap) }];
    }),
  );
}

/** Version 2 to 3: a slot keeps several performers. */
function toTaps<Some extends Op>(op: Some): Some[] {
  if (op.kind !== 'moment') return [op];
  if (/^slots\.[^.]+\.tap$/.test(op.field))
    return [{ ...op, field: `${op.field}s`, before: asTaps(op.before), after: asTaps(op.after) }];
  if (op.field !== 'slots') return [op];
  return [{ ...op, before: partTaps(op.before), after: partTaps(op.after) }];
}

const steps: ((op: Op) => Op[])[] = [toSlots, toTaps];

/**
 * Operations of an older version as this one writes them. Store, replay and carried files lift by this alone: what a
 * record holds is what its operations made of it.
 * @param from the version that wrote them
 */
export const liftOps = <Some extends Op>(ops: readonly Some[], from: number): Some[] =>
  (steps.slice(from - 1) as ((op: Some) => Some[])[]).reduce<Some[]>(
    (lifted, step) => lifted.flatMap((op) => step(op)),
    [...ops],
  );
