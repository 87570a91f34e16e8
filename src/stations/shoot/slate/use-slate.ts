'use client';
import { useEffect, useMemo, useState } from 'react';
import type { Setup } from '@/core/model/plan-records';
import type { BoardRow } from '@/core/shoot/board';
import { passageOf, type Passage } from '@/core/shoot/passage';
import { slateTimeline, slateTrack, type SlateTimeline } from '@/core/shoot/slate';
import { beatOfTime } from '@/core/time/grid';
import { songMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { useSteady } from '@/ui/use-steady';
import { openMedia } from '@/workers/clients';
import { SlatePlayer } from './slate-player';

/** What the slate of a shot plays, made ahead so that it starts on the press. */
export type Slate = {
  passage: Passage | null;
  timeline: SlateTimeline | null;
  /** null while its sound is still being made */
  player: SlatePlayer | null;
  setFrom: (position: number) => void;
  setSpeed: (speed: number) => void;
};

const none = { from: null as number | null, speed: null as number | null };

/**
 * Prepares playback for a shot; the bar and the speed may be changed.
 * @param wanted false to make no sound ahead
 */
export function useSlate(row: BoardRow | null, setup: Setup, wanted = true): Slate {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const [given, setGiven] = useState({ ...none, row: row?.id });
  const [made, setMade] = useState<{ key: string; player: SlatePlayer } | null>(null);
  const own = given.row === row?.id ? given : none;
  const grid = useSteady(snapshot.song?.grid ?? null);
  const songEnd = songMeasure(snapshot)?.song.duration ?? 0;
  const shot =
    row?.shot ?? plan.schedule.slots.find((slot) => slot.shot.id === row?.pickup?.shot)?.shot ?? null;
  const planned = grid ? passageOf(shot, snapshot, beatOfTime(grid, songEnd)) : null;
  const from = own.from ?? planned?.from ?? 0;
  const until = Math.max(planned?.until ?? 0, from + 1);
  const speed = own.speed ?? planned?.speed ?? 1;
  const plays = planned !== null;
  const rate = useSteady(setup.capture.rate);
  const timeline = useMemo(
    () => (grid && plays ? slateTimeline(grid, { from, until }, speed, rate) : null),
    [grid, plays, from, until, speed, rate],
  );
  const media = snapshot.song?.media ?? null;
  const key = JSON.stringify([media, from, until, speed, timeline !== null]);

  useEffect(() => {
    if (!grid || !timeline || !wanted) return;
    let here = true;
    const worker = openMedia();
    void attempt(async () => {
      const wav = media ? ((await store.proxies.get(media))?.blob ?? null) : null;
      const asked = worker.api.clickTrack({ wav, ...slateTrack(grid, from, timeline) });
      const sound = await worker.orEnded(asked);
      if (here && sound) setMade({ key, player: new SlatePlayer(sound) });
    });
    return () => {
      here = false;
      worker.end();
    };
  }, [grid, timeline, media, store, from, key, attempt, wanted]);

  const silent = useMemo(() => new SlatePlayer(null), []);
  return {
    passage: planned && { from, until, speed },
    timeline,
    player: timeline ? (made?.key === key ? made.player : null) : silent,
    setFrom: (position) => setGiven({ ...own, from: position, row: row?.id }),
    setSpeed: (next) => setGiven({ ...own, speed: next, row: row?.id }),
  };
}
