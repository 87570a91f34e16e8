'use client';
import { memo } from 'react';
import { barAndBeat, barStart, beatOfTime, nextBar } from '@/core/time/grid';
import { longestNote } from '@/core/model/shoot-records';
import type { Moment } from '@/core/model/records';
import type { MomentKind } from '@/core/recipes/films';
import { secondSetupOf, setupOf, type PlannedMoment, type PlannedShot } from '@/core/plan/shots';
import { cautions } from '@/core/safety/cautions';
import { addMoment, setKind, setPart } from '@/store/commands/plan';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveText } from '@/ui/live-text';
import { Swatch } from '@/ui/ribbon/weave';
import { useGrowing } from '@/ui/use-growing';
import { kindOptions } from '../kinds';
import { FilmSentence } from './moment-sentence';

/** Every moment with the shots it needs, what it adds, and what it will cost afterwards. */
export function NeedsPage() {
  const plan = useData((data) => data.plan);
  const drawn = useGrowing(plan.moments.length, 4);
  const shots = new Map<string, PlannedShot[]>();
  for (const { shot } of plan.schedule.slots)
    for (const moment of shot.moments) shots.set(moment, [...(shots.get(moment) ?? []), shot]);
  return (
    <ul className="flex flex-col gap-3 p-5 phone:p-3" aria-label="Moments and what they need">
      {plan.moments.slice(0, drawn).map((planned) => (
        <MomentNeeds key={planned.moment.id} planned={planned} shots={shots.get(planned.moment.id) ?? []} />
      ))}
      {drawn === plan.moments.length && <AddMoment />}
    </ul>
  );
}

