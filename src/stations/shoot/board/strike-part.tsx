'use client';
import { AlertDialog } from 'radix-ui';
import { useState } from 'react';
import { byGravity } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import type { Board } from '@/core/shoot/board';
import { strikeCosts } from '@/core/shoot/strike';
import { restoreSetup, strikeSetup } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';
import { sayTimeOfDay } from '../words';
import type { RoughTry } from './use-rough';

/** May this set be struck? Where it may not, what striking it gives up. */
export function StrikePart({ board, rough }: { board: Board; rough: RoughTry }) {
  const { store, attempt } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  const plan = useData((data) => data.plan);
  const names = useData((data) => data.names);
  const [asking, setAsking] = useState(false);
  const project = projectId;
  if (board.struck) {
    return (
      <section className="flex flex-wrap items-center gap-3" aria-label="Strike">
        <p className="text-[15px]" data-testid="struck">
          Struck at {sayTimeOfDay(board.struck.at)}
          {board.struck.given.length > 0
            ? `, ${board.struck.given.length} shots given up`
            : ', with everything filmed'}
          .
        </p>
        <button
          type="button"
          className="knob"
          onClick={() => attempt(() => restoreSetup(store, project, board.setup))}
        >
          The set stands again
        </button>
      </section>
    );
  }
  const shows = (rough.roughs ?? []).reduce((sum, { findings }) => sum + findings.length, 0);
  /** Where nobody has tried the moments yet, that comes first: what shows can only be filmed again while it stands. */
  const strike = async () => {
    const untried = rough.possible && rough.roughs === null;
    const found = untried ? await rough.run() : [];
    if (!found || found.some(({ findings }) => findings.length > 0)) return;
    await strikeSetup(store, project, board.setup, []);
  };
  const costs = byGravity(strikeCosts(board, plan.moments));
  return (
    <section className="flex flex-col gap-2" aria-label="Strike">
      {board.ready && (
        <>
          {shows > 0 && (
            <p className="text-[15px]">
              {shows === 1 ? 'One thing shows' : `${shows} things show`} in the rough join. Film it again now,
              or strike all the same.
            </p>
          )}
          <button
            type="button"
            className="big bg-verdigris text-raised disabled:opacity-60"
            disabled={rough.share !== null}
            onClick={() => attempt(strike)}
          >
            {shows > 0 ? 'Strike it all the same' : 'This set may be struck'}
          </button>
        </>
      )}
      {!board.ready && (
        <>
          <p className="text-[15px]">
            {board.missing.length === 1 ? 'One shot is' : `${board.missing.length} shots are`} still missing.
          </p>
          <button type="button" className="knob self-start" onClick={() => setAsking(true)}>
            Strike it all the same …
          </button>
        </>
      )}
      <AlertDialog.Root open={asking} onOpenChange={setAsking}>
        <AlertDialog.Portal>
          <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/50" />
          <AlertDialog.Content className="shoot fixed top-[8vh] left-1/2 z-50 flex max-h-[84vh] w-[min(520px,94vw)] -translate-x-1/2 flex-col border border-line bg-raised p-4 shadow-xl">
            <AlertDialog.Title className="text-[19px]">What is given up?</AlertDialog.Title>
            <AlertDialog.Description className="my-2 text-[14px] text-ink2">
              Once the set is struck, this cannot be filmed again the same way.
            </AlertDialog.Description>
            <ul
              className="min-h-0 flex-1 overflow-auto"
              data-testid="costs"
              tabIndex={0}
              aria-label="What striking costs"
            >
              {costs.map((finding) => {
                const { text } = sayFinding(finding, names);
                return (
                  <li
                    key={text}
                    data-finding={finding.code}
                    className="mb-2 border-l-4 bg-ground px-2.5 py-1.5 text-[14px]"
                    style={{ borderColor: finding.severity === 'stop' ? 'var(--madder)' : 'var(--saffron)' }}
                  >
                    {text}
                  </li>
                );
              })}
            </ul>
            <div className="mt-3 flex flex-wrap justify-end gap-2">
              <AlertDialog.Cancel className="knob main" autoFocus>
                Film it
              </AlertDialog.Cancel>
              <AlertDialog.Action
                className="knob"
                onClick={() =>
                  attempt(() =>
                    strikeSetup(
                      store,
                      project,
                      board.setup,
                      board.missing.map(({ id }) => id),
                    ),
                  )
                }
              >
                Give it up and strike
              </AlertDialog.Action>
            </div>
          </AlertDialog.Content>
        </AlertDialog.Portal>
      </AlertDialog.Root>
    </section>
  );
}
