'use client';
import { useCallback, useMemo, useState } from 'react';
import { pairMeasures } from '@/core/footage/pair-measures';
import { usualWeights, type RankedPair, type TakeMeasures } from '@/core/footage/pairs';
import type { Moment, Take } from '@/core/model/records';
import { filmSlot, fillOf, noSlot, plateSlot } from '@/core/model/slots';
import {
  candidatesFor,
  laysOverPlate,
  pairsOf,
  recipeOf,
  slotsInUse,
  usualPairs,
  usualRecipe,
} from '@/core/recipes/built';
import { rememberedWith } from '@/core/remember';
import type { Recipe } from '@/core/recipes/recipe';
import type { Slot } from '@/core/recipes/slots';
import { beginShifted } from '@/core/recipes/shift-pair';
import { createMoment, fillSlots } from '@/store/commands/moments';
import { serves, setupOfMoment } from '@/store/plates';
import { meetingOf } from '@/store/bodies';
import { bodiesIn, comparisonOf, takeMeasure, type Snapshot } from '@/store/snapshot';
import { useOffer } from '@/ui/actions/offers';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { Term } from '@/ui/term';
import { useSteady } from '@/ui/use-steady';
import { goTo, useWhere } from '@/ui/where';
import { Empty, Part, Station } from '../station';
import { Cuts } from './cuts/cuts';
import { Divide } from './divide/divide';
import { Recordings } from './field-recorder/recordings';
import { Crossing, sayShift } from './crossing';
import { PairCurves, type Pair } from './pair-side';
import { PairPicture } from './pair-picture';
import { AllTakes } from './all-takes';
import { Swatch } from './swatch';
import { plateHere, verdict } from './verdict';
import { useRanking } from './use-ranking';
import { WhatCounts } from './what-counts';
import { TakenApart } from './taken-apart';

const question = 'Which takes belong together?';

type PartName = 'pairs' | 'takes' | 'cuts' | 'recorder';
const matchParts: { id: PartName; text: string }[] = [
  { id: 'pairs', text: 'Pairs' },
  { id: 'takes', text: 'All takes' },
  { id: 'cuts', text: 'Cuts' },
  { id: 'recorder', text: 'Recorder' },
];

/** The parts of this station, with the one that is shown. */
const partsShown = (shown: PartName, go: (where: { part: string }) => void) => ({
  options: matchParts,
  shown,
  onShow: (id: PartName) => go({ part: id }),
});

const measured = rememberedWith<Take, TakeMeasures>();

/** What ranking is told of some takes, as far as they were held against their plate. */
const measuresOf = (snapshot: Snapshot, moment: Moment | null, takes: readonly Take[]): TakeMeasures[] =>
  takes.flatMap((take) => {
    const measure = takeMeasure(snapshot, take);
    const comparison = comparisonOf(snapshot, take, plateHere(snapshot, moment, take));
    const bodies = bodiesIn(snapshot, take);
    return measure && comparison
      ? [measured(take, [measure, comparison, bodies], () => pairMeasures(take, measure, comparison, bodies))]
      : [];
  });

/** What a take can be whatever a moment is. */
const ofNoKind: readonly string[] = [plateSlot, filmSlot, noSlot];
/** takes of a slot that the board shows at the most */
const mostShown = 16;
/** pairs of which ranking takes so long that it is said */
const manyPairs = 900;

/** The takes of one slot that the board shows: all of a few, or those in the best pairs, the best first; so too where any take may fill it. */
function bestOf(
  takes: readonly Take[],
  { open }: Slot,
  ranked: ReadonlyMap<string, RankedPair>,
  side: 0 | 1,
): Take[] {
  if (takes.length <= mostShown && !open) return [...takes];
  const places = new Map<string, number>();
  for (const { a, b } of ranked.values()) {
    const id = side === 0 ? a : b;
    if (!places.has(id)) places.set(id, places.size);
  }
  const place = ({ id }: Take) => places.get(id) ?? Infinity;
  return [...takes].sort((one, other) => place(one) - place(other) || 0).slice(0, mostShown);
}

