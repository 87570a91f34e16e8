'use client';
import { useLiveQuery } from 'dexie-react-hooks';
import { useEffect, useState } from 'react';
import { secondsThatFit } from '@/core/camera/storage';
import { roomLeft } from '@/media/room';
import { removedProjects } from '@/store/empty';
import { bytesOf, removedTakes, spaceOfProjects, type Held, type ProjectSpace } from '@/store/space';
import { useData, useServices } from '@/ui/bench-context';
import { sayBytes } from '@/ui/say-bytes';
import { recoverRecordings } from '@/workers/recordings';
import { RemovedLine } from '../projects';
import { RemovedTakeLine } from './removed-take';
import { TakeLine } from './take-line';

/** What is kept, in the order in which it is drawn, each with its dye. */
const kinds: { key: keyof Held; text: string; dye: string }[] = [
  { key: 'originals', text: 'files as they were brought in', dye: 'var(--woad)' },
  { key: 'recordings', text: 'recordings that are no file yet', dye: 'var(--madder)' },
  { key: 'proxies', text: 'small copies to play', dye: 'var(--verdigris)' },
  { key: 'stills', text: 'pictures and curves that were measured', dye: 'var(--saffron)' },
  { key: 'renders', text: 'renders', dye: 'var(--ink2)' },
];

/** What the data rate of a usual phone's recording makes of some bytes. Common practice, no published source. */
const usualBits = 16e6;

/** What takes room on this device, what waits to be deleted for good, and the ways to free it. */
export function SpacePage() {
  const { store, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { id: project, name } = snapshot.project;
  const projects = useLiveQuery(() => spaceOfProjects(store), [store]);
  const takes = useLiveQuery(() => removedTakes(store, project), [store, project]) ?? [];
  const gone = useLiveQuery(() => removedProjects(store), [store]) ?? [];
  const [room, setRoom] = useState<number | null>(null);
  useEffect(() => {
    let here = true;
    void roomLeft().then((left) => here && setRoom(left));
    return () => {
      here = false;
    };
  }, [projects]);
  // What was recorded and found no room for its file finds it now.
  useEffect(() => () => void recoverRecordings(store, project).catch(() => undefined), [store, project]);
  const used = projects?.reduce((sum, { held }) => sum + bytesOf(held), 0) ?? 0;
  const largest = Math.max(1, ...(projects ?? []).map(({ held }) => bytesOf(held)));
  return (
    <main className="mx-auto flex w-full max-w-[860px] flex-col gap-6 overflow-y-auto p-6 phone:p-4">
      <header className="flex flex-col gap-2">
        <button
          type="button"
          className="knob self-start"
          onClick={() => go({ station: snapshot.setups.length > 0 ? 'shoot' : 'song' })}
        >
          Back to the bench
        </button>
        <h1 className="text-[24px] font-medium">What takes room on this device?</h1>
        <p data-testid="room">
          <b className="num">{sayBytes(used)}</b> are kept here
          {room !== null && (
            <>
              ; the browser gives room for <b className="num">{sayBytes(room)}</b> more, about{' '}
              <b className="num">{Math.floor(secondsThatFit(room, usualBits) / 60)} min</b> of takes
            </>
          )}
          .
        </p>
        <Persistence />
      </header>
      <section aria-label="Projects">
        <h2 className="mb-1 text-[17px]">Projects</h2>
        <ul className="flex flex-col gap-2.5">
          {projects?.map((one) => (
            <ProjectLine key={one.id} project={one} largest={largest} open={one.id === project} />
          ))}
        </ul>
        <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[13px]" aria-label="What the colours mean">
          {kinds.map(({ key, text, dye }) => (
            <li key={key}>
              <span className="mr-1.5 inline-block size-2.5" style={{ background: dye }} />
              {text}
            </li>
          ))}
        </ul>
      </section>
      <section aria-label="Removed, waiting">
        <h2 className="mb-1 text-[17px]">Removed, waiting</h2>
        <p className="text-ink2">
          What is removed keeps its room until it is deleted for good. Then nothing brings it back.
        </p>
        <ul data-testid="removed">
          {takes.map((take) => (
            <RemovedTakeLine key={take.id} take={take} project={project} />
          ))}
          {gone.map((one) => (
            <RemovedLine key={one.id} removed={one} onBack={() => undefined} />
          ))}
          {takes.length + gone.length === 0 && <li className="py-2">Nothing waits here.</li>}
        </ul>
      </section>
      <section aria-label={`Takes of ${name}`}>
        <h2 className="mb-1 text-[17px]">Takes of {name}</h2>
        <ul>
          {snapshot.takes.map((take) => (
            <TakeLine key={take.id} take={take} />
          ))}
          {snapshot.takes.length === 0 && <li className="py-2 text-ink2">There is no take in it.</li>}
        </ul>
      </section>
    </main>
  );
}

/** One project as a bar of what it keeps. */
function ProjectLine({ project, largest, open }: { project: ProjectSpace; largest: number; open: boolean }) {
  const { go } = useServices();
  const { id, name, alive, held } = project;
  const parts = kinds.filter(({ key }) => held[key] > 0);
  const said = parts.map(({ key, text }) => `${sayBytes(held[key])} ${text}`).join(', ');
  return (
    <li data-space={name}>
      <div className="flex flex-wrap items-baseline gap-x-3">
        <b className="min-w-0 flex-1 truncate font-serif text-[15px] font-medium">{name}</b>
        <span className="text-ink2">{open ? 'open' : alive ? '' : 'removed'}</span>
        <span className="num">{sayBytes(bytesOf(held))}</span>
        {alive && !open && (
          <button type="button" className="knob" onClick={() => go({ project: id, moment: null })}>
            Open
          </button>
        )}
      </div>
      <div
        className="mt-1 flex h-3 w-full bg-sunk"
        role="img"
        aria-label={said || 'nothing yet'}
        title={said}
      >
        {parts.map(({ key, dye }) => (
          <span key={key} style={{ width: `${(100 * held[key]) / largest}%`, background: dye }} />
        ))}
      </div>
    </li>
  );
}

/** Whether the browser may clear all this by itself, and the way to ask it not to. */
function Persistence() {
  const [kept, setKept] = useState<boolean | null>(null);
  useEffect(() => {
    let here = true;
    void navigator.storage?.persisted?.().then((yes) => here && setKept(yes));
    return () => {
      here = false;
    };
  }, []);
  if (kept === null) return null;
  if (kept) return <p className="text-ink2">The browser keeps it until you delete it.</p>;
  return (
    <p data-testid="not-persisted">
      The browser may clear it when the device runs short.{' '}
      <button
        type="button"
        className="knob"
        onClick={() => void navigator.storage.persist().then((yes) => setKept(yes))}
      >
        Ask it to keep everything
      </button>{' '}
      <span className="text-ink2">Carry a project out to be safe whatever it answers.</span>
    </p>
  );
}
