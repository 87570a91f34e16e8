'use client';
import { useState } from 'react';
import {
  joinParts,
  joinPlaces,
  type JoinPart,
  type JoinPlace,
  type JoinSpan,
  type JoinsWanted,
} from '@/core/footage/found-joins';
import { usualRegion, type Region } from '@/core/geometry/region';
import type { Take } from '@/core/model/records';
import { plateSlot } from '@/core/model/slots';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Progress } from '@/ui/progress';
import { Empty, Station, type Parts } from '../../station';
import { RegionPad } from '../region-pad';
import { FoundCuts } from './found-cuts';
import { useJoins, type Asked } from './use-joins';

/** frames over which one take dissolves into another at the most */
const mostOver = 48;

type How = { dissolves: boolean; frames: number; part: JoinPart; region: Region; at: JoinPlace };
const usual: How = {
  ...{ dissolves: false, frames: 8 },
  ...{ part: 'whole', region: usualRegion, at: 'any' },
};
/** How joins were asked for that were found before. */
const howAsked = ({ over, part, region, at }: JoinsWanted): How => ({
  ...{ dissolves: over > 1, frames: over > 1 ? over : usual.frames },
  ...{ part, region: region ?? usual.region, at },
});

/** The seconds of one take that are looked at: as said, within what it has. */
const spanIn = (last: number, [from, until]: JoinSpan = [0, Infinity]): JoinSpan => [
  Math.min(from, last),
  Math.min(until, last),
];
const isWhole = ([from, until]: JoinSpan, last: number) => from <= 0 && until >= last;

/** What is asked for, with takes by their ids. */
const idsIn = ({ first, second, ...wanted }: Asked) => ({ ...wanted, first: first.id, second: second.id });

const sayAt = (seconds: number) => `${seconds.toFixed(1)} s`;

/** Between which seconds of a take joins are looked for. @param end its last one */
function Span({
  of,
  span: [from, until],
  end,
  onChange,
}: {
  of: string;
  span: JoinSpan;
  end: number;
  onChange: (span: JoinSpan) => void;
}) {
  return (
    <>
      {' between '}
      <LiveNumber
        label={`First second of ${of}`}
        value={from}
        step={0.1}
        min={0}
        max={until}
        show={sayAt}
        onChange={(next) => onChange([next, until])}
      />
      {' and '}
      <LiveNumber
        label={`Last second of ${of}`}
        value={until}
        step={0.1}
        min={from}
        max={end}
        show={sayAt}
        onChange={(next) => onChange([from, next])}
      />
    </>
  );
}