/** The pair board where each take of one slot is joined with one of another; the others choose theirs in the sentence. */
export function MatchStation() {
  const projectId = useData((data) => data.snapshot.project.id);
  const builtMoment = useData((data) => data.builtMoment);
  const recipe = builtMoment && recipeOf(builtMoment);
  const { film, part } = useWhere();
  const { go } = useServices();
  const some = useData((data) => data.snapshot.takes.length > 0);
  const shown = useData((data) => data.snapshot.takes.find(({ id }) => id === film));
  if (shown) {
    const OfOne = shown.slot === filmSlot ? TakenApart : Divide;
    return <OfOne key={shown.id} take={shown} onBack={() => goTo({ film: null })} />;
  }
  if (some && part === 'takes') return <AllTakes question={question} parts={partsShown('takes', go)} />;
  if (some && part === 'cuts') return <Cuts question={question} parts={partsShown('cuts', go)} />;
  if (some && part === 'recorder')
    return <Recordings question={question} parts={partsShown('recorder', go)} />;
  if (builtMoment && recipe && !pairsOf(builtMoment)) return <NoPairs moment={builtMoment} recipe={recipe} />;
  return <PairBoard key={builtMoment?.id ?? projectId} />;
}

/** A moment whose takes need not fit each other. */
function NoPairs({ moment, recipe }: { moment: Moment; recipe: Recipe }) {
  const { openFiles, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  return (
    <Station
      question={question}
      parts={partsShown('pairs', go)}
      sub={<MomentChoice moment={moment} />}
      tools={
        <button type="button" className="knob" onClick={openFiles}>
          Bring in takes
        </button>
      }
    >
      <div className="flex flex-col gap-4 px-5 py-4 phone:px-3">
        <p className="max-w-[60ch] text-[15px]">
          {laysOverPlate(recipe)
            ? `Each take of a ${recipe.title.toLowerCase()} is held against the clean plate by itself.`
            : `The takes of a ${recipe.title.toLowerCase()} are not laid over each other, so nothing has to fit.`}{' '}
          It is made of{' '}
          {new Intl.ListFormat('en').format(slotsInUse(moment, recipe).map(({ title }) => `a ${title}`))}:
          choose each in the sentence.
        </p>
        <div className="flex flex-wrap gap-3">
          {snapshot.takes.map((take) => (
            <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} width={180} />
          ))}
        </div>
        <div>
          <button type="button" className="knob main" onClick={() => go({ station: 'build' })}>
            Choose in {moment.name}
          </button>
        </div>
      </div>
    </Station>
  );
}

