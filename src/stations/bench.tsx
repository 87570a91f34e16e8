'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import {
  lazy,
  memo,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { toast, Toaster } from 'sonner';
import { recipeOf } from '@/core/recipes/built';
import { songPartKey } from '@/core/song/parts';
import { frameShownAt, timeOfFrame, type Rate } from '@/core/time/rate';
import { redo, undo } from '@/store/change';
import { createProject, switchUnits } from '@/store/commands/projects';
import { Store } from '@/store/db';
import { removedProjects } from '@/store/empty';
import { needsOf } from '@/store/needs';
import { sayStep } from '@/store/say-step';
import { findingsOf, type StationName } from '@/store/findings';
import { readSnapshot, type Snapshot } from '@/store/snapshot';
import type { Action, Scope } from '@/ui/actions/action';
import { ActionList } from '@/ui/actions/action-list';
import { ActivityStrip } from '@/ui/activity';
import { BenchProvider, type Bench } from '@/ui/bench-context';
import { Player } from '@/ui/player';
import { Guarded, Trouble } from '@/ui/trouble';
import { beatAtNeedle, doubleTempo, firstOfBarAt, halveTempo, shiftHalfBeat } from '@/store/commands/song';
import { bringSongFile, isSongFile } from './song/song-files';
import { listenForInstall } from '@/ui/install';
import { useNarrow } from '@/ui/use-narrow';
import { useTheme } from '@/ui/theme';
import { goTo, useWhere } from '@/ui/where';
import { importFiles } from '@/workers/import-files';
import { asCoreError } from '@/workers/plain-errors';
import { lostArrivals, tellLost } from '@/workers/arrivals';
import { recoverRecordings } from '@/workers/recordings';
import { Runner } from '@/workers/runner';
import { openDemo, pinDemoMoment } from './demo-project';
import { usePlan } from './plan/use-plan';
import { ProjectBar } from './project-bar';
import { Rail, stations } from './rail';
import { RemoveMoment } from './remove-moment';
import { ReplaceSong, type Replacing } from './replace-song';
import { bringBundle } from './shoot/carry/use-carry';
import { useAttempt } from './use-attempt';

// A station comes with the first visit to it, and is drawn anew for a change of the project, not for what the bench says
// of itself round it.
const screens = {
  song: memo(lazy(async () => ({ default: (await import('./song/song-station')).SongStation }))),
  plan: memo(lazy(async () => ({ default: (await import('./plan/plan-station')).PlanStation }))),
  shoot: memo(lazy(async () => ({ default: (await import('./shoot/shoot-station')).ShootStation }))),
  match: memo(lazy(async () => ({ default: (await import('./match/match-station')).MatchStation }))),
  build: memo(lazy(async () => ({ default: (await import('./build/build-station')).BuildStation }))),
  deliver: memo(lazy(async () => ({ default: (await import('./deliver/deliver-station')).DeliverStation }))),
} satisfies Record<StationName, unknown>;
const KeyframeSheet = lazy(async () => ({ default: (await import('./deliver/sheet')).KeyframeSheet }));
const Papers = lazy(async () => ({ default: (await import('./plan/along/papers')).Papers }));

/** What is on the screen at a station, so that its keys act. */
const scopesAt: Record<StationName, readonly Scope[]> = {
  song: ['song', 'picture', 'everywhere'],
  plan: ['plan', 'everywhere'],
  shoot: ['set', 'plan', 'everywhere'],
  match: ['picture', 'everywhere'],
  build: ['picture', 'everywhere'],
  deliver: ['picture', 'everywhere'],
};

/** Opens the store, finds the project, and keeps its work going. */
export function BenchRoot() {
  const inBrowser = useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  );
  useEffect(() => {
    if ('serviceWorker' in navigator) void navigator.serviceWorker.register('/sw.js').catch(() => undefined);
    void navigator.storage?.persist?.();
    return listenForInstall();
  }, []);
  return inBrowser ? (
    <Guarded place="bench">
      <Opened />
    </Guarded>
  ) : (
    <Waiting text="Opening the bench …" />
  );
}