/** Where one take goes over into another, or into itself, unseen. */
export function Cuts<Id extends string>({ question, parts }: { question: string; parts: Parts<Id> }) {
  const { openFiles, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { share, joins: last, find, cancel } = useJoins();
  const [chosen, choose] = useState(0);
  const takes = snapshot.takes.filter((take) => takeMeasure(snapshot, take));
  const filmed = takes.filter(({ slot }) => slot !== plateSlot);
  const [ids, setIds] = useState<{ first?: string; second?: string }>({});
  const [said, setHow] = useState<How | null>(null);
  const [limits, setLimits] = useState<Record<string, JoinSpan>>({});
  const how = said ?? (last ? howAsked(last.asked) : usual);
  const byId = (id: string | undefined) => takes.find((take) => take.id === id);
  const first = byId(ids.first ?? last?.asked.first.id) ?? filmed[0] ?? takes[0];
  const second =
    byId(ids.second ?? last?.asked.second.id) ?? filmed.find(({ id }) => id !== first.id) ?? first;
  const bringIn = (
    <button type="button" className="knob" onClick={openFiles}>
      Bring in takes
    </button>
  );
  if (!first)
    return (
      <Station question={question} parts={parts} tools={bringIn}>
        <Empty title="No take is measured yet">
          <p>
            Once a take is, the frames are found at which it goes over into another one, or into itself,
            unseen.
          </p>
        </Empty>
      </Station>
    );
  const takeOptions = takes.map(({ id, name }) => ({ value: id, text: name }));
  const lastOf = (take: Take) => takeMeasure(snapshot, take)?.times.last ?? 0;
  /** Which part of each of the two is looked at. */
  const sides = ([first, second] as const).map((take, side) => {
    const key = `${side} ${take.id}`;
    const asked = last && [last.asked.first, last.asked.second][side];
    const before = asked?.id === take.id ? last?.asked.spans?.[side] : undefined;
    const end = lastOf(take);
    return { key, end, span: spanIn(end, limits[key] ?? before) };
  });
  const wanted: JoinsWanted = {
    ...{ over: how.dissolves ? how.frames : 1, part: how.part, at: how.at },
    ...(how.part === 'drawn' ? { region: how.region } : {}),
    ...(sides.every(({ span, end }) => isWhole(span, end))
      ? {}
      : { spans: [sides[0].span, sides[1].span] as const }),
  };
  const same =
    last && JSON.stringify(idsIn(last.asked)) === JSON.stringify(idsIn({ ...wanted, first, second }));
  const spanOf = (side: 0 | 1) => {
    const { key, end, span } = sides[side];
    return (
      <Span
        of={side === 0 ? 'the first take' : 'the second take'}
        span={span}
        end={end}
        onChange={(next) => setLimits({ ...limits, [key]: next })}
      />
    );
  };
  return (
    <Station question={question} parts={parts} tools={bringIn}>
      <div className="flex flex-col gap-3 px-5 py-4 phone:px-3">
        <p className="max-w-[72ch] text-[16px] leading-[1.9]">
          <LiveChoice
            label="How one goes over into the other"
            value={how.dissolves ? 'dissolve' : 'cut'}
            options={[
              { value: 'cut', text: 'Cut' },
              { value: 'dissolve', text: 'Dissolve' },
            ]}
            onChange={(value) => setHow({ ...how, dissolves: value === 'dissolve' })}
          />{' '}
          from{' '}
          <LiveChoice
            label="First take"
            value={first.id}
            options={takeOptions}
            onChange={(id) => setIds({ first: id, second: second.id })}
          />
          {spanOf(0)} to{' '}
          <LiveChoice
            label="Second take"
            value={second.id}
            options={takeOptions}
            onChange={(id) => setIds({ first: first.id, second: id })}
          />
          {spanOf(1)}
          {how.dissolves && (
            <>
              {' '}
              over{' '}
              <LiveNumber
                label="Frames of the dissolve"
                value={how.frames}
                step={1}
                min={2}
                max={mostOver}
                show={(value) => `${value} frames`}
                onChange={(frames) => setHow({ ...how, frames })}
              />
            </>
          )}{' '}
          where{' '}
          <LiveChoice
            label="What has to match"
            value={how.part}
            options={[
              ...Object.entries(joinParts).map(([value, { text }]) => ({ value, text })),
              { value: 'drawn', text: 'a part that I draw' },
            ]}
            onChange={(part) => setHow({ ...how, part: part as JoinPart })}
          />{' '}
          matches and moves on as it did,{' '}
          <LiveChoice
            label="In which parts of them"
            value={how.at}
            options={Object.entries(joinPlaces).map(([value, text]) => ({ value, text }))}
            onChange={(at) => setHow({ ...how, at: at as JoinPlace })}
          />
          {first.id === second.id && ', at least 8 frames further on'}.
        </p>
        {how.part === 'drawn' && (
          <RegionPad take={first} region={how.region} onChange={(region) => setHow({ ...how, region })} />
        )}
        {share === null ? (
          !same && (
            <div>
              <button
                type="button"
                className="knob main"
                onClick={() =>
                  attempt(() => {
                    choose(0);
                    return find({ ...wanted, first, second });
                  })
                }
              >
                Find the frames
              </button>
            </div>
          )
        ) : (
          <div className="flex max-w-[420px] items-center gap-3">
            <Progress label="Looking for the frames" share={share} />
            <button type="button" className="knob" onClick={cancel}>
              Cancel
            </button>
          </div>
        )}
        {last && same && share === null && <FoundCuts joins={last} chosen={chosen} onChoose={choose} />}
      </div>
    </Station>
  );
}
