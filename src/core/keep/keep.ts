import { eachKey, movedKeys } from '../hand/moved';
import type { HandKeys } from '../hand/schema';
import { lookNames, lookQuantities, type Look } from '../look/schema';
import type { Moment, Project } from '../model/records';
import type { Recipe } from '../recipes/recipe';
import { soundNames } from '../sounds/sound';
import { perSecond } from '../time/rate';
import type { Kept } from './schema';

type Fields = Record<string, unknown>;

/** How a moment is built as it stands, with its takes. */
export function versionOf({ settings, lands, start, end, pins = {}, ...rest }: Moment): Kept {
  const { sounds = {}, keys = {}, handheld = {}, look = {}, slots = {}, framing = {} } = rest;
  return {
    settings: { ...(settings as Fields) },
    span: {
      before: lands - start,
      after: end - lands,
      pins: Object.fromEntries(Object.entries(pins).map(([name, position]) => [name, position - lands])),
    },
    sounds,
    keys,
    handheld,
    look,
    slots,
    framing: { ...framing },
  };
}

/** How a moment is built as far as that holds for other takes too: without what was drawn or marked on its own. */
export function styleOf(moment: Moment, { ofTakes }: Pick<Recipe, 'ofTakes'>): Kept {
  const { settings, span, sounds = {}, keys, handheld, look } = versionOf(moment);
  const own = Object.keys(ofTakes);
  const shipped: readonly string[] = soundNames;
  const known = Object.entries(sounds).filter(([, { sound }]) => !sound || shipped.includes(sound));
  return {
    settings: Object.fromEntries(Object.entries(settings).filter(([name]) => !own.includes(name))),
    span,
    sounds: Object.fromEntries(known),
    keys,
    handheld,
    look,
  };
}

type Shape = Pick<Project, 'rate' | 'width' | 'height'>;

/**
 * A style that was made for one delivery, for another: frames last as long as they did, pixels are as wide in the
 * picture as they were. Beats are beats in any tempo.
 */
export function fitStyle(kept: Kept, from: Shape, to: Shape, { fields }: Pick<Recipe, 'fields'>): Kept {
  const [longer, wider] = [perSecond(to.rate) / perSecond(from.rate), to.width / from.width];
  const fit = (name: string, value: unknown): unknown => {
    const field = fields[name];
    if (field?.kind !== 'number' || typeof value !== 'number') return value;
    const factor = { frames: longer, px: wider }[field.unit as string];
    if (factor === undefined || factor === 1) return value;
    const scaled = Math.round((value * factor) / field.step) * field.step;
    return Math.min(field.max, Math.max(field.min, scaled));
  };
  return {
    ...kept,
    settings: Object.fromEntries(
      Object.entries(kept.settings).map(([name, value]) => [name, fit(name, value)]),
    ),
    ...(kept.keys && { keys: fitKeys(kept.keys, longer) }),
    ...(kept.look && { look: fitLook(kept.look, longer, wider) }),
  };
}

const fitKeys = (keys: HandKeys, longer: number): HandKeys =>
  eachKey(keys, (key) => (key.unit === 'frames' ? { ...key, by: Math.round(key.by * longer) } : key));

/** A look that takes as long and is as wide in the picture as it was. */
function fitLook(look: Look, longer: number, wider: number): Look {
  const wide = lookNames
    .filter((name) => lookQuantities[name].unit === 'px' && look[name] !== undefined)
    .map((name) => [name, Math.min(lookQuantities[name].max, (look[name] ?? 0) * wider)]);
  const dies = look.dies && Math.max(1, Math.min(240, Math.round(look.dies * longer)));
  return { ...look, ...(Object.fromEntries(wide) as Look), ...(dies ? { dies } : {}) };
}

/** A moment built as something kept says, on the beat where it lands now. Of what is not kept it keeps its own. */
export function withKept<Some extends Moment>(moment: Some, kept: Kept): Some {
  const { lands } = moment;
  const { settings, span, ...rest } = kept;
  return {
    ...moment,
    ...rest,
    settings: { ...(rest.slots ? {} : (moment.settings as Fields)), ...settings },
    // Nothing begins before the song because of it.
    start: Math.max(Math.min(0, moment.start), lands - span.before),
    end: lands + span.after,
    pins: Object.fromEntries(Object.entries(span.pins).map(([name, after]) => [name, lands + after])),
  };
}

const parts = ['settings', 'pins', 'sounds', 'keys', 'handheld', 'look', 'slots', 'framing'] as const;

/** The fields by which one moment differs from another, written one by one so that other changes of them survive. */
export function fieldsBetween(now: Moment, next: Moment): Fields {
  const inner = parts.flatMap((part) => {
    const [before, after] = [(now[part] ?? {}) as Fields, (next[part] ?? {}) as Fields];
    return [...new Set([...Object.keys(before), ...Object.keys(after)])]
      .filter((key) => JSON.stringify(before[key]) !== JSON.stringify(after[key]))
      .map((key) => [`${part}.${key}`, after[key]] as const);
  });
  const span = (['start', 'end'] as const)
    .filter((field) => now[field] !== next[field])
    .map((field) => [field, next[field]] as const);
  return Object.fromEntries([...span, ...inner]);
}

/** Something kept of a moment whose beats are counted anew. @param move beat position to beat position */
export function movedKept(kept: Kept, lands: number, move: (position: number) => number): Kept {
  const { before, after, pins } = kept.span;
  const at = move(lands);
  const pinned = {
    start: lands - before,
    lands,
    end: lands + after,
    pins: Object.fromEntries(Object.entries(pins).map(([name, later]) => [name, lands + later])),
  };
  return {
    ...kept,
    span: {
      before: at - move(pinned.start),
      after: move(pinned.end) - at,
      pins: Object.fromEntries(
        Object.entries(pinned.pins).map(([name, position]) => [name, move(position) - at]),
      ),
    },
    ...(kept.keys && { keys: movedKeys(kept.keys, pinned, move) }),
  };
}

/** The first letter (then two of them) that none of some names has. */
export function nextLetter(names: readonly string[]): string {
  for (let index = 0; ; index++) {
    const letter = String.fromCharCode(65 + (index % 26)).repeat(1 + Math.floor(index / 26));
    if (!names.includes(letter)) return letter;
  }
}