/** Which moment is looked at, where there are several. */
function MomentChoice({ moment }: { moment: Moment | null }) {
  const { go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  if (!moment || snapshot.built.length < 2) return null;
  return (
    <>
      <LiveChoice
        label="Moment"
        value={moment.id}
        options={snapshot.built.map((one) => ({ value: one.id, text: one.name }))}
        onChange={(id) => go({ moment: id })}
      />{' '}
    </>
  );
}

/** Takes of one slot down, of the other across, each crossing with its score. */
function PairBoard() {
  const { openFiles, store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings);
  const moment = useData((data) => data.builtMoment);
  const [at, setAt] = useState<number | null>(null);
  const [picked, setPicked] = useState<{ first: string; second: string } | null>(null);
  const pick = useCallback(
    ({ first, second }: Pair) => setPicked({ first: first.id, second: second.id }),
    [],
  );
  const { takes } = snapshot;
  const setup = moment && setupOfMoment(snapshot, moment);
  const recipe = (moment && recipeOf(moment)) ?? usualRecipe;
  const pairs = useSteady(pairsOf(moment) ?? usualPairs);
  const { slots, by } = pairs;
  const [down, across] = slots;
  const { mine, firsts, seconds } = useMemo(() => {
    const mine = snapshot.takes.filter((take) => setup === null || serves(snapshot, take, setup));
    const [firsts, seconds] = [candidatesFor(mine, down, across), candidatesFor(mine, across, down)];
    return { mine, firsts, seconds };
  }, [snapshot, setup, down, across]);
  const homeless = (take: Take) =>
    !snapshot.built.some((one) => serves(snapshot, take, setupOfMoment(snapshot, one)));
  // What was filmed for moments of other kinds is found under all takes.
  const others = takes.filter((take) =>
    firsts.includes(take) || seconds.includes(take)
      ? false
      : mine.includes(take)
        ? take.slot === null || ofNoKind.includes(take.slot)
        : homeless(take),
  );
  // What was found is said of them all.
  const told = takes.filter((take) => mine.includes(take) || homeless(take));
  const elsewhere = takes.filter((take) => !mine.includes(take) && !homeless(take)).length;
  const weights = useMemo(() => {
    const said = { ...usualWeights, ...snapshot.project.pairWeights };
    // What was said for another kind may leave nothing that counts for this one.
    return by.some((part) => said[part] > 0) ? said : usualWeights;
  }, [snapshot.project.pairWeights, by]);
  const shownParts = useMemo(() => by.filter((part) => part !== 'eyes' || weights.eyes > 0), [by, weights]);
  const toRank = useMemo(
    () => [firsts, seconds].map((takes) => measuresOf(snapshot, moment, takes)),
    [snapshot, moment, firsts, seconds],
  );
  const { ranked, ranking } = useRanking(toRank[0], toRank[1], weights, by);
  const [rows, columns] = useMemo(
    () => [bestOf(firsts, down, ranked, 0), bestOf(seconds, across, ranked, 1)],
    [firsts, seconds, down, across, ranked],
  );
  const isBoard = firsts.length > 0 && seconds.length > 0;
  const posterOf = (take: Take) => takeMeasure(snapshot, take)?.poster ?? null;
  const pairOf = (ids: { first: string | null; second: string | null } | null): Pair | null => {
    const first = firsts.find(({ id }) => id === ids?.first);
    const second = seconds.find(({ id }) => id === ids?.second);
    return first && second && first !== second ? { first, second } : null;
  };
  const [best] = [...ranked.values()];
  const used = moment && { first: fillOf(moment, down.key).take, second: fillOf(moment, across.key).take };
  const chosen =
    pairOf(picked) ??
    pairOf(used) ??
    (best || !ranking
      ? pairOf(best ? { first: best.a, second: best.b } : { first: firsts[0]?.id, second: seconds[0]?.id })
      : null);

  const { project, song } = snapshot;
  /** @param shift seconds by which the first take is to be further than the second; where nothing is said as they are, or in step where their cameras repeat a move */
  const takePair = useCallback(
    ({ first, second }: Pair, shift?: number) =>
      attempt(async () => {
        const chosen = { [down.key]: first.id, [across.key]: second.id };
        const found = ranked.get(`${first.id} ${second.id}`);
        const further = shift ?? (found?.inStep ? found.offset : undefined);
        const grid = song?.grid;
        if (moment) {
          const begin =
            further === undefined || !grid
              ? {}
              : beginShifted(moment, recipe, grid, [down.key, across.key], further);
          await fillSlots(store, project.id, moment.id, 'Use this pair', chosen, begin);
          go({ station: 'build' });
        } else {
          const perBar = grid?.beatsPerBar ?? 4;
          const made = await createMoment(store, project.id, 8 * perBar, 11 * perBar, chosen);
          go({ station: 'build', moment: made });
        }
      }),
    [attempt, store, go, project.id, song, moment, recipe, ranked, down, across],
  );
  const score = chosen && ranked.get(`${chosen.first.id} ${chosen.second.id}`);
  useOffer([
    {
      id: 'use-pair',
      text: chosen ? `Use ${chosen.first.name} with ${chosen.second.name}` : 'Use this pair',
      scope: 'picture',
      keys: ['u'],
      run: () => chosen && void takePair(chosen),
    },
  ]);

  if (takes.length === 0) {
    return (
      <Station question={question} side={findings.match.length > 0 && <Findings findings={findings.match} />}>
        <Empty title="Bring in what was filmed">
          <p>
            Choose the <Term word="clean plate" /> and the takes of each role
            <span className="pointer-coarse:hidden phone:hidden">, or drop them anywhere on this page</span>.
            Each is measured once: does the camera still stand, is the light the same, who stands where.
          </p>
          <button type="button" className="knob main" onClick={openFiles}>
            Choose files
          </button>
        </Empty>
      </Station>
    );
  }

  // What is wrong with the plate is wrong with both.
  const against = chosen && plateHere(snapshot, moment, chosen.first);
  const about = (take: Take) => findings.match.filter((finding) => finding.where.take === take.id);
  const loose = findings.match.filter(
    ({ where }) => !where.take && (!where.setup || setup === null || where.setup === setup),
  );
  return (
    <Station
      question={question}
      parts={partsShown('pairs', go)}
      sub={
        <>
          <MomentChoice moment={moment} />
          {firsts.length} for “{down.title}” × {seconds.length} for “{across.title}”
          {elsewhere > 0 && ` · ${elsewhere} of other setups, with their own moments`}
          {ranking && firsts.length * seconds.length > manyPairs && ' · being ranked'}
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
            <Part title={`${chosen.first.name} with ${chosen.second.name}`}>
              <Findings
                findings={[
                  ...meetingOf(snapshot, chosen.first, chosen.second),
                  ...about(chosen.first),
                  ...about(chosen.second),
                  ...(against ? about(against) : []),
                ]}
              />
              <PairCurves moment={moment} pair={chosen} slots={[down, across]} onPick={setAt} />
              <button type="button" className="knob main mt-3" onClick={() => takePair(chosen)}>
                {moment ? `Use this pair in ${moment.name}` : 'Use this pair'}
              </button>
              {moment && score && score.offset !== 0 && !score.inStep && (
                <button type="button" className="knob mt-1.5" onClick={() => takePair(chosen, score.offset)}>
                  Use it with {chosen.second.name}, {sayShift(score)}
                </button>
              )}
            </Part>
          )}
          <Part title="The other takes">
            <Findings
              findings={[
                ...loose,
                ...told
                  .filter((take) => take !== chosen?.first && take !== chosen?.second && take !== against)
                  .flatMap(about),
              ]}
            />
          </Part>
        </>
      }
    >
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3 px-5 py-3 phone:px-3">
        {isBoard && others.length > 0 && (
          <div className="flex gap-3 overflow-x-auto desk:order-last desk:flex-col">
            {others.map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} width={104} />
            ))}
          </div>
        )}
        {isBoard ? (
          <div className="min-w-0">
            <div
              className="relative -m-1 grid gap-2.5 overflow-x-auto p-1"
              style={{
                gridTemplateColumns: `minmax(84px, 110px) repeat(${columns.length}, minmax(96px, 130px))`,
              }}
              role="group"
              aria-label="Pairs"
            >
              <div />
              {columns.map((take) => (
                <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} />
              ))}
              {rows.map((first) => (
                <div key={first.id} className="contents">
                  <Swatch take={first} verdict={verdict(snapshot, moment, first)} />
                  {columns.map((second) =>
                    second === first ? (
                      <div key={second.id} />
                    ) : (
                      <Crossing
                        key={second.id}
                        first={first}
                        second={second}
                        firstPoster={posterOf(first)}
                        secondPoster={posterOf(second)}
                        score={ranked.get(`${first.id} ${second.id}`) ?? null}
                        by={shownParts}
                        chosen={chosen?.first === first && chosen.second === second}
                        onChoose={pick}
                        onUse={takePair}
                      />
                    ),
                  )}
                </div>
              ))}
            </div>
            {rows.length + columns.length < firsts.length + seconds.length && (
              <p className="pt-2 text-ink2">
                The best {mostShown} of each are shown, the best first; the others are under “All takes”.
              </p>
            )}
            {firsts.length * seconds.length > 1 && <WhatCounts weights={weights} by={by} />}
          </div>
        ) : (
          <div className="grid w-full grid-cols-[repeat(auto-fill,minmax(150px,1fr))] gap-3">
            <p className="col-span-full text-ink2">
              A pair needs a take for the {down.title} and one for the {across.title}. Say under each picture
              what it is, or bring in more.
            </p>
            {[...firsts, ...seconds, ...others].map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} />
            ))}
          </div>
        )}
      </div>
      {chosen && (
        <PairPicture recipe={recipe} pairs={pairs} further={score?.offset ?? 0} at={at} {...chosen} />
      )}
    </Station>
  );
}
