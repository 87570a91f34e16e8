'use client';
import { builtTitles, usualKind } from '@/core/recipes/built';
import { calledOf, filmOf } from '@/core/recipes/films';
import { createMoment } from '@/store/commands/moments';
import { buildable } from '@/store/material';
import { rulerOf } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Empty, Station } from '../station';
import { MomentBench, question } from './moment-bench';

/** One moment: its passage of the song, its picture, its sentence. */
export function BuildStation() {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const builtMoment = useData((data) => data.builtMoment);
  const ruler = rulerOf(snapshot);
  if (!ruler) {
    return (
      <Station question={question}>
        <Empty title="First the song">
          <p>
            A moment is pinned to beats. Bring in a song, or set a tempo, then drag over the bars that the
            moment takes.
          </p>
          <button type="button" className="knob main" onClick={() => go({ station: 'song' })}>
            To the song
          </button>
        </Empty>
      </Station>
    );
  }
  if (!moment) {
    const perBar = ruler.grid.beatsPerBar;
    return (
      <Station question={question}>
        <Empty title="Make a moment">
          <p>
            Drag over some bars on the song. Or begin over bars 9 to 11; what lands, lands a bar later, on the
            beat.
          </p>
          <div className="flex gap-2">
            <button
              type="button"
              className="knob main"
              onClick={() =>
                attempt(async () =>
                  go({ moment: await createMoment(store, snapshot.project.id, 8 * perBar, 11 * perBar) }),
                )
              }
            >
              {calledOf(usualKind)} on bars 9 to 11
            </button>
            <button type="button" className="knob" onClick={() => go({ station: 'song' })}>
              To the song
            </button>
          </div>
        </Empty>
      </Station>
    );
  }
  const able = buildable(snapshot, moment);
  if (!able) {
    return (
      <Station question={question}>
        <Empty title={`${moment.name} is planned, not built here yet`}>
          <p>
            So far the bench builds: {builtTitles().join(', ').toLowerCase()}. For a{' '}
            {filmOf(moment.recipe).title.toLowerCase()} it says what to film, how long and in what order; put
            it together in your editor.
          </p>
          <div className="flex gap-2">
            <button type="button" className="knob main" onClick={() => go({ station: 'plan' })}>
              To the plan
            </button>
            {builtMoment && (
              <button type="button" className="knob" onClick={() => go({ moment: builtMoment.id })}>
                To {builtMoment.name}
              </button>
            )}
          </div>
        </Empty>
      </Station>
    );
  }
  return <MomentBench key={moment.id} moment={moment} {...able} />;
}
