'use client';
import { useEffect, useRef } from 'react';
import type { Board } from '@/core/shoot/board';
import { sayFinding } from '@/core/finding/say';
import { addPickups } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';
import { Progress } from '@/ui/progress';
import type { Rough, RoughTry } from './use-rough';

/** The moments of a setup tried from the best takes, and what of it should be filmed again. */
export function TryMoments({ board, rough }: { board: Board; rough: RoughTry }) {
  const { attempt, go } = useServices();
  if (!rough.possible) return null;
  return (
    <section className="flex flex-col gap-3" aria-label="Try the moments">
      <h2 className="text-[17px] font-[560]">Before anything is moved</h2>
      <p className="text-[14px] text-ink2">
        The best takes of each moment are joined roughly. What shows now can still be filmed again.
      </p>
      {rough.share === null ? (
        <button type="button" className="knob main" onClick={() => attempt(rough.run)}>
          Try the moments
        </button>
      ) : (
        <div className="flex items-center gap-3">
          <Progress label="Trying the moments" share={rough.share} />
          <button type="button" className="knob" onClick={rough.cancel}>
            Cancel
          </button>
        </div>
      )}
      {rough.roughs?.map((one) => (
        <RoughMoment key={one.moment.id} rough={one} board={board} />
      ))}
      {rough.roughs && rough.roughs.some(({ findings }) => findings.length > 0) && (
        <button
          type="button"
          className="knob"
          onClick={() => go({ station: 'papers', part: 'setups', setup: board.setup })}
        >
          The setup’s sheet, to restore it
        </button>
      )}
    </section>
  );
}

function RoughMoment({ rough, board }: { rough: Rough; board: Board }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const names = useData((data) => data.names);
  const canvas = useRef<HTMLCanvasElement>(null);
  const { moment, picture, findings, note } = rough;
  useEffect(() => {
    if (!picture || !canvas.current) return;
    [canvas.current.width, canvas.current.height] = [picture.width, picture.height];
    canvas.current.getContext('2d')?.drawImage(picture, 0, 0);
  }, [picture]);
  const written = new Set(snapshot.pickups.map(({ why }) => why));
  const wanted = findings.map((finding) => ({ finding, text: sayFinding(finding, names).text }));
  const fresh = wanted.filter(({ text }) => !written.has(text));
  const pickups = fresh.map(({ finding, text }) => {
    const row = board.rows.find(({ id }) => id === finding.where.shot);
    return {
      setup: board.setup,
      shot: row?.id ?? '',
      moment: moment.id,
      title: `${row?.title ?? moment.name}, again`,
      why: text,
    };
  });
  return (
    <div className="flex flex-col gap-2" data-rough={moment.id}>
      <h3 className="text-[15px] font-[560]">{moment.name}</h3>
      {picture && (
        <canvas
          ref={canvas}
          className="w-full bg-stage"
          role="img"
          aria-label={`${moment.name}, roughly joined`}
        />
      )}
      {note && <p className="text-[14px] text-ink2">{note}</p>}
      {wanted.map(({ finding, text }) => (
        <p
          key={text}
          data-finding={finding.code}
          className="border-l-4 border-madder bg-ground px-2.5 py-1.5 text-[14px]"
        >
          {text}
        </p>
      ))}
      {picture && findings.length === 0 && (
        <p className="text-[14px]">Nothing shows. This moment can be built.</p>
      )}
      {pickups.length > 0 && (
        <button
          type="button"
          className="knob main"
          onClick={() => attempt(() => addPickups(store, snapshot.project.id, pickups))}
        >
          {pickups.length === 1 ? 'Write it down as a pick-up' : `Write ${pickups.length} pick-ups down`}
        </button>
      )}
    </div>
  );
}
