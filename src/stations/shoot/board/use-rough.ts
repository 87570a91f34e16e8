'use client';
import { useCallback, useEffect, useRef, useState } from 'react';
import { filesIn } from '@/core/picture/node';
import type { Finding } from '@/core/finding/finding';
import { fitWithin } from '@/core/geometry/size';
import type { Answer } from '@/core/footage/task';
import type { Moment } from '@/core/model/records';
import { recipeOf } from '@/core/recipes/built';
import type { Material } from '@/core/recipes/material';
import type { Board } from '@/core/shoot/board';
import { buildable, framesOf, materialOf } from '@/store/material';
import { bestTakeFindings, bestTakes, roughFindings, trialOf } from '@/store/rough';
import { takeMeasure } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { callback, openMedia, openPainter } from '@/workers/clients';
import { paintersFor } from '@/workers/painters';
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
  const { store } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const plan = useData((data) => data.plan);
  const [share, setShare] = useState<number | null>(null);
  const [roughs, setRoughs] = useState<Rough[] | null>(null);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const moments = plan.moments
    .map(({ moment }) => moment)
    .filter(({ id }) => board.rows.some(({ shot }) => shot?.moments.includes(id)));

  /** What a moment comes to; null where trying is cancelled meanwhile. */
  const tryOne = useCallback(
    async (moment: Moment, onProgress: (share: number) => void): Promise<Rough | null> => {
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
      if (!recipeOf(moment))
        return none(
          'This kind of moment cannot be joined here yet; its takes were each held against the plate.',
        );
      const trial = trialOf(snapshot, board, moment);
      const able = trial && buildable(snapshot, trial);
      const frames = trial && framesOf(snapshot, trial);
      if (!trial || !able || !frames) return none('One of its shots has no take with a file yet.');
      const { material } = materialOf(snapshot, trial);
      const build = (solved: Material['solved']) =>
        able.recipe.build(trial, able.ruler, { ...material, solved });
      const sources = await sourcesOf(store, filesIn(build({})), 'proxies');
      const [solver, painter] = [openMedia(), openPainter()];
      stop.current = () => {
        solver.end();
        painter.end();
      };
      try {
        const solved: Record<string, Answer> = {};
        // One work may ask for another's answer first.
        for (;;) {
          const works = able.recipe
            .works(trial, able.ruler, { ...material, solved })
            .filter(({ name }) => !(name in solved));
          if (works.length === 0) break;
          for (const [index, { name, task }] of works.entries()) {
            const tell = callback((part: number) => onProgress((index + part) / works.length));
            const answer = await solver.orEnded<Answer>(solver.api.solveTask(task(), sources, tell));
            if (!answer) return null;
            solved[name] = answer;
          }
        }
        const { width, height } = snapshot.project;
        const middle = Math.floor((frames.lands + frames.end) / 2);
        const small = fitWithin({ width, height }, 640);
        const paint = async () => {
          await painter.api.useSources(sources, { width, height }, small, paintersFor('stage'));
          return painter.api.paint(build(solved), middle);
        };
        const picture = await painter.orEnded(paint());
        if (!picture) return null;
        return { moment, picture, findings: roughFindings(snapshot, board, trial, solved), note: '' };
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
    /** @returns what every moment came to; null where trying was cancelled */
    run: async (): Promise<Rough[] | null> => {
      const out: Rough[] = [];
      let over = false;
      setShare(0);
      setRoughs(null);
      try {
        for (const [index, moment] of moments.entries()) {
          // A worker may tell of progress after its answer.
          const tell = (part: number) => over || setShare((index + part) / moments.length);
          const tried = await tryOne(moment, (part) => void tell(part));
          if (!tried) return null;
          out.push(tried);
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
