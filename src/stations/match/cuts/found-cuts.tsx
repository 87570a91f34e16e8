'use client';
import { leastFilled } from '@/core/footage/filled';
import { gravestOf, sayJoin, sayUnfilled } from '@/core/footage/join-words';
import { useData } from '@/ui/bench-context';
import { ChosenCut } from './chosen-cut';
import { JoinCards } from './join-cards';
import { JoinPlayer } from './join-player';
import type { Joins } from './use-joins';

/** How many pictures of a take were looked at first. */
const nth = new Intl.PluralRules('en', { type: 'ordinal' });
const endings: Partial<Record<Intl.LDMLPluralRule, string>> = { one: 'st', two: 'nd', few: 'rd' };
const every = (step: number) => `every ${step}${endings[nth.select(step)] ?? 'th'} picture`;

/** The joins that were found, the chosen one in motion. */
export function FoundCuts({
  joins: found,
  chosen,
  onChoose,
}: {
  joins: Joins;
  chosen: number;
  onChoose: (index: number) => void;
}) {
  const { joins, sheet, pictures, step, mostFilled, asked } = found;
  const width = useData((data) => data.snapshot.project.width);
  const join = joins[chosen];
  const { first, second, over } = asked;
  const unfilled = [first, second].flatMap(({ name }, side) =>
    asked.at === 'filled' && mostFilled[side].share < leastFilled
      ? [sayUnfilled(name, mostFilled[side])]
      : [],
  );
  if (!join && unfilled.length > 0)
    return [...new Set(unfilled)].map((text) => (
      <p key={text} className="max-w-[60ch] text-ink2">
        {text}
      </p>
    ));
  if (!join)
    return (
      <p className="max-w-[60ch] text-ink2">
        {asked.spans
          ? 'Between these seconds there is no frame of the one that can take the place of one of the other. Widen them, or take a shorter dissolve.'
          : 'These takes are too short: there is no frame of the one that can take the place of one of the other. Choose others, or a shorter dissolve.'}
      </p>
    );
  return (
    <div className="flex gap-5 phone:flex-col">
      <div className="flex w-[58%] flex-none flex-col gap-3 phone:w-full desk:sticky desk:top-4 desk:self-start">
        <JoinPlayer
          key={`${join.a} ${join.b}`}
          takes={[first, second]}
          join={join}
          over={over}
          label={`${first.name} going over into ${second.name}`}
        />
        <ChosenCut asked={asked} joins={joins} join={join} />
        {step > 1 && (
          <p className="text-[12.5px] text-ink2">
            So much was filmed that {every(step)} was looked at, and all of them round each that is shown.
          </p>
        )}
      </div>
      <div className="min-w-0 flex-1">
        <JoinCards
          joins={joins}
          sheet={sheet}
          pictures={pictures}
          gravity={(one) => gravestOf(sayJoin(one, asked, width))}
          chosen={chosen}
          onChoose={onChoose}
        />
      </div>
    </div>
  );
}
