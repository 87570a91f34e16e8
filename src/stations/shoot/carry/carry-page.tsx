'use client';
import { useRef } from 'react';
import type { Setup } from '@/core/model/plan-records';
import { useData, useServices } from '@/ui/bench-context';
import { Progress } from '@/ui/progress';
import { Conflicts } from './conflicts';
import { PhonePart } from './phone-part';
import { useCarry } from './use-carry';

/** The project or one setup's log as a file, and such a file merged into what has gone on here. */
export function CarryPage({ setup }: { setup: Setup | null }) {
  const { store, attempt, go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { project, logs, takes, media } = snapshot;
  const picker = useRef<HTMLInputElement>(null);
  const { busy, cancel, save, bring } = useCarry(store, project);
  const bytes = [...media.values()].reduce((sum, { size }) => sum + size, 0);
  const mine = logs.filter((log) => log.setup === setup?.id);
  return (
    <div className="mx-auto flex w-full max-w-[760px] flex-1 flex-col gap-6 overflow-y-auto px-3.5 py-4 text-[15px]">
      <section className="flex flex-col gap-2.5">
        <h2 className="text-[18px] font-[560]">Carry home</h2>
        <p>
          “{project.name}” with {takes.length} {takes.length === 1 ? 'take' : 'takes'} and {logs.length}{' '}
          {logs.length === 1 ? 'line' : 'lines'} in its log is{' '}
          <b className="num !text-[15px]">{(bytes / 1e6).toFixed(bytes < 1e8 ? 1 : 0)} MB</b>. Save it, carry
          the file to the other device by cable, card or any way you like, and bring it in there.
        </p>
        <div className="flex flex-wrap gap-2.5">
          <button
            type="button"
            className="knob main"
            disabled={busy !== null}
            onClick={() => attempt(() => save(null))}
          >
            Save the whole project
          </button>
          {setup && (
            <button
              type="button"
              className="knob"
              disabled={busy !== null || mine.length === 0}
              onClick={() => attempt(() => save(setup))}
            >
              Save {setup.name} only
            </button>
          )}
        </div>
        {setup && mine.length === 0 && (
          <p className="text-ink2">{setup.name} has no takes yet to save by itself.</p>
        )}
      </section>
      <section className="flex flex-col gap-2.5">
        <h2 className="text-[18px] font-[560]">Bring in</h2>
        <p>
          A file from the other device is merged: what was changed here stays, what was changed there comes
          along, and where both changed the same thing you choose.
        </p>
        <div className="flex flex-wrap gap-2.5">
          <button
            type="button"
            className="knob main"
            disabled={busy !== null}
            onClick={() => picker.current?.click()}
          >
            Choose the file
          </button>
        </div>
        <input
          ref={picker}
          type="file"
          accept=".zip,application/zip"
          hidden
          data-testid="carried"
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file)
              void attempt(async () => {
                const into = await bring(file);
                if (into !== null && into !== project.id) go({ project: into, moment: null, setup: null });
              });
          }}
        />
      </section>
      {busy && (
        <div className="flex items-center gap-3">
          <span className="min-w-0 truncate" role="status">
            {busy.text}
          </span>
          <Progress label={busy.text} share={busy.share} />
          <button type="button" className="knob" onClick={cancel}>
            Cancel
          </button>
        </div>
      )}
      <Conflicts />
      <PhonePart />
    </div>
  );
}
