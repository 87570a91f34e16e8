'use client';
import { useMemo, useState } from 'react';
import { pairSide, scorePair, type PairScore } from '@/core/footage/take-findings';
import type { Moment, Take } from '@/core/model/records';
import { filmSlot, fillOf } from '@/core/model/slots';
import { laysOverPlate, pairedSlots, recipeOf, slotsInUse, usualRecipe } from '@/core/recipes/built';
import type { Recipe } from '@/core/recipes/recipe';
import { createMoment, fillSlots } from '@/store/commands/moments';
import { serves, setupOfMoment } from '@/store/plates';
import { comparisonOf, takeMeasure, type Snapshot } from '@/store/snapshot';
import { useOffer } from '@/ui/actions/offers';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { Term } from '@/ui/term';
import { goTo, useWhere } from '@/ui/where';
import { Empty, Part, Station } from '../station';
import { CameraCurve, LightCurve } from './pair-curves';
import { PairPicture } from './pair-picture';
import { AllTakes } from './all-takes';
import { Poster, Swatch } from './swatch';
import { plateHere, verdict } from './verdict';
import { TakenApart } from './taken-apart';

const question = 'Which takes belong together?';

type PartName = 'pairs' | 'takes';
const matchParts: { id: PartName; text: string }[] = [
  { id: 'pairs', text: 'Pairs' },
  { id: 'takes', text: 'All takes' },
];

/** The parts of this station, with the one that is shown. */
const partsShown = (shown: PartName, go: (where: { part: string }) => void) => ({
  options: matchParts,
  shown,
  onShow: (id: PartName) => go({ part: id }),
});

type Pair = { first: Take; second: Take };

/** The score of a pair; null until both were compared with one plate. */
function pairScore(snapshot: Snapshot, moment: Moment | null, { first, second }: Pair): PairScore | null {
  const plate = plateHere(snapshot, moment, first);
  const sides = [first, second].map((take) => {
    const measure = takeMeasure(snapshot, take);
    const comparison = comparisonOf(snapshot, take, plate);
    return measure && comparison && pairSide(take, measure, comparison, snapshot.project);
  });
  return sides[0] && sides[1] ? scorePair([sides[0], sides[1]]) : null;
}