const Waiting = ({ text }: { text: string }) => (
  <p className="grid h-dvh place-items-center font-serif text-[19px]" role="status">
    {text}
  </p>
);

function Opened() {
  const [store] = useState(() => new Store());
  const [player] = useState(() => new Player());
  const where = useWhere();
  const [opening, setOpening] = useState<string | null>(null);
  const [failed, setFailed] = useState<string | null>(null);
  const busy = useRef(false);
  const projects = useLiveQuery(async () => {
    const all = await store.records.where({ kind: 'project' }).toArray();
    return all
      .filter((record) => record.alive)
      .sort((a, b) => b.changed - a.changed)
      .flatMap((one) => (one.kind === 'project' ? [{ id: one.id, name: one.name }] : []));
  }, [store]);
  const known = projects?.some((project) => project.id === where.project);
  const snapshot = useLiveQuery(
    () => (where.project ? readSnapshot(store, where.project) : null),
    [store, where.project],
  );

  const demo = useCallback(async () => {
    setOpening('Laying out the demo …');
    setFailed(null);
    try {
      const id = await openDemo(store, (_, name) => setOpening(`Bringing in ${name} …`));
      pinDemoMoment(store, id);
      goTo({ project: id, moment: null });
    } catch (error) {
      setFailed(asCoreError(error).message);
    }
    setOpening(null);
  }, [store]);

  useEffect(() => {
    if (!projects || known || failed || busy.current) return;
    busy.current = true;
    const findProject = async () => {
      // A project that was made a moment ago is in the store before it is in the list.
      if (where.project && (await store.records.get(where.project))?.alive) return;
      if (projects.length > 0) return goTo({ project: projects[0].id, moment: null }, true);
      if ((await removedProjects(store)).length === 0) return demo();
      goTo({ project: await createProject(store, 'My film'), station: 'song', moment: null }, true);
    };
    void findProject().finally(() => (busy.current = false));
  }, [projects, known, failed, demo, store, where.project]);

  if (opening) return <Waiting text={opening} />;
  if (failed)
    return (
      <Trouble title="The demo could not be opened" text={`${failed} You can work without it.`}>
        <button type="button" className="knob main" onClick={() => void demo()}>
          Try once more
        </button>
        <button
          type="button"
          className="knob"
          onClick={() =>
            void createProject(store, 'My film').then((project) => {
              setFailed(null);
              goTo({ project, station: 'song', moment: null });
            })
          }
        >
          Start a project of your own
        </button>
        {projects && projects.length > 0 && (
          <button type="button" className="knob" onClick={() => setFailed(null)}>
            Back to {projects[0].name}
          </button>
        )}
      </Trouble>
    );
  if (!snapshot || !projects) return <Waiting text="Opening the bench …" />;
  return (
    <Laid
      key={snapshot.project.id}
      store={store}
      player={player}
      snapshot={snapshot}
      projects={projects}
      openDemo={() => void demo()}
    />
  );
}

/** Tells that everything beside it is on the screen. */
function Arrived({ place, onArrive }: { place: string; onArrive: (place: string) => void }) {
  useEffect(() => onArrive(place), [place, onArrive]);
  return null;
}

const nothing = () => null;
const go: Bench['go'] = (to) => goTo(to);
const isBundle = (name: string): boolean => /\.zip$/i.test(name);

/** Moves the needle to the beginning of another frame. */
function stepFrames(player: Player, rate: Rate, by: number): void {
  player.pause();
  player.seek(timeOfFrame(rate, frameShownAt(rate, player.time()) + by) + 0.001);
}

type LaidProps = {
  store: Store;
  player: Player;
  snapshot: Snapshot;
  projects: { id: string; name: string }[];
  openDemo: () => void;
};

