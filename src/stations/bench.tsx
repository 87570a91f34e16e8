'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { Suspense, useCallback, useEffect, useMemo, useRef, useState, useSyncExternalStore } from 'react';
import { recipeOf } from '@/core/recipes/built';
import { redo, undo } from '@/store/change';
import { createProject } from '@/store/commands/projects';
import type { Store } from '@/store/db';
import { heal } from '@/store/heal';
import { needsOf } from '@/store/needs';
import { sayStep } from '@/store/say-step';
import { findingsOf, type StationName } from '@/store/findings';
import { readSnapshot, type Snapshot } from '@/store/snapshot';
import { ActionKeys } from '@/ui/actions/action-key';
import { fetchWhenIdle } from '@/ui/on-demand';
import { ActivityStrip } from '@/ui/activity';
import { BenchProvider, type Data, type Services } from '@/ui/bench-context';
import type { Player } from '@/ui/player';
import { Guarded } from '@/ui/trouble';
import { say, Sentences } from '@/ui/say';
import { usePhone } from '@/ui/use-phone';
import { NewerVersion } from '@/ui/newer-version';
import { useTheme } from '@/ui/theme';
import { goTo, useWhere } from '@/ui/where';
import { asCoreError } from '@/workers/plain-errors';
import { Runner } from '@/workers/runner';
import { demoName } from './demo-name';
import { usePlan } from './plan/use-plan';
import { ProjectBar } from './project-bar';
import { Rail, stations } from './rail';
import {
  ActionList,
  Arrived,
  isPage,
  pages,
  RemoveMoment,
  ReplaceDemo,
  ReplaceSong,
  scopesAt,
  screens,
} from './screens';
import { Waiting } from './waiting';
import { useAttempt } from './use-attempt';
import { useBenchActions } from './use-bench-actions';
import { useBringIn } from './use-bring-in';
import { useSong } from './use-song';

const nothing = () => null;
const go: Services['go'] = (to) => goTo(to);

type Opened = {
  store: Store;
  player: Player;
  projects: { id: string; name: string }[];
  openDemo: () => void;
};

/** A project on the bench, once it is read. */
export function Bench({ project, ...opened }: Opened & { project: string }) {
  const { store } = opened;
  const [sound, setSound] = useState(false);
  const snapshot = useLiveQuery(() => readSnapshot(store, project), [store, project]);
  useEffect(fetchWhenIdle, []);
  useEffect(() => {
    let here = true;
    void heal(store, project)
      .then(
        (mended) =>
          mended > 0 && say('known', 'What a damaged file had left in this project was taken out of it.'),
      )
      .catch((error: unknown) => say('refused', asCoreError(error).message))
      .finally(() => here && setSound(true));
    return () => {
      here = false;
    };
  }, [store, project]);
  return snapshot && sound ? (
    <Laid snapshot={snapshot} {...opened} />
  ) : (
    <Waiting text="Opening the bench …" />
  );
}

