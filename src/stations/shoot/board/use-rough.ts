'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { Finding } from '@/core/finding/finding';
import { fitWithin } from '@/core/picture/image';
import { isClone, type Moment } from '@/core/model/records';
import type { Board } from '@/core/shoot/board';
import { clone } from '@/core/recipes/clone';
import { seamTask } from '@/store/needs';
import { bestTakeFindings, bestTakes, roughFindings, trialOf } from '@/store/rough';
import { materialOf, rulerOf, takeMeasure } from '@/store/snapshot';
import { useBench } from '@/ui/bench-context';
import { callback, openMedia, openPainter } from '@/workers/clients';
import { sourcesOf } from '@/workers/sources';

/** What trying a moment came to. `note` says why there is no picture, where there is none. */
export type Rough = {
  moment: Moment;
  picture: ImageBitmap | null;
  findings: Finding[];
  note: string;
};

/** Tries each moment of a setup from its best takes, one after the other, while everything still stands. */
export function useRough(board: Board) {
  const { snapshot, plan, store } = useBench();
  const [share, setShare] = useState<number | null>(null);
  const [roughs, setRoughs] = useState<Rough[] | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const moments = plan.moments
    .map(({ moment }) => moment)
    .filter(({ id }) => board.rows.some(({ shot }) => shot?.moments.includes(id)));

  const tryOne = useCallback(
    async (moment: Moment, onProgress: (share: number) => void): Promise<Rough> => {
      const best = bestTakes(snapshot, board, moment.id);
      const waiting = best.some(({ take }) => !takeMeasure(snapshot, take));
      const none = (note: string): Rough => ({
        moment,
        picture: null,
        findings: bestTakeFindings(snapshot, board, moment),
        note,
      });
      if (best.length === 0)
        return none('None of its takes has a file here. Record here, or bring files in.');
      if (waiting) return none('Its takes are still being measured. Try again in a moment.');
      if (!isClone(moment))
        return none(
          'This kind of moment cannot be joined here yet; its takes were each held against the plate.',
        );
      const trial = trialOf(snapshot, board, moment);
      const task = trial && seamTask(snapshot, trial);
      const ruler = rulerOf(snapshot);
      if (!trial || !task || !ruler) return none('One of the two sides has no take with a file yet.');
      const layers = clone.build(trial, ruler, materialOf(snapshot, trial).material);
      const media = layers.map((layer) => layer.source.media);
      const sources = await sourcesOf(store, snapshot, media, 'proxies');
      const [solver, painter] = [openMedia(), openPainter()];
      stop.current = () => {
        solver.end();
        painter.end();
      };
      try {
        const seam = await solver.api.solveMomentSeam({ ...task, sources }, callback(onProgress));
        const { material } = materialOf(snapshot, trial);
        const joined = clone.build(trial, ruler, { ...material, seam });
        const delivery = { width: ruler.project.width, height: ruler.project.height };
        await painter.api.useSources(sources, delivery, fitWithin(delivery, 640));
        const middle = Math.floor((task.from + task.until) / 2);
        const picture = await painter.api.paint(joined, middle);
        return { moment, picture, findings: roughFindings(snapshot, board, trial, seam), note: '' };
      } finally {
        stop.current();
      }
    },
    [snapshot, board, store],
  );

  const filed = board.rows.some(({ logs }) => logs.some(({ take }) => take));
  return {
    /** there is footage to try a moment from */
    possible: filed && moments.length > 0,
    share,
    roughs,
    cancel: () => {
      stop.current();
      setShare(null);
    },
    /** @returns what every moment came to */
    run: async (): Promise<Rough[]> => {
      const out: Rough[] = [];
      let over = false;
      setShare(0);
      setRoughs(null);
      try {
        for (const [index, moment] of moments.entries()) {
          // A worker may tell of progress after its answer.
          const tell = (part: number) => over || setShare((index + part) / moments.length);
          out.push(await tryOne(moment, (part) => void tell(part)));
          setRoughs([...out]);
        }
        return out;
      } finally {
        over = true;
        setShare(null);
      }
    },
  };
}

export type RoughTry = ReturnType<typeof useRough>;