function Laid({ store, player, snapshot, projects, openDemo: demo }: LaidProps) {
  const where = useWhere();
  const narrow = useNarrow();
  const [, switchTheme] = useTheme();
  const projectId = snapshot.project.id;
  const runner = useMemo(() => new Runner(store, projectId), [store, projectId]);
  const { attempt, pending } = useAttempt(store, projectId, snapshot.step);
  const [listed, setListed] = useState(false);
  /** the station that is on the screen; another one may still be on its way */
  const [arrived, setArrived] = useState<string | null>(null);
  const [removing, setRemoving] = useState<string | null>(null);
  const [replacing, setReplacing] = useState<Replacing | null>(null);
  const [importing, setImporting] = useState<{ done: number; of: number; name: string } | null>(null);
  const stop = useRef(false);
  const picker = useRef<HTMLInputElement>(null);
  const { rate } = snapshot.project;

  useEffect(() => runner.start(), [runner]);

  const songMedia = snapshot.song?.media ?? null;
  const ready = Boolean(songMedia && snapshot.measures.has(songPartKey('sound', songMedia)));
  useEffect(() => {
    let here = true;
    const load = async () => {
      const row = ready && songMedia ? await store.proxies.get(songMedia) : null;
      if (here) player.load(row?.blob ?? null);
    };
    void load();
    return () => {
      here = false;
    };
  }, [store, player, songMedia, ready]);

  const bringAll = useCallback(
    async (files: File[]) => {
      stop.current = false;
      setImporting({ done: 0, of: files.length, name: files[0].name });
      for (const file of files.filter(({ name }) => isSongFile(name))) {
        void attempt(async () => {
          const now = await readSnapshot(store, projectId);
          if (now) toast.success(await bringSongFile(store, now, file));
        });
      }
      for (const file of files.filter(({ name }) => isBundle(name)))
        void attempt(async () => toast.success((await bringBundle(store, file, () => undefined)).text));
      const results = await importFiles(
        store,
        projectId,
        files.filter(({ name }) => !isSongFile(name) && !isBundle(name)),
        {
          onProgress: (done, name) => setImporting({ done, of: files.length, name }),
          stopped: () => stop.current,
          mayReplace: (name, song) =>
            new Promise((answer) =>
              setReplacing({
                name,
                song,
                answer: (yes) => {
                  setReplacing(null);
                  answer(yes);
                },
              }),
            ),
        },
      );
      setImporting(null);
      for (const result of results) {
        if (result.outcome === 'problem') toast.error(result.message);
        else if (result.outcome === 'known' || result.outcome === 'kept') toast.info(result.message);
      }
      const fine = results.filter((result) => result.outcome === 'take' || result.outcome === 'song').length;
      if (fine > 0)
        toast.success(fine === 1 ? 'One file is in the project.' : `${fine} files are in the project.`);
    },
    [store, projectId, attempt],
  );
  const bringIn = useCallback(
    (files: File[]) => {
      if (files.length > 0) void attempt(() => bringAll(files));
    },
    [attempt, bringAll],
  );

  useEffect(
    () =>
      void attempt(async () => {
        const lost = await lostArrivals(store, projectId, navigator.locks);
        if (lost.length > 0) toast.error(tellLost(lost));
        const { kept, problems } = await recoverRecordings(store, projectId);
        for (const problem of problems) toast.error(problem);
        if (kept > 0)
          toast.info(
            kept === 1
              ? 'A recording was broken off; what was recorded is kept as a take.'
              : `${kept} recordings were broken off; what was recorded is kept as takes.`,
          );
      }),
    [attempt, store, projectId],
  );

  useEffect(() => {
    const over = (event: DragEvent) => event.preventDefault();
    const drop = (event: DragEvent) => {
      event.preventDefault();
      bringIn([...(event.dataTransfer?.files ?? [])]);
    };
    window.addEventListener('dragover', over);
    window.addEventListener('drop', drop);
    return () => {
      window.removeEventListener('dragover', over);
      window.removeEventListener('drop', drop);
    };
  }, [bringIn]);

  const { plan, searching } = usePlan(snapshot);
  const findings = useMemo(() => findingsOf(snapshot, plan), [snapshot, plan]);
  const moment = snapshot.moments.find((one) => one.id === where.moment) ?? snapshot.moments[0] ?? null;
  const builtMoment = moment && recipeOf(moment) ? moment : (snapshot.built[0] ?? null);
  const bench: Bench = useMemo(
    () => ({
      store,
      snapshot,
      findings,
      plan,
      names: {
        takes: Object.fromEntries(snapshot.takes.map((take) => [take.id, take.name])),
        grid: snapshot.song?.grid ?? null,
        things: plan.names,
        units: snapshot.project.units ?? 'metric',
      },
      player,
      runner,
      moment,
      builtMoment,
      go,
      attempt,
      askRemove: setRemoving,
      openFiles: () => picker.current?.click(),
    }),
    [store, snapshot, findings, plan, player, runner, moment, builtMoment, attempt],
  );

  const here: StationName = stations.find((one) => one.name === where.station)?.name ?? 'song';
  const back = useCallback(
    (way: 'undo' | 'redo') =>
      attempt(async () => {
        toast(sayStep(way, await (way === 'undo' ? undo : redo)(store, projectId)));
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
  const actions: Action[] = useMemo(
    () => [
      {
        id: 'play',
        text: 'Play or pause the song',
        scope: 'everywhere',
        keys: ['space'],
        run: () => void player.toggle(),
      },
      { id: 'undo', text: 'Undo', scope: 'everywhere', keys: ['mod+z'], repeats: true, run: undoStep },
      {
        id: 'redo',
        text: 'Redo',
        scope: 'everywhere',
        keys: ['mod+y', 'mod+shift+z'],
        repeats: true,
        run: redoStep,
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
        run: () => picker.current?.click(),
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
        run: listActions,
      },
      { id: 'new', text: 'Start a project of your own', scope: 'everywhere', run: startProject },
      { id: 'demo', text: 'Open the demo afresh', scope: 'everywhere', run: demo },
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
        { id: 'first', text: 'First of the bar at the needle', keys: ['f'], work: firstOfBarAt },
        { id: 'beat', text: 'Nearest beat to the needle', keys: ['m'], work: beatAtNeedle },
        { id: 'half', text: 'Half the tempo', keys: ['h'], work: halveTempo },
        { id: 'double', text: 'Double the tempo', keys: ['d'], work: doubleTempo },
        { id: 'shift', text: 'Beats half a beat later', keys: ['s'], work: shiftHalfBeat },
      ].map(({ work, ...action }) => ({
        ...action,
        scope: 'song' as const,
        run: () => attempt(() => work(store, projectId, player.time())),
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
      undoStep,
      redoStep,
      listActions,
      switchTheme,
      startProject,
      demo,
      attempt,
      store,
      projectId,
    ],
  );
  const Screen = screens[here];
  const place = where.station === 'sheet' || where.station === 'papers' ? where.station : here;
  const activity = useSyncExternalStore(runner.subscribe, runner.current, nothing);
  const working = activity !== null || needsOf(snapshot).length > runner.notWrittenDown().length;
  return (
    <BenchProvider value={bench}>
      <div
        className="flex h-dvh flex-col print:block print:h-auto"
        data-bench={
          arrived !== place ? 'opening' : pending === 0 && !working && !searching ? 'settled' : 'working'
        }
      >
        {where.station === 'sheet' || where.station === 'papers' ? (
          <Guarded place={where.station}>
            <Suspense fallback={<Waiting text="One moment …" />}>
              {where.station === 'sheet' ? <KeyframeSheet /> : <Papers />}
              <Arrived place={where.station} onArrive={setArrived} />
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
            <div className="flex min-h-0 flex-1 max-sm:flex-col">
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
                    <button type="button" className="knob" onClick={() => (stop.current = true)}>
                      Cancel
                    </button>
                  </div>
                )}
                <ActivityStrip runner={runner} />
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
      <RemoveMoment moment={removing} onClose={() => setRemoving(null)} />
      <ReplaceSong asked={replacing} />
      <ActionList actions={actions} scopes={scopesAt[here]} open={listed} setOpen={setListed} />
      <Toaster
        position={narrow ? 'bottom-center' : 'top-center'}
        mobileOffset={{ bottom: 84 }}
        duration={12_000}
        toastOptions={{ className: 'font-sans' }}
      />
    </BenchProvider>
  );
}
