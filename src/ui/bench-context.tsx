'use client';
import { createContext, useContext, useMemo, useSyncExternalStore, type ReactNode } from 'react';
import type { Finding } from '@/core/finding/finding';
import type { Names } from '@/core/finding/words';
import type { Moment } from '@/core/model/records';
import type { Store } from '@/store/db';
import type { StationName } from '@/store/findings';
import type { Plan } from '@/store/plan';
import type { Snapshot } from '@/store/snapshot';
import type { Runner } from '@/workers/runner';
import type { Player } from './player';

/** What every station works with. */
export type Bench = {
  store: Store;
  snapshot: Snapshot;
  findings: Record<StationName, Finding[]>;
  plan: Plan;
  names: Names;
  player: Player;
  runner: Runner | null;
  moment: Moment | null;
  /** the chosen moment where its kind is built here, else the first such moment */
  builtMoment: Moment | null;
  go: (where: {
    station?: StationName | 'sheet' | 'papers';
    moment?: string | null;
    project?: string;
    part?: string | null;
    setup?: string | null;
    shot?: string | null;
  }) => void;
  /** Asks before a moment is removed, and says which shots go with it. */
  askRemove: (moment: string) => void;
  /** Runs something that may be refused; resolves once it is on the screen, or the refusal is said. */
  attempt: (work: () => unknown) => Promise<void>;
  openFiles: () => void;
};

const Context = createContext<Bench | null>(null);

/** What parts do with the project: stays the same while the project changes, so that they need not be drawn anew. */
type Commands = Pick<Bench, 'store' | 'attempt' | 'go'>;
const CommandContext = createContext<Commands | null>(null);

export function BenchProvider({ value, children }: { value: Bench; children: ReactNode }) {
  const { store, attempt, go } = value;
  const commands = useMemo(() => ({ store, attempt, go }), [store, attempt, go]);
  return (
    <CommandContext.Provider value={commands}>
      <Context.Provider value={value}>{children}</Context.Provider>
    </CommandContext.Provider>
  );
}

export function useCommands(): Commands {
  const commands = useContext(CommandContext);
  if (!commands) throw new Error('useCommands is for parts of the bench.');
  return commands;
}

export function useBench(): Bench {
  const bench = useContext(Context);
  if (!bench) throw new Error('useBench is for parts of the bench.');
  return bench;
}

const zero = () => 0;
const no = () => false;

/** Seconds where the needle stands; follows while the song plays. */
export const useNeedle = (player: Player): number =>
  useSyncExternalStore(player.subscribe, player.time, zero);
export const usePlaying = (player: Player): boolean =>
  useSyncExternalStore(player.subscribe, player.playing, no);
