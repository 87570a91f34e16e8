import { useMemo } from 'react';
import { frameShownAt, timeOfFrame, type Rate } from '@/core/time/rate';
import { switchUnits } from '@/store/commands/projects';
import type { Store } from '@/store/db';
import type { Action } from '@/ui/actions/action';
import type { Player } from '@/ui/player';
import { goTo } from '@/ui/where';
import { stations } from './rail';

/** Moves the needle to the beginning of another frame. */
function stepFrames(player: Player, rate: Rate, by: number): void {
  player.pause();
  player.seek(timeOfFrame(rate, frameShownAt(rate, player.time()) + by) + 0.001);
}

/** What the actions of the bench work with; each stays the same from one drawing to the next. */
type Means = {
  store: Store;
  projectId: string;
  player: Player;
  rate: Rate;
  attempt: (work: () => unknown) => Promise<void>;
  undo: () => void;
  redo: () => void;
  list: () => void;
  switchTheme: () => void;
  startProject: () => void;
  openDemo: () => void;
  openFiles: () => void;
};

/** What can be done whatever is on the screen, and with the song, the plan and the picture. */
export function useBenchActions({
  store,
  projectId,
  player,
  rate,
  attempt,
  undo,
  redo,
  list,
  switchTheme,
  startProject,
  openDemo,
  openFiles,
}: Means): Action[] {
  return useMemo(
    () => [
      {
        id: 'play',
        text: 'Play or pause the song',
        scope: 'everywhere',
        keys: ['space'],
        run: () => void player.toggle(),
      },
      { id: 'undo', text: 'Undo', scope: 'everywhere', keys: ['mod+z'], repeats: true, run: undo },
      {
        id: 'redo',
        text: 'Redo',
        scope: 'everywhere',
        keys: ['mod+y', 'mod+shift+z'],
        repeats: true,
        run: redo,
      },
      ...stations.map((station, index) => ({
        id: station.name,
        text: `Go to ${station.title}: ${station.question}`,
        scope: 'everywhere' as const,
        keys: [String(index + 1)],
        run: () => goTo({ station: station.name }),
      })),
      {
        id: 'files',
        text: 'Bring in files',
        scope: 'everywhere',
        keys: ['b'],
        run: openFiles,
      },
      {
        id: 'theme',
        text: 'Switch between day and night',
        scope: 'everywhere',
        keys: ['n'],
        run: switchTheme,
      },
      {
        id: 'list',
        text: 'List what can be done',
        scope: 'everywhere',
        keys: ['mod+k', 'shift+?', '?'],
        run: list,
      },
      {
        id: 'space',
        text: 'Space: what takes room on this device',
        scope: 'everywhere',
        run: () => goTo({ station: 'space' }),
      },
      { id: 'new', text: 'Start a project of your own', scope: 'everywhere', run: startProject },
      { id: 'demo', text: 'Open the demo afresh', scope: 'everywhere', run: openDemo },
      {
        id: 'on',
        text: 'One frame on',
        scope: 'picture',
        keys: ['.'],
        repeats: true,
        run: () => stepFrames(player, rate, 1),
      },
      {
        id: 'back',
        text: 'One frame back',
        scope: 'picture',
        keys: [','],
        repeats: true,
        run: () => stepFrames(player, rate, -1),
      },
      ...[
        { id: 'first', text: 'First of the bar at the needle', keys: ['f'], name: 'firstOfBarAt' as const },
        { id: 'beat', text: 'Nearest beat to the needle', keys: ['m'], name: 'beatAtNeedle' as const },
        { id: 'half', text: 'Half the tempo', keys: ['h'], name: 'halveTempo' as const },
        { id: 'double', text: 'Double the tempo', keys: ['d'], name: 'doubleTempo' as const },
        { id: 'shift', text: 'Beats half a beat later', keys: ['s'], name: 'shiftHalfBeat' as const },
      ].map(({ name, ...action }) => ({
        ...action,
        scope: 'song' as const,
        run: () =>
          attempt(async () => {
            const seconds = player.time();
            return (await import('@/store/commands/song'))[name](store, projectId, seconds);
          }),
      })),
      {
        id: 'units',
        text: 'Switch between centimetres and inches',
        scope: 'plan',
        keys: ['u'],
        run: () => attempt(() => switchUnits(store, projectId)),
      },
      {
        id: 'call',
        text: 'Open the call sheet',
        scope: 'plan',
        keys: ['p'],
        run: () => goTo({ station: 'papers', part: 'call' }),
      },
    ],
    [
      player,
      rate,
      undo,
      redo,
      list,
      switchTheme,
      startProject,
      openDemo,
      openFiles,
      attempt,
      store,
      projectId,
    ],
  );
}
