'use client';
import { useState } from 'react';
import { pairSide, scorePair, type PairScore } from '@/core/footage/take-findings';
import type { CloneMoment, Take } from '@/core/model/records';
import { fillOf } from '@/core/model/slots';
import { cornerMove } from '@/core/footage/placement';
import { createClone, setMoment } from '@/store/commands/moments';
import { plateFor, plateOfMoment, serves, setupOfMoment } from '@/store/plates';
import { comparisonOf, takeMeasure, type Snapshot } from '@/store/snapshot';
import { useBench } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { Empty, Part, Station } from '../station';
import { PairPicture } from './pair-picture';
import { Swatch } from './swatch';

const question = 'Which takes belong together?';

type Chosen = { left: Take; right: Take };

/** The plate that a take is judged by here: the moment's, else that of its own setup. */
const plateHere = (snapshot: Snapshot, moment: CloneMoment | null, take: Take): Take | null =>
  moment ? plateOfMoment(snapshot, moment) : plateFor(snapshot, take);

/** The score of a pair; null until both were compared with one plate. */
function pairScore(
  snapshot: Snapshot,
  moment: CloneMoment | null,
  { left, right }: Chosen,
): PairScore | null {
  const plate = plateHere(snapshot, moment, left);
  const sides = [left, right].map((take) => {
    const measure = takeMeasure(snapshot, take);
    const comparison = comparisonOf(snapshot, take, plate);
    return measure && comparison && pairSide(take, measure, comparison, snapshot.project);
  });
  return sides[0] && sides[1] ? scorePair([sides[0], sides[1]]) : null;
}

/** A word about a take for its swatch: how far it moved, or how its light differs. */
function verdict(
  snapshot: Snapshot,
  moment: CloneMoment | null,
  take: Take,
): { text: string; good: boolean } | null {
  const measure = takeMeasure(snapshot, take);
  const comparison = comparisonOf(snapshot, take, plateHere(snapshot, moment, take));
  if (!measure) return { text: 'measuring', good: true };
  if (!comparison) return null;
  const factor = snapshot.project.width / measure.size.width;
  const move = Math.max(...comparison.placements.map((one) => cornerMove(one, measure.size))) * factor;
  const stops = comparison.colour?.stops ?? 0;
  if (comparison.agreement < 0.45) return { text: 'other view', good: false };
  if (move > 0.3 && !take.steady) return { text: `${move.toFixed(1)} px`, good: false };
  if (Math.abs(stops) > 0.1 && !take.match)
    return { text: `${stops > 0 ? '+' : '−'}${Math.abs(stops).toFixed(2)} stop`, good: false };
  return { text: take.steady || take.match ? 'mended' : 'still', good: true };
}

