import type { Stepped } from './change';

/** What undo or redo did, and what it did not do. */
export function sayStep(way: 'undo' | 'redo', stepped: Stepped | null): string {
  if (!stepped) return `There is nothing to ${way}.`;
  const { label, moved, left } = stepped;
  const did = way === 'undo' ? 'Undone' : 'Done again';
  if (left === 0) return `${did}: ${label}`;
  if (moved === 0)
    return `Nothing was ${way === 'undo' ? 'put back' : 'done again'}: what “${label}” changed was changed again since.`;
  const stays = left === 1 ? 'One thing stays' : `${left} things stay`;
  return `${did}: ${label}. ${stays} as now: changed again since.`;
}