/** The pair board where each take of one slot is joined with one of another; the others choose theirs in the sentence. */
export function MatchStation() {
  const projectId = useData((data) => data.snapshot.project.id);
  const builtMoment = useData((data) => data.builtMoment);
  const recipe = builtMoment && recipeOf(builtMoment);
  const { film, part } = useWhere();
  const { go } = useServices();
  const some = useData((data) => data.snapshot.takes.length > 0);
  const shown = useData((data) =>
    data.snapshot.takes.find(({ id, slot }) => id === film && slot === filmSlot),
  );
  if (shown) return <TakenApart take={shown} onBack={() => goTo({ film: null })} />;
  if (some && part === 'takes') return <AllTakes question={question} parts={partsShown('takes', go)} />;
  if (builtMoment && recipe && !pairedSlots(recipe)) return <NoPairs moment={builtMoment} recipe={recipe} />;
  return <PairBoard key={projectId} />;
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
  const [picked, setPicked] = useState<{ first: string; second: string } | null>(null);
  const { takes } = snapshot;
  const setup = moment && setupOfMoment(snapshot, moment);
  const mine = takes.filter((take) => setup === null || serves(snapshot, take, setup));
  const recipe = (moment && recipeOf(moment)) ?? usualRecipe;
  const [down, across] = pairedSlots(recipe) ?? recipe.slots;
  const [firsts, seconds] = [down, across].map((slot) => mine.filter((take) => take.slot === slot.key));
  const homeless = (take: Take) =>
    !snapshot.built.some((one) => serves(snapshot, take, setupOfMoment(snapshot, one)));
  const others = takes.filter((take) =>
    mine.includes(take) ? !firsts.includes(take) && !seconds.includes(take) : homeless(take),
  );
  const elsewhere = takes.filter((take) => !mine.includes(take) && !homeless(take)).length;
  const pairs = firsts.flatMap((first) =>
    seconds.map((second) => ({ first, second, score: pairScore(snapshot, moment, { first, second }) })),
  );
  const best = [...pairs].sort((a, b) => (b.score?.score ?? 0) - (a.score?.score ?? 0))[0] ?? null;
  const used = pairs.find(
    ({ first, second }) =>
      moment && first.id === fillOf(moment, down.key).take && second.id === fillOf(moment, across.key).take,
  );
  const chosen =
    pairs.find(({ first, second }) => first.id === picked?.first && second.id === picked.second) ??
    used ??
    best;

  const chosenBy = ({ first, second }: Pair) => ({ [down.key]: first.id, [across.key]: second.id });
  const takePair = (pair: Pair) =>
    attempt(async () => {
      if (moment) {
        await fillSlots(store, snapshot.project.id, moment.id, 'Use this pair', chosenBy(pair));
        go({ station: 'build' });
      } else {
        const perBar = snapshot.song?.grid?.beatsPerBar ?? 4;
        go({
          station: 'build',
          moment: await createMoment(store, snapshot.project.id, 8 * perBar, 11 * perBar, chosenBy(pair)),
        });
      }
    });
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
          {firsts.length} {down.title} × {seconds.length} {across.title}
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
            <Part title={`${chosen.first.name} with ${chosen.second.name}`}>
              <Findings findings={[...about(chosen.first), ...about(chosen.second)]} />
              <PairCurves moment={moment} pair={chosen} />
              <button type="button" className="knob main mt-3" onClick={() => takePair(chosen)}>
                {moment ? `Use this pair in ${moment.name}` : 'Use this pair'}
              </button>
            </Part>
          )}
          <Part title="The other takes">
            <Findings
              findings={[
                ...loose,
                ...[...firsts, ...seconds, ...others]
                  .filter((take) => take !== chosen?.first && take !== chosen?.second)
                  .flatMap(about),
              ]}
            />
          </Part>
        </>
      }
    >
      <div className="flex flex-wrap items-start gap-x-8 gap-y-3 px-5 py-3 phone:px-3">
        {others.length > 0 && (
          <div className="flex gap-3 desk:order-last desk:flex-col">
            {others.map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} width={104} />
            ))}
          </div>
        )}
        {firsts.length > 0 && seconds.length > 0 ? (
          <div
            className="grid gap-2.5"
            style={{
              gridTemplateColumns: `minmax(84px, 110px) repeat(${seconds.length}, minmax(96px, 130px))`,
            }}
            role="group"
            aria-label="Pairs"
          >
            <div />
            {seconds.map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} />
            ))}
            {firsts.map((first) => (
              <div key={first.id} className="contents">
                <Swatch take={first} verdict={verdict(snapshot, moment, first)} />
                {seconds.map((second) => {
                  const pair = pairs.find((one) => one.first === first && one.second === second);
                  return (
                    <Crossing
                      key={second.id}
                      name={`${first.name} with ${second.name}`}
                      posters={[first, second].map((take) => takeMeasure(snapshot, take)?.poster ?? null)}
                      score={pair?.score ?? null}
                      chosen={chosen?.first === first && chosen.second === second}
                      onChoose={() => setPicked({ first: first.id, second: second.id })}
                      onUse={() => takePair({ first, second })}
                    />
                  );
                })}
              </div>
            ))}
          </div>
        ) : (
          <div className="flex flex-wrap gap-3">
            {[...firsts, ...seconds].map((take) => (
              <Swatch key={take.id} take={take} verdict={verdict(snapshot, moment, take)} width={180} />
            ))}
            <p className="w-full text-ink2">
              A pair needs a take for the {down.title} and one for the {across.title}. Say under each picture
              what it is, or bring in more.
            </p>
          </div>
        )}
      </div>
      {chosen && <PairPicture recipe={recipe} slots={[down, across]} {...chosen} />}
    </Station>
  );
}

/** How the cameras of both takes stood and how bright they stayed, one beside the other. */
function PairCurves({ moment, pair }: { moment: Moment | null; pair: Pair }) {
  const snapshot = useData((data) => data.snapshot);
  const { first, second } = pair;
  const takes = useMemo(() => {
    const dyes = ['--madder', '--woad'];
    return [first, second].flatMap((take, index) => {
      const measure = takeMeasure(snapshot, take);
      const comparison = comparisonOf(snapshot, take, plateHere(snapshot, moment, take));
      if (!measure || !comparison) return [];
      const { size, times } = measure;
      const { path, colour } = comparison;
      const light = colour?.light ?? [];
      return [{ name: take.name, path, light, size, last: times.last, dye: dyes[index] }];
    });
  }, [snapshot, moment, first, second]);
  if (takes.length === 0) return null;
  return (
    <div className="mt-3">
      <h3 className="font-semibold">How the camera stood</h3>
      <CameraCurve takes={takes} width={snapshot.project.width} />
      <h3 className="mt-2 font-semibold">How bright they stayed</h3>
      <LightCurve takes={takes} />
    </div>
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
  posters,
  score,
  chosen,
  onChoose,
  onUse,
}: {
  name: string;
  /** a picture of each take: the left half of the one is shown beside the right half of the other */
  posters: readonly (Blob | null)[];
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
      <span className="relative block aspect-video w-full overflow-hidden bg-stage">
        {posters.map(
          (blob, side) =>
            blob && (
              <span
                key={side}
                className="absolute inset-0"
                style={{ clipPath: side === 0 ? 'inset(0 50% 0 0)' : 'inset(0 0 0 50%)' }}
              >
                <Poster blob={blob} alt="" />
              </span>
            ),
        )}
      </span>
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
