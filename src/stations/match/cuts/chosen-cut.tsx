'use client';
import type { FoundJoin } from '@/core/footage/found-joins';
import { sayJoin } from '@/core/footage/join-words';
import { fileName } from '@/core/formats/file-name';
import { writeJoinList } from '@/core/formats/join-list';
import type { Moment } from '@/core/model/records';
import { recipeOf } from '@/core/recipes/built';
import { beginJoined } from '@/core/recipes/shift-pair';
import { fillSlots } from '@/store/commands/moments';
import { useData, useServices } from '@/ui/bench-context';
import { Remark } from '@/ui/remark';
import { saveFile } from '../../save';
import type { Asked } from './use-joins';

/** The moment in which one take may take another's place: the one that is looked at, else the first there is. */
function momentFor(chosen: Moment | null, built: readonly Moment[]) {
  for (const moment of [...(chosen ? [chosen] : []), ...built]) {
    const recipe = recipeOf(moment);
    if (recipe?.inTurn) return { moment, recipe, slots: recipe.inTurn };
  }
  return null;
}

/** What is said of a join, and what can be done with it. */
export function ChosenCut({
  asked,
  joins,
  join,
}: {
  asked: Asked;
  joins: readonly FoundJoin[];
  join: FoundJoin;
}) {
  const { first, second, over } = asked;
  const { store, attempt, go } = useServices();
  const { project, built, song } = useData((data) => data.snapshot);
  const looked = useData((data) => data.builtMoment);
  const place = momentFor(looked, built);
  const begin = place && song?.grid && beginJoined(place.moment, place.recipe, song.grid, join.seconds);
  return (
    <div className="flex flex-col gap-2.5">
      <p>
        {over > 1 ? (
          <>
            From frame <Frame of={join.b} /> on, {second.name} begins to show through {first.name}, from frame{' '}
            <Frame of={join.a} /> on.
          </>
        ) : (
          <>
            Frame <Frame of={join.b} /> of {second.name} takes the place of frame <Frame of={join.a} /> of{' '}
            {first.name}.
          </>
        )}
      </p>
      <ul className="flex flex-col gap-2">
        {sayJoin(join, asked, project.width).map((said) => (
          <Remark key={said.text} {...said} />
        ))}
      </ul>
      {place && over === 1 && begin === null && (
        <p className="text-ink2">
          {place.moment.name} begins earlier before its cut than {first.name} does before this frame. Let it
          begin later, and the cut can be used there.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {place && over === 1 && begin && (
          <button
            type="button"
            className="knob main"
            onClick={() =>
              attempt(async () => {
                const { moment, slots } = place;
                const takes = { [slots[0]]: first.id, [slots[1]]: second.id };
                await fillSlots(store, project.id, moment.id, 'Use this cut', takes, begin);
                go({ station: 'build', moment: moment.id });
              })
            }
          >
            Use it in {place.moment.name}
          </button>
        )}
        <button
          type="button"
          className="knob"
          onClick={() =>
            saveFile(
              `${fileName(`${first.name} to ${second.name}`)}-cuts.csv`,
              writeJoinList(joins, [first.name, second.name], over),
              'text/csv',
            )
          }
        >
          Save the list
        </button>
      </div>
    </div>
  );
}

const Frame = ({ of }: { of: number }) => <span className="num font-semibold">{of}</span>;
