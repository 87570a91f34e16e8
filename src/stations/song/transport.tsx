'use client';
import { useEffect, useState } from 'react';
import { barAndBeat, barStart, beatOfTime, nextBar, timeOfBeat } from '@/core/time/grid';
import { frameShownAt } from '@/core/time/rate';
import { formatClock } from '@/core/time/timecode';
import { clicksOf } from '@/core/song/click';
import { createMoment } from '@/store/commands/moments';
import { openMedia } from '@/workers/clients';
import { useData, useNeedle, usePlaying, useServices } from '@/ui/bench-context';
import { PlaySpeed } from '@/ui/play-speed';

/** A passage of the song, in beat positions. */
export type Passage = { from: number; to: number };

/** Lays a click over the song while `on`, on a channel of its own. @returns true while it is being made */
function useClick(on: boolean): boolean {
  const { player, store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const media = snapshot.song?.media ?? null;
  const grid = snapshot.song?.grid ?? null;
  const [ready, setReady] = useState(false);
  useEffect(() => {
    if (!on || !media || !grid) return;
    let here = true;
    void attempt(async () => {
      const row = await store.proxies.get(media);
      if (!row) return;
      const worker = openMedia();
      // Ended only once it has answered: what waits for an ended worker waits for ever.
      const blob = await worker.api
        .songWithClick(row.blob, clicksOf(grid, 0, Infinity))
        .finally(() => worker.end());
      if (!here) return;
      player.lay('clicks', blob);
      setReady(true);
    });
    return () => {
      here = false;
      setReady(false);
      player.lay('clicks', null);
    };
  }, [on, media, grid, store, player, attempt]);
  return on && !ready;
}

/** Play, how fast, over and over, with clicks; and a closer look. */
export function Transport({
  close,
  onClose,
}: {
  /** the passage that is looked at closely */
  close: Passage | null;
  onClose: (passage: Passage | null) => void;
}) {
  const { player, attempt, store, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.moment);
  const playing = usePlaying(player);
  const time = useNeedle(player);
  const [looping, setLooping] = useState(false);
  const [clicking, setClicking] = useState(false);
  const making = useClick(clicking);
  const grid = snapshot.song?.grid;
  const passage = close ?? (moment && { from: moment.start, to: moment.end });
  const [loopFrom, loopTo] = [passage?.from, passage?.to];
  useEffect(() => {
    if (!looping || !grid || loopFrom === undefined || loopTo === undefined) return;
    player.setLoop({ from: timeOfBeat(grid, loopFrom), to: timeOfBeat(grid, loopTo) });
    return () => player.setLoop(null);
  }, [looping, grid, loopFrom, loopTo, player]);
  // Rounded before it is parted into bars: what is as good as the next bar's first is that.
  const at = grid && barAndBeat(grid, Math.round(beatOfTime(grid, time) * 10) / 10);
  const makeHere = async () => {
    if (!grid) return;
    const start = barStart(grid, beatOfTime(grid, player.time()) + 0.01);
    const end = nextBar(grid, nextBar(grid, nextBar(grid, start)));
    go({ moment: await createMoment(store, snapshot.project.id, start, end) });
  };
  const look = () => {
    if (close || !grid) return onClose(null);
    const around = moment
      ? { from: moment.start, to: moment.end }
      : { from: beatOfTime(grid, time), to: beatOfTime(grid, time) + 8 };
    onClose({ from: barStart(grid, around.from - 0.5), to: nextBar(grid, around.to) });
  };
  return (
    <div className="flex flex-wrap items-center gap-2 border-t border-line bg-ground px-5 py-2 phone:sticky phone:bottom-0 phone:px-3">
      <button type="button" className="knob main phone:-order-2" onClick={() => void player.toggle()}>
        {playing ? 'Pause' : 'Play'}
      </button>
      <span className="contents phone:*:-order-1">
        <PlaySpeed />
      </span>
      {passage && (
        <button type="button" className="knob" aria-pressed={looping} onClick={() => setLooping(!looping)}>
          Loop
        </button>
      )}
      {grid && (
        <>
          <button
            type="button"
            className="knob"
            aria-pressed={clicking}
            onClick={() => setClicking(!clicking)}
          >
            {making ? 'Laying clicks…' : 'Click'}
          </button>
          <button type="button" className="knob" aria-pressed={close !== null} onClick={look}>
            Closer
          </button>
          <button type="button" className="knob" onClick={() => attempt(makeHere)}>
            Moment here
          </button>
        </>
      )}
      <span className="flex-1 phone:hidden" />
      <span className="num whitespace-nowrap phone:-order-1 phone:flex-1" data-testid="needle">
        {at ? `bar ${at.bar} · beat ${at.beat.toFixed(1)} · ` : ''}
        {formatClock(time)}
        <span className="phone:hidden"> · frame {frameShownAt(snapshot.project.rate, time)}</span>
      </span>
    </div>
  );
}
