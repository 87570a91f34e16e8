'use client';
import { AlertDialog } from 'radix-ui';
import { useState } from 'react';
import { byGravity } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import type { Board } from '@/core/shoot/board';
import { strikeCosts } from '@/core/shoot/strike';
import { restoreSetup, strikeSetup } from '@/store/commands/shoot';
import { useBench } from '@/ui/bench-context';
import { sayTimeOfDay } from '../words';

/** May this set be struck? Where it may not, what striking it gives up. */
export function StrikePart({ board }: { board: Board }) {
  const { snapshot, store, plan, names, attempt } = useBench();
  const [asking, setAsking] = useState(false);
  const project = snapshot.project.id;
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
  const costs = byGravity(strikeCosts(board, plan.moments));
  return (
    <section className="flex flex-col gap-2" aria-label="Strike">
      {board.ready && (
        <button
          type="button"
          className="big bg-verdigris text-raised"
          onClick={() => attempt(() => strikeSetup(store, project, board.setup, []))}
        >
          This set may be struck
        </button>
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
          <AlertDialog.Content className="shoot fixed left-1/2 top-[8vh] z-50 flex max-h-[84vh] w-[min(520px,94vw)] -translate-x-1/2 flex-col border border-line bg-raised p-4 shadow-xl">
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
