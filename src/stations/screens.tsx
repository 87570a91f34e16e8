'use client';
import { lazy, memo, useEffect } from 'react';
import type { StationName } from '@/store/findings';
import type { Scope } from '@/ui/actions/action';
import { early, onDemand } from '@/ui/on-demand';

// A station comes after the first view, or with the first visit to it, and is drawn anew for a change of the project,
// not for what the bench says of itself round it.
export const screens = {
  song: memo(lazy(early(async () => ({ default: (await import('./song/song-station')).SongStation })))),
  plan: memo(lazy(early(async () => ({ default: (await import('./plan/plan-station')).PlanStation })))),
  shoot: memo(lazy(early(async () => ({ default: (await import('./shoot/shoot-station')).ShootStation })))),
  match: memo(lazy(early(async () => ({ default: (await import('./match/match-station')).MatchStation })))),
  build: memo(lazy(early(async () => ({ default: (await import('./build/build-station')).BuildStation })))),
  deliver: memo(
    lazy(early(async () => ({ default: (await import('./deliver/deliver-station')).DeliverStation }))),
  ),
} satisfies Record<StationName, unknown>;
/** What fills the screen beside the stations. */
export const pages = {
  sheet: lazy(async () => ({ default: (await import('./deliver/sheet')).KeyframeSheet })),
  papers: lazy(async () => ({ default: (await import('./plan/along/papers')).Papers })),
  space: lazy(async () => ({ default: (await import('./space/space-page')).SpacePage })),
};
export type PageName = keyof typeof pages;
export const isPage = (name: string | null): name is PageName => name !== null && Object.hasOwn(pages, name);
export const ProjectMenu = lazy(async () => ({ default: (await import('./project-menu')).ProjectMenu }));
export const ActionList = onDemand(async () => (await import('@/ui/actions/action-list')).ActionList);
export const RemoveMoment = onDemand(async () => (await import('./remove-moment')).RemoveMoment);
export const ReplaceSong = onDemand(async () => (await import('./replace-song')).ReplaceSong);
export const ReplaceDemo = onDemand(async () => (await import('./replace-demo')).ReplaceDemo);
export const RemoveProject = onDemand(async () => (await import('./projects')).RemoveProject);
export const RemovedProjects = onDemand(async () => (await import('./projects')).RemovedProjects);

/** What is on the screen at a station, so that its keys act. */
export const scopesAt: Record<StationName, readonly Scope[]> = {
  song: ['song', 'picture', 'everywhere'],
  plan: ['plan', 'everywhere'],
  shoot: ['set', 'plan', 'everywhere'],
  match: ['picture', 'everywhere'],
  build: ['picture', 'everywhere'],
  deliver: ['picture', 'everywhere'],
};

/** Tells that everything beside it is on the screen. */
export function Arrived({ place, onArrive }: { place: string; onArrive: (place: string) => void }) {
  useEffect(() => onArrive(place), [place, onArrive]);
  return null;
}
