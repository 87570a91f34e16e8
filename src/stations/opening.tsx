'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { lazy, Suspense, useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { Store } from '@/store/db';
import { removedProjects } from '@/store/empty';
import { Player } from '@/ui/player';
import { Guarded, Trouble } from '@/ui/trouble';
import { listenForInstall } from '@/ui/install';
import { goTo, useWhere } from '@/ui/where';
import { asCoreError } from '@/workers/plain-errors';
import { Waiting } from './waiting';

const loadBench = () => import('./bench');
const Bench = lazy(async () => ({ default: (await loadBench()).Bench }));
const opens = 'Opening the bench …';

async function ownProject(store: Store): Promise<string> {
  const { createProject } = await import('@/store/commands/projects');
  return createProject(store, 'My film');
}

/** Opens the store and finds the project: the first view. The bench itself is fetched meanwhile. */
export function Opening() {
  const inBrowser = useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  );
  useEffect(() => {
    void import('@/ui/shell').then(({ keepShell }) => keepShell());
    void loadBench();
    void navigator.storage?.persist?.();
    return listenForInstall();
  }, []);
  return inBrowser ? (
    <Guarded place="bench">
      <Opened />
    </Guarded>
  ) : (
    <Waiting text={opens} />
  );
}

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

  const demo = useCallback(async () => {
    setOpening('Laying out the demo …');
    setFailed(null);
    try {
      const { openDemo, pinDemoMoment } = await import('./demo-project');
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
      goTo({ project: await ownProject(store), station: 'song', moment: null }, true);
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
            void ownProject(store).then((project) => {
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
  if (!projects || !where.project) return <Waiting text={opens} />;
  return (
    <Suspense fallback={<Waiting text={opens} />}>
      <Bench
        key={where.project}
        store={store}
        player={player}
        project={where.project}
        projects={projects}
        openDemo={() => void demo()}
      />
    </Suspense>
  );
}
