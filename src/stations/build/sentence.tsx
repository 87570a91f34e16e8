'use client';
import type { CloneMoment } from '@/core/model/records';
import { fillOf, plateSlot } from '@/core/model/slots';
import { clone } from '@/core/recipes/clone';
import type { Ruler, SentencePart } from '@/core/recipes/recipe';
import { beatLabel, frameOfBeat, positionOf, timeOfBeat } from '@/core/time/grid';
import { frameOfTime, perSecond, timeOfFrame } from '@/core/time/rate';
import { formatClock, formatTimecode } from '@/core/time/timecode';
import { setMoment } from '@/store/commands/moments';
import { plateOfMoment, platesFor, serves, setupOfMoment } from '@/store/plates';
import { takeMeasure } from '@/store/snapshot';
import { useBench } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';

const dyes = { left: 'var(--cochineal)', right: 'var(--woad)' };

/** The moment in a sentence whose quantities are changed where they stand. */
export function MomentSentence({ moment, ruler }: { moment: CloneMoment; ruler: Ruler }) {
  return (
    <p className="font-serif text-[17px] leading-[1.85]" data-testid="sentence">
      {clone
        .say(moment)
        .map((part, index) =>
          typeof part === 'string' ? (
            part
          ) : (
            <Quantity key={index} part={part} moment={moment} ruler={ruler} />
          ),
        )}
    </p>
  );
}

function Quantity({
  part,
  moment,
  ruler,
}: {
  part: Exclude<SentencePart, string>;
  moment: CloneMoment;
  ruler: Ruler;
}) {
  const { store, snapshot, attempt } = useBench();
  const { grid, project } = ruler;
  const { rate } = project;
  const { settings } = moment;
  const dye = part.role && dyes[part.role];
  const save = (label: string, set: Record<string, unknown>) =>
    attempt(() => setMoment(store, project.id, moment.id, label, set));
  const tick = timeOfFrame(rate, 1);
  const seconds = (value: number) => `${value.toFixed(2)} s`;
  switch (part.field) {
    case 'start':
    case 'lands':
    case 'end': {
      const { field } = part;
      const names = { start: 'Begins on', lands: 'The copy appears on', end: 'Ends on' };
      const limits = {
        start: [-16, moment.lands],
        lands: [moment.start, moment.end - 0.25],
        end: [moment.lands + 0.25, 1e5],
      }[field];
      return (
        <LiveNumber
          label={names[field]}
          value={moment[field]}
          step={field === 'lands' ? 0.5 : 1}
          min={limits[0]}
          max={limits[1]}
          dye={dye}
          show={(value) => beatLabel(grid, value)}
          also={(value) =>
            `frame ${frameOfBeat(grid, rate, value)} · ${formatTimecode(frameOfBeat(grid, rate, value), rate)} · ${formatClock(timeOfBeat(grid, value))}`
          }
          read={(text) => {
            const numbers = text.match(/-?\d+(?:[.,]\d+)?/g)?.map((one) => Number(one.replace(',', '.')));
            return numbers?.length ? positionOf(grid, numbers[0], numbers[1] ?? 1) : null;
          }}
          onChange={(value) => save(names[field], { [field]: value })}
        />
      );
    }
    case 'first':
      return (
        <LiveChoice
          label="Who is there first"
          value={settings.first}
          dye={dye}
          options={[
            { value: 'left', text: 'left' },
            { value: 'right', text: 'right' },
          ]}
          onChange={(first) => save('Who is first', { 'settings.first': first })}
        />
      );
    case 'plate': {
      const plates = platesFor(snapshot, moment);
      return (
        <LiveChoice
          label="Clean plate"
          value={plateOfMoment(snapshot, moment)?.id ?? ''}
          empty="no clean plate yet"
          options={plates.map((take) => ({ value: take.id, text: take.name }))}
          onChange={(id) =>
            save('Choose the plate', { [`slots.${plateSlot}.take`]: id, 'settings.seam': null })
          }
        />
      );
    }
    case 'leftTake':
    case 'rightTake': {
      const role = part.field === 'leftTake' ? 'left' : 'right';
      return (
        <LiveChoice
          label={`Take for the ${role}`}
          value={fillOf(moment, role).take ?? ''}
          dye={dye}
          empty="choose a take"
          options={snapshot.takes
            .filter((take) => take.slot === role && serves(snapshot, take, setupOfMoment(snapshot, moment)))
            .map((take) => ({ value: take.id, text: take.name }))}
          onChange={(id) => save('Choose a take', { [`slots.${role}.take`]: id, 'settings.seam': null })}
        />
      );
    }
    case 'leftIn':
    case 'rightIn': {
      const role = part.field === 'leftIn' ? 'left' : 'right';
      const fill = fillOf(moment, role);
      const take = snapshot.takes.find((one) => one.id === fill.take) ?? null;
      const last = takeMeasure(snapshot, take)?.times.at(-1) ?? 3600;
      return (
        <LiveNumber
          label={`Start of the ${role} take`}
          value={fill.at}
          step={tick}
          min={0}
          max={last}
          dye={dye}
          show={seconds}
          also={(value) => `${frameOfTime(rate, value)} frames into the file`}
          onChange={(value) => save('Start of a take', { [`slots.${role}.at`]: value })}
        />
      );
    }
    case 'fade':
      return (
        <LiveNumber
          label="Frames over which the copy appears"
          value={settings.fade}
          step={1}
          min={0}
          max={96}
          dye={dye}
          show={(value) => (value === 0 ? 'at once' : `${value} frames`)}
          also={(value) => seconds(value / perSecond(rate))}
          onChange={(value) => save('How the copy appears', { 'settings.fade': Math.round(value) })}
        />
      );
    default:
      return (
        <LiveNumber
          label="Softness of the join"
          value={settings.feather}
          step={1}
          min={0}
          max={200}
          show={(value) => `${value} px`}
          also={(value) => `${((value / project.width) * 100).toFixed(2)} % of the width`}
          onChange={(value) => save('Softness of the join', { 'settings.feather': value })}
        />
      );
  }
}
