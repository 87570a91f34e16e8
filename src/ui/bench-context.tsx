'use client';
import {
  createContext,
  useContext,
  useLayoutEffect,
  useState,
  useSyncExternalStore,
  type ReactNode,
} from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import type { Finding } from '@/core/finding/finding';
import type { Names } from '@/core/finding/words';
import type { Moment } from '@/core/model/records';
import type { Store } from '@/store/db';
import type { StationName } from '@/store/findings';
import type { Plan } from '@/store/plan';
import type { Snapshot } from '@/store/snapshot';
import type { Runner } from '@/workers/runner';
import type { Player } from './player';

/** What parts do things with: it never changes while a project is open, so that nothing is drawn anew for it. */
export type Services = {
  store: Store;
  player: Player;
  runner: Runner;
  go: (where: {
    station?: StationName | 'sheet' | 'papers' | 'space';
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

/** The project as it stands, and what of it is chosen. */
export type Data = {
  snapshot: Snapshot;
  findings: Record<StationName, Finding[]>;
  plan: Plan;
  names: Names;
  moment: Moment | null;
  /** the chosen moment where its kind is built here, else the first such moment */
  builtMoment: Moment | null;
};

const ServiceContext = createContext<Services | null>(null);
const DataContext = createContext<StoreApi<Data> | null>(null);

export function BenchProvider({
  services,
  data,
  children,
}: {
  services: Services;
  data: Data;
  children: ReactNode;
}) {
  const [held] = useState(() => createStore(() => data));
  // Before the browser paints, so that what is drawn from props and what is drawn from here are of one state.
  useLayoutEffect(() => held.setState(data), [held, data]);
  return (
    <ServiceContext.Provider value={services}>
      <DataContext.Provider value={held}>{children}</DataContext.Provider>
    </ServiceContext.Provider>
  );
}

export function useServices(): Services {
  const services = useContext(ServiceContext);
  if (!services) throw new Error('useServices is for parts of the bench.');
  return services;
}

/** A part of the project; what asks for it is drawn anew when that part changes. */
export function useData<Part>(select: (data: Data) => Part): Part {
  const held = useContext(DataContext);
  if (!held) throw new Error('useData is for parts of the bench.');
  return useStore(held, select);
}

const zero = () => 0;
const no = () => false;

/** Seconds where the needle stands; follows while the song plays. */
export const useNeedle = (player: Player): number =>
  useSyncExternalStore(player.subscribe, player.time, zero);
export const usePlaying = (player: Player): boolean =>
  useSyncExternalStore(player.subscribe, player.playing, no);