/** The pair board: takes of one role down, of the other across, each crossing with its score. */
export function MatchStation() {
  const { snapshot, findings, openFiles, clone: moment, store, attempt, go } = useBench();
  const [picked, setPicked] = useState<{ left: string; right: string } | null>(null);
  const { takes } = snapshot;
  const setup = moment && setupOfMoment(snapshot, moment);
  const mine = takes.filter((take) => setup === null || serves(snapshot, take, setup));
  const of = (slot: string) => mine.filter((take) => take.slot === slot);
  const [lefts, rights] = [of('left'), of('right')];
  const homeless = (take: Take) =>
    !snapshot.clones.some((one) => serves(snapshot, take, setupOfMoment(snapshot, one)));
  const others = takes.filter((take) =>
    mine.includes(take) ? !lefts.includes(take) && !rights.includes(take) : homeless(take),
  );
  const elsewhere = takes.filter((take) => !mine.includes(take) && !homeless(take)).length;
  const pairs = lefts.flatMap((left) =>
    rights.map((right) => ({ left, right, score: pairScore(snapshot, moment, { left, right }) })),
  );
  const best = [...pairs].sort((a, b) => (b.score?.score ?? 0) - (a.score?.score ?? 0))[0] ?? null;
  const used = pairs.find(
    ({ left, right }) =>
      moment && left.id === fillOf(moment, 'left').take && right.id === fillOf(moment, 'right').take,
  );
  const chosen =
    pairs.find((pair) => pair.left.id === picked?.left && pair.right.id === picked.right) ?? used ?? best;

  if (takes.length === 0) {
    return (
      <Station question={question} side={findings.match.length > 0 && <Findings findings={findings.match} />}>
        <Empty title="Bring in what was filmed">
          <p>
            Drop the clean plate and the takes of each role anywhere on this page. Each is measured once: does
            the camera still stand, is the light the same, who stands where.
          </p>
          <button type="button" className="knob main" onClick={openFiles}>
            Choose files
          </button>
        </Empty>
      </Station>
    );
  }

  const use = (pair: Chosen) =>
    attempt(async () => {
      if (moment) {
        const set = {
          'slots.left.take': pair.left.id,
          'slots.right.take': pair.right.id,
          'settings.seam': null,
        };
        await setMoment(store, snapshot.project.id, moment.id, 'Use this pair', set);
        go({ station: 'build' });
      } else {
        const perBar = snapshot.song?.grid?.beatsPerBar ?? 4;
        go({
          station: 'build',
          moment: await createClone(store, snapshot.project.id, 8 * perBar, 11 * perBar, pair),
        });
      }
    });
  const about = (take: Take) => findings.match.filter((finding) => finding.where.take === take.id);
  const loose = findings.match.filter((finding) => !finding.where.take);
  return (
    <Station
      question={question}
      sub={
        <>
          {moment && snapshot.clones.length > 1 && (
            <>
              <LiveChoice
                label="Moment"
                value={moment.id}
                options={snapshot.clones.map((one) => ({ value: one.id, text: one.name }))}
                onChange={(id) => go({ moment: id })}
              />{' '}
              ·{' '}
            </>
          )}
          {lefts.length} left × {rights.length} right
          {elsewhere > 0 && ` · ${elsewhere} of other setups, with their own moments`}
        </>
      }
      tools={
        <button type="button" className="knob" onClick={openFiles}>
          Bring in takes
        </button>
      }
      side={
        <>
          {chosen && (
            <Part title={`${chosen.left.name} with ${chosen.right.name}`}>
              <Findings findings={[...about(chosen.left), ...about(chosen.right)]} />
              <button type="button" className="knob main mt-3" onClick={() => use(chosen)}>
                {moment ? `Use this pair in ${moment.name}` : 'Use this pair'}
              </button>
            </Part>
          )}
          <Part title="All takes">
            <Findings
              findings={[
                ...loose,
                ...findings.match.filter(
                  (one) =>
                    one.where.take &&
                    one.where.take !== chosen?.left.id &&
                    one.where.take !== chosen?.right.id,
                ),
              ]}
            />
          </Part>
        </>
      }
    >
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3 px-5 py-3 max-sm:px-3">
        {others.length > 0 && (
          <div className="flex gap-3 sm:order-last sm:flex-col">
            {others.map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} width={132} />
            ))}
          </div>
        )}
        {lefts.length > 0 && rights.length > 0 ? (
          <div
            className="grid gap-2.5"
            style={{
              gridTemplateColumns: `minmax(84px, 128px) repeat(${rights.length}, minmax(96px, 190px))`,
            }}
            role="group"
            aria-label="Pairs"
          >
            <div />
            {rights.map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} />
            ))}
            {lefts.map((left) => (
              <div key={left.id} className="contents">
                <Swatch take={left} verdict={verdict(snapshot, moment, left)} />
                {rights.map((right) => {
                  const pair = pairs.find((one) => one.left === left && one.right === right);
                  return (
                    <Crossing
                      key={right.id}
                      name={`${left.name} with ${right.name}`}
                      score={pair?.score ?? null}
                      chosen={chosen?.left === left && chosen.right === right}
                      onChoose={() => setPicked({ left: left.id, right: right.id })}
                      onUse={() => use({ left, right })}
                    />
                  );
                })}
              </div>
            ))}
          </div>
        ) : (
          <div className="flex flex-wrap gap-3">
            {[...lefts, ...rights].map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} width={180} />
            ))}
            <p className="w-full text-ink2">
              A pair needs a take for the left and one for the right. Say under each picture what it is, or
              bring in more.
            </p>
          </div>
        )}
      </div>
      {chosen && <PairPicture left={chosen.left} right={chosen.right} />}
    </Station>
  );
}

const bars = [
  { key: 'camera', name: 'camera', dye: 'var(--verdigris)' },
  { key: 'light', name: 'light', dye: 'var(--saffron)' },
  { key: 'room', name: 'room', dye: 'var(--woad)' },
] as const;

/** One crossing of the board: three bars and the score. Press to see it, twice to use it. */
function Crossing({
  name,
  score,
  chosen,
  onChoose,
  onUse,
}: {
  name: string;
  score: PairScore | null;
  chosen: boolean;
  onChoose: () => void;
  onUse: () => void;
}) {
  const said = score
    ? `${name}: ${Math.round(score.score * 100)} of 100; ${bars.map((bar) => `${bar.name} ${Math.round(score[bar.key] * 100)}`).join(', ')}`
    : `${name}: not compared yet`;
  return (
    <button
      type="button"
      aria-pressed={chosen}
      title={said}
      data-pair={name}
      onClick={onChoose}
      onDoubleClick={onUse}
      className={`flex min-h-[64px] flex-col justify-between gap-1.5 bg-raised px-2.5 py-2 text-left ${chosen ? 'outline-[2.5px] outline-ink' : 'outline outline-1 outline-line'}`}
    >
      <span className="sr-only">{name}: </span>
      <span className="flex w-full flex-col gap-1">
        {bars.map((bar) => (
          <span key={bar.key} className="flex items-center gap-1.5">
            <span className="w-11 text-[10px] leading-none text-ink2">{bar.name}</span>
            <span className="sr-only">{score ? Math.round(score[bar.key] * 100) : 'not compared yet'}, </span>
            <span
              className="h-[5px]"
              style={{ width: `${(score?.[bar.key] ?? 0) * 65}%`, background: bar.dye }}
            />
          </span>
        ))}
      </span>
      <span className="num !text-[15px]">
        {score ? Math.round(score.score * 100) : '…'}
        <span className="sr-only">{score ? ' of 100' : ''}</span>
      </span>
    </button>
  );
}