/** Another moment over the two bars at the needle. */
function AddMoment() {
  const { store, player, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const grid = snapshot.song?.grid;
  if (!grid) return null;
  const add = (kind: MomentKind) =>
    attempt(async () => {
      const start = barStart(grid, beatOfTime(grid, player.time()) + 0.01);
      const end = nextBar(grid, nextBar(grid, start));
      go({ moment: await addMoment(store, snapshot.project.id, kind, start, end) });
    });
  return (
    <li className="px-3 py-1">
      Another moment at the needle:{' '}
      <LiveChoice
        label="Add a moment"
        value=""
        empty="choose its kind"
        options={kindOptions}
        onChange={(kind) => add(kind as MomentKind)}
      />
    </li>
  );
}

/** A moment's line: what it is, how long, how many shots. Lines are many and seldom change. */
const MomentLine = memo(function MomentLine({
  moment,
  bar,
  length,
  shots,
  handwork,
  open,
}: {
  moment: Moment;
  bar: number | null;
  length: string;
  shots: number;
  handwork: number;
  open: boolean;
}) {
  const { store, attempt, go } = useServices();
  return (
    <div className="flex flex-wrap items-center gap-x-3 gap-y-1 px-3 py-2">
      <Swatch id={`needs-${moment.id}`} kind={moment.recipe} />
      <span className="max-w-[26ch] min-w-[9ch] font-serif text-[16px]">
        <LiveText
          label={`Name of ${moment.name}`}
          value={moment.name}
          onChange={(name) => attempt(() => setPart(store, moment.project, moment.id, 'Name', { name }))}
        />
      </span>
      <LiveChoice
        label={`Kind of ${moment.name}`}
        value={moment.recipe}
        options={kindOptions}
        onChange={(kind) => attempt(() => setKind(store, moment.project, moment.id, kind as MomentKind))}
      />
      <span className="num text-ink2">
        {bar === null ? '' : `bar ${bar}`} · {length}
      </span>
      <span className="flex-1" />
      <span className="text-[12px] text-ink2">
        {shots} {shots === 1 ? 'shot' : 'shots'}
        {handwork > 0 ? ` · ${handwork} frames by hand` : ' · nothing by hand'}
      </span>
      {!open && (
        <button type="button" className="knob" onClick={() => go({ moment: moment.id })}>
          Look
        </button>
      )}
    </div>
  );
});

function MomentNeeds({ planned, shots }: { planned: PlannedMoment; shots: readonly PlannedShot[] }) {
  const { store, attempt, askRemove } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const chosen = useData((data) => data.moment);
  const plan = useData((data) => data.plan);
  const { moment, filming, seconds, frames } = planned;
  const { prices } = plan;
  const grid = snapshot.song?.grid;
  const open = chosen?.id === moment.id;
  const price = prices.get(moment.id);
  const save = (label: string, set: Record<string, unknown>) =>
    attempt(() => setPart(store, moment.project, moment.id, label, set));
  const setups = snapshot.setups.map(({ id, name }) => ({ value: id, text: name }));
  const setup = setupOf(snapshot.setups, moment.setup);
  return (
    <li data-plan={moment.id} className={`unseen border bg-raised ${open ? 'border-ink2' : 'border-line'}`}>
      <MomentLine
        moment={moment}
        bar={grid ? barAndBeat(grid, moment.start).bar : null}
        length={`${seconds.toFixed(2)} s · ${frames} frames`}
        shots={shots.length}
        handwork={price ? price.mask + price.mend : 0}
        open={open}
      />
      {open && (
        <div className="border-t border-dotted border-line px-3 py-2.5">
          <FilmSentence moment={moment} />
          <p className="mt-1 flex flex-wrap items-center gap-x-1.5">
            Filmed in{' '}
            {setups.length === 0 ? (
              <em>no setup yet</em>
            ) : (
              <LiveChoice
                label={`Setup of ${moment.name}`}
                value={setup}
                options={setups}
                onChange={(id) => save('Where it is filmed', { setup: id })}
              />
            )}
            {filming.shots.some((shot) => shot.second) && setups.length > 1 && (
              <>
                and{' '}
                <LiveChoice
                  label={`Second place of ${moment.name}`}
                  value={secondSetupOf(snapshot.setups, moment)}
                  options={setups}
                  onChange={(id) => save('Where it is filmed', { second: id })}
                />
              </>
            )}
            . Adds to the story:{' '}
            <LiveText
              label={`What ${moment.name} adds to the story`}
              most={longestNote}
              value={moment.story?.trim() || 'one line here'}
              onChange={(story) => save('Story', { story })}
            />
          </p>
          <ShotTable shots={shots} />
          <dl className="mt-2 grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5 text-[12.5px]">
            <Row name="Keep equal" values={[...new Set(filming.shots.flatMap((shot) => shot.same))]} />
            <Row name="Never touch" values={filming.untouched} />
            <Row name="Join along" values={filming.joins} />
            <Row name="Cautions" values={filming.cautions.map((kind) => cautions[kind].title)} />
            <Row name="Kit and props" values={[...filming.kit, ...filming.props]} />
            <Row name="Risk and mess" values={[`${levels[filming.risk]} risk`, `${messes[filming.mess]}`]} />
            {price && (
              <Row
                name="Afterwards"
                values={[
                  `${price.mask} of ${price.frames} frames with a moving mask`,
                  `${price.mend} mended by hand`,
                  ...price.because,
                ]}
              />
            )}
            <Row name="Saves work" values={price?.saving ? [price.saving] : []} />
          </dl>
          <div className="mt-2 flex gap-1.5">
            <button type="button" className="knob" onClick={() => askRemove(moment.id)}>
              Remove the moment
            </button>
          </div>
        </div>
      )}
    </li>
  );
}

const levels = ['no', 'little', 'some', 'high'];
const messes = ['nothing to clean', 'a little to set back', 'much to set back', 'a mess: comes last'];

function Row({ name, values }: { name: string; values: readonly string[] }) {
  if (values.length === 0) return null;
  return (
    <>
      <dt className="font-semibold">{name}</dt>
      <dd className="text-ink2">{values.join('; ')}</dd>
    </>
  );
}

/** Shots with their lengths: what to film, for how long, how often. */
function ShotTable({ shots }: { shots: readonly PlannedShot[] }) {
  if (shots.length === 0) return <p className="mt-2 text-ink2">Nothing has to be filmed for it.</p>;
  return (
    <ul className="mt-2 flex flex-col">
      {shots.map((shot) => (
        <li
          key={shot.id}
          data-shot={shot.id}
          className="grid grid-cols-[minmax(0,1fr)_auto] gap-x-4 border-t border-dotted border-line py-1"
        >
          <span>
            <b className="font-semibold">{shot.title}</b>
            {shot.moments.length > 1 && (
              <span className="text-ink2"> · for {shot.moments.length} moments</span>
            )}
            <span className="block text-[12px] text-ink2">{shot.note}</span>
          </span>
          <span className="num text-right whitespace-nowrap">
            {shot.seconds} s{shot.speed < 1 ? ` at ${Math.round(shot.speed * 100)} %` : ''}
            <span className="block text-ink2">
              {shot.takes} {shot.takes === 1 ? 'take' : 'takes'}
            </span>
          </span>
        </li>
      ))}
    </ul>
  );
}
