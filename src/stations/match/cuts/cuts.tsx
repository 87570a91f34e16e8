'use client';
import { useState } from 'react';
import { joinParts, joinPlaces, type JoinPart, type JoinPlace } from '@/core/footage/found-joins';
import { plateSlot } from '@/core/model/slots';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Progress } from '@/ui/progress';
import { Empty, Station, type Parts } from '../../station';
import { FoundCuts } from './found-cuts';
import { useJoins } from './use-joins';

/** frames over which one take dissolves into another at the most */
const mostOver = 48;

type How = { dissolves: boolean; frames: number; part: JoinPart; at: JoinPlace };
const usual: How = { dissolves: false, frames: 8, part: 'whole', at: 'any' };

/** Where one take goes over into another, or into itself, unseen. */
export function Cuts<Id extends string>({ question, parts }: { question: string; parts: Parts<Id> }) {
  const { openFiles, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { share, joins: last, find, cancel } = useJoins();
  const [chosen, choose] = useState(0);
  const takes = snapshot.takes.filter((take) => takeMeasure(snapshot, take));
  const filmed = takes.filter(({ slot }) => slot !== plateSlot);
  const [ids, setIds] = useState<{ first?: string; second?: string }>({});
  const [how, setHow] = useState(usual);
  const byId = (id: string | undefined) => takes.find((take) => take.id === id);
  const first = byId(ids.first) ?? filmed[0] ?? takes[0];
  const second = byId(ids.second) ?? filmed.find(({ id }) => id !== first.id) ?? first;
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
  const asked = { first, second, over: how.dissolves ? how.frames : 1, part: how.part, at: how.at };
  // Of takes that were taken out meanwhile nothing is shown.
  const joins = last && byId(last.asked.first.id) && byId(last.asked.second.id) ? last : null;
  const same =
    joins &&
    joins.asked.first.id === first.id &&
    joins.asked.second.id === second.id &&
    joins.asked.over === asked.over &&
    joins.asked.part === asked.part &&
    joins.asked.at === asked.at;
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
          />{' '}
          to{' '}
          <LiveChoice
            label="Second take"
            value={second.id}
            options={takeOptions}
            onChange={(id) => setIds({ first: first.id, second: id })}
          />
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
            options={Object.entries(joinParts).map(([value, { text }]) => ({ value, text }))}
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
        {share === null ? (
          !same && (
            <div>
              <button
                type="button"
                className="knob main"
                onClick={() =>
                  attempt(() => {
                    choose(0);
                    return find(asked);
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
        {joins && <FoundCuts joins={joins} chosen={chosen} onChoose={choose} />}
      </div>
    </Station>
  );
}