/** Keeps the project's work going, and shows the station that one is at. */
function Laid({ store, player, snapshot, projects, openDemo }: Opened & { snapshot: Snapshot }) {
  const where = useWhere();
  const phone = usePhone();
  const [, switchTheme] = useTheme();
  const projectId = snapshot.project.id;
  const runner = useMemo(() => new Runner(store, projectId), [store, projectId]);
  const { attempt, pending } = useAttempt(store, projectId, snapshot.step);
  const [listed, setListed] = useState(false);
  /** the station that is on the screen; another one may still be on its way */
  const [arrived, setArrived] = useState<string | null>(null);
  const [removing, setRemoving] = useState<string | null>(null);
  const [replacingDemo, setReplacingDemo] = useState(false);
  const demo = useCallback(
    () => (projects.some(({ name }) => name === demoName) ? setReplacingDemo(true) : openDemo()),
    [projects, openDemo],
  );
  const picker = useRef<HTMLInputElement>(null);
  const { rate } = snapshot.project;

  useEffect(() => runner.start(), [runner]);

  useSong(store, player, snapshot, attempt);
  const { bringIn, importing, cancel, replacing } = useBringIn(store, projectId, attempt);
  const openFiles = useCallback(() => picker.current?.click(), []);
  const { plan, searching } = usePlan(snapshot);
  const findings = useMemo(() => findingsOf(snapshot, plan), [snapshot, plan]);
  const moment = snapshot.moments.find((one) => one.id === where.moment) ?? snapshot.moments[0] ?? null;
  const builtMoment = moment && recipeOf(moment) ? moment : (snapshot.built[0] ?? null);
  const services: Services = useMemo(
    () => ({ store, player, runner, go, attempt, askRemove: setRemoving, openFiles }),
    [store, player, runner, attempt, openFiles],
  );
  const data: Data = useMemo(
    () => ({
      snapshot,
      findings,
      plan,
      names: {
        takes: Object.fromEntries(snapshot.takes.map((take) => [take.id, take.name])),
        grid: snapshot.song?.grid ?? null,
        things: plan.names,
        units: snapshot.project.units ?? 'metric',
      },
      moment,
      builtMoment,
    }),
    [snapshot, findings, plan, moment, builtMoment],
  );

  const here: StationName = stations.find((one) => one.name === where.station)?.name ?? 'song';
  const back = useCallback(
    (way: 'undo' | 'redo') =>
      attempt(async () => {
        say('known', sayStep(way, await (way === 'undo' ? undo : redo)(store, projectId)));
      }),
    [attempt, store, projectId],
  );
  const undoStep = useCallback(() => back('undo'), [back]);
  const redoStep = useCallback(() => back('redo'), [back]);
  const listActions = useCallback(() => setListed(true), []);
  const startProject = useCallback(
    () =>
      attempt(async () =>
        goTo({ project: await createProject(store, 'My film'), station: 'song', moment: null }),
      ),
    [attempt, store],
  );
  const actions = useBenchActions({
    store,
    projectId,
    player,
    rate,
    attempt,
    undo: undoStep,
    redo: redoStep,
    list: listActions,
    switchTheme,
    startProject,
    openDemo: demo,
    openFiles,
  });
  const Screen = screens[here];
  const page = isPage(where.station) ? where.station : null;
  const Page = page && pages[page];
  const place = page ?? here;
  const activity = useSyncExternalStore(runner.subscribe, runner.current, nothing);
  const working = activity !== null || needsOf(snapshot).length > runner.notWrittenDown().length;
  return (
    <BenchProvider services={services} data={data}>
      <div
        className="flex h-dvh flex-col print:block print:h-auto"
        data-bench={
          arrived !== place ? 'opening' : pending === 0 && !working && !searching ? 'settled' : 'working'
        }
      >
        {Page ? (
          <Guarded place={place}>
            <Suspense fallback={<Waiting text="One moment …" />}>
              <Page />
              <Arrived place={place} onArrive={setArrived} />
            </Suspense>
          </Guarded>
        ) : (
          <>
            <ProjectBar
              projects={projects}
              onUndo={undoStep}
              onRedo={redoStep}
              onTheme={switchTheme}
              onKeys={listActions}
              onNew={startProject}
              onDemo={demo}
            />
            <div className="flex min-h-0 flex-1 phone:flex-col low:flex-row">
              <Rail here={here} />
              <div className="flex min-h-0 min-w-0 flex-1 flex-col">
                <Guarded place={here}>
                  <Suspense fallback={<Waiting text="One moment …" />}>
                    <Screen />
                    <Arrived place={here} onArrive={setArrived} />
                  </Suspense>
                </Guarded>
                {importing && (
                  <div
                    className="flex items-center gap-3 border-t border-line bg-raised px-5 py-1.5"
                    role="status"
                  >
                    <span className="min-w-0 flex-1 truncate">
                      Bringing in {importing.name} ({importing.done + 1} of {importing.of})
                    </span>
                    <button type="button" className="knob" onClick={cancel}>
                      Cancel
                    </button>
                  </div>
                )}
                <NewerVersion />
                <ActivityStrip />
              </div>
            </div>
          </>
        )}
      </div>
      <input
        ref={picker}
        type="file"
        multiple
        hidden
        data-testid="files"
        onChange={(event) => {
          bringIn([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <RemoveMoment open={removing !== null} moment={removing} onClose={() => setRemoving(null)} />
      <ReplaceDemo open={replacingDemo} onAct={openDemo} onClose={() => setReplacingDemo(false)} />
      <ReplaceSong open={replacing !== null} asked={replacing} />
      <ActionKeys actions={actions} scopes={scopesAt[here]} active={!listed} />
      <ActionList actions={actions} scopes={scopesAt[here]} open={listed} setOpen={setListed} />
      <Suspense fallback={null}>
        <Sentences place={!phone ? 'top' : here === 'shoot' && !page ? 'middle' : 'low'} />
      </Suspense>
    </BenchProvider>
  );
}
