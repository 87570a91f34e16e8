'use client';
import type { Moment } from '@/core/model/records';
import { fillOf, noSlot, plateSlot } from '@/core/model/slots';
import { slotsInUse } from '@/core/recipes/built';
import { sayFrames } from '@/core/finding/say-quantity';
import type { Field } from '@/core/recipes/film';
import { readBeatPlace } from '@/core/read-number';
import type { Material } from '@/core/recipes/material';
import type { Recipe, Ruler, SaidPart } from '@/core/recipes/recipe';
import { beatLabel, frameOfBeat, timeOfBeat } from '@/core/time/grid';
import { frameOfTime, perSecond, timeOfFrame } from '@/core/time/rate';
import { formatClock, formatTimecode } from '@/core/time/timecode';
import { fillSlots, setMoment } from '@/store/commands/moments';
import { takeIn } from '@/store/material';
import { platesFor, serves, setupOfMoment } from '@/store/plates';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';

const dyes = { cochineal: 'var(--cochineal)', woad: 'var(--woad)' };
const seconds = (value: number) => `${value.toFixed(2)} s`;

type Of = { moment: Moment; recipe: Recipe; ruler: Ruler };
type Dyed = Of & { dye?: string };

/** The moment in a sentence whose quantities are changed where they stand. */
export function MomentSentence({ material, ...of }: Of & { material: Material }) {
  const { moment, recipe, ruler } = of;
  return (
    <p className="font-serif text-[17px] leading-[1.85]" data-testid="sentence">
      {recipe
        .say(moment, ruler, material)
        .map((part, index) =>
          typeof part === 'string' ? part : <Quantity key={index} part={part} {...of} />,
        )}
    </p>
  );
}

function Quantity({ part, ...of }: Of & { part: SaidPart }) {
  const dye = part.dye && dyes[part.dye];
  if ('anchor' in part) return <Instant {...of} name={part.anchor} dye={dye} />;
  if ('field' in part)
    return (
      <Setting
        {...of}
        name={part.field}
        inForce={part.value}
        field={of.recipe.fields[part.field]}
        dye={dye}
      />
    );
  return part.part === 'take' ? (
    <SlotTake {...of} slot={part.slot} dye={dye} />
  ) : (
    <SlotStart {...of} slot={part.slot} dye={dye} />
  );
}

function useSave({ moment }: Of) {
  const { store, attempt } = useServices();
  return (label: string, set: Record<string, unknown>) =>
    attempt(() => setMoment(store, moment.project, moment.id, label, set));
}

/** A beat that the moment is pinned to; the instants stay in their order. */
function Instant({ name, dye, ...of }: Dyed & { name: string }) {
  const { moment, recipe, ruler } = of;
  const { grid, project } = ruler;
  const save = useSave(of);
  const frame = (value: number) => frameOfBeat(grid, project.rate, value);
  const anchor = recipe.anchors(moment, ruler).find((one) => one.name === name);
  if (!anchor) return null;
  const { title, field, position, limits, step } = anchor;
  return (
    <LiveNumber
      label={title}
      value={position}
      step={step}
      min={limits[0]}
      max={limits[1]}
      dye={dye}
      show={(value) => beatLabel(grid, value)}
      also={(value) =>
        `frame ${frame(value)} · ${formatTimecode(frame(value), project.rate)} · ${formatClock(timeOfBeat(grid, value))}`
      }
      read={(text) => readBeatPlace(grid, text)}
      onChange={(value) => save(title, { [field]: value })}
    />
  );
}

function Setting({
  name,
  field,
  inForce,
  dye,
  ...of
}: Dyed & { name: string; field: Field; inForce?: number }) {
  const save = useSave(of);
  const { rate, width } = of.ruler.project;
  const said = { ...(of.recipe.start as object), ...of.moment.settings }[name as keyof object] as unknown;
  const value = inForce ?? said;
  const set = (next: unknown) => save(field.label, { [`settings.${name}`]: next });
  if (field.kind === 'choice')
    return (
      <LiveChoice
        label={field.label}
        value={String(value ?? field.options[0].value)}
        dye={dye}
        options={field.options}
        onChange={set}
      />
    );
  if (field.kind === 'instant')
    return (
      <TakeInstant
        {...of}
        slot={field.slot}
        label={field.label}
        value={inForce ?? 0}
        dye={dye}
        onChange={set}
      />
    );
  const { unit, none } = field;
  const withUnit = (number: number) =>
    unit === 'frames' ? sayFrames(number) : `${number}${unit === '°' ? '' : ' '}${unit}`;
  const also = {
    frames: (number: number) => seconds(number / perSecond(rate)),
    px: (number: number) => `${((number / width) * 100).toFixed(2)} % of the width`,
  };
  return (
    <LiveNumber
      label={field.label}
      value={Number(value)}
      step={field.step}
      min={field.min}
      max={field.max}
      dye={dye}
      show={(number) => (number === 0 && none ? none : withUnit(number))}
      also={unit === 'frames' || unit === 'px' ? also[unit] : undefined}
      onChange={(number) => set(unit === 'frames' ? Math.round(number) : number)}
    />
  );
}

/** Which take fills a slot: one that was filmed for it, in the moment's setup; an open slot takes any. */
function SlotTake({ slot, dye, ...of }: Dyed & { slot: string }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { moment, recipe } = of;
  const plate = slot === plateSlot;
  const setup = setupOfMoment(snapshot, moment);
  const found = slotsInUse(moment, recipe).find(({ key }) => key === slot);
  const title = found?.title ?? slot;
  const own = snapshot.takes.filter((take) => take.slot === slot && serves(snapshot, take, setup));
  const others = snapshot.takes.filter((take) => !own.includes(take) && take.slot !== noSlot);
  const takes = plate ? platesFor(snapshot, moment) : found?.open ? [...own, ...others] : own;
  return (
    <LiveChoice
      label={plate ? 'Clean plate' : `Take for the ${title}`}
      value={takeIn(snapshot, moment, slot)?.id ?? ''}
      dye={dye}
      empty={plate ? 'no clean plate yet' : 'choose a take'}
      options={takes.map((take) => ({ value: take.id, text: take.name }))}
      onChange={(id) =>
        attempt(() =>
          fillSlots(store, moment.project, moment.id, plate ? 'Choose the plate' : 'Choose a take', {
            [slot]: id,
          }),
        )
      }
    />
  );
}

/** The instant of its take from which a slot shows. */
function SlotStart({ slot, dye, ...of }: Dyed & { slot: string }) {
  const save = useSave(of);
  const { moment, recipe } = of;
  const title = recipe.slots.find(({ key }) => key === slot)?.title ?? slot;
  return (
    <TakeInstant
      {...of}
      slot={slot}
      label={`Start of the ${title} take`}
      value={fillOf(moment, slot).at}
      dye={dye}
      onChange={(value) => save('Start of a take', { [`slots.${slot}.at`]: value })}
    />
  );
}

/** Seconds of the take that fills a slot. */
function TakeInstant({
  slot,
  label,
  value,
  dye,
  onChange,
  moment,
  ruler,
}: Dyed & { slot: string; label: string; value: number; onChange: (seconds: number) => void }) {
  const snapshot = useData((data) => data.snapshot);
  const { rate } = ruler.project;
  return (
    <LiveNumber
      label={label}
      value={value}
      step={timeOfFrame(rate, 1)}
      min={0}
      max={takeMeasure(snapshot, takeIn(snapshot, moment, slot))?.times.last ?? 3600}
      dye={dye}
      show={seconds}
      also={(at) => `${frameOfTime(rate, at)} frames into the file`}
      onChange={onChange}
    />
  );
}
