'use client';
import { useRef, useState } from 'react';
import { byGravity } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import type { RgbaImage } from '@/core/picture/image';
import type { WatchFrame } from '@/core/watch/alarms';
import type { Verdict } from '@/core/watch/verdict';
import { useData } from '@/ui/bench-context';
import { openMedia } from '@/workers/clients';
import { asCoreError } from '@/workers/plain-errors';

type State =
  | { is: 'idle' }
  | { is: 'looking'; name: string }
  | { is: 'told'; name: string; verdict: Verdict; seconds: number }
  | { is: 'refused'; name: string; message: string };

/** A verdict on the last clip of any camera, before anyone moves. */
export function QuickPart({ plate, frame }: { plate: Blob | RgbaImage[] | null; frame: WatchFrame }) {
  const snapshot = useData((data) => data.snapshot);
  const names = useData((data) => data.names);
  const picker = useRef<HTMLInputElement>(null);
  const platePicker = useRef<HTMLInputElement>(null);
  const [chosenPlate, setChosenPlate] = useState<File | null>(null);
  const [state, setState] = useState<State>({ is: 'idle' });
  const against = chosenPlate ?? plate;
  const look = async (file: File) => {
    if (!against) return;
    setState({ is: 'looking', name: file.name });
    const begun = performance.now();
    const worker = openMedia();
    try {
      const { width, height } = snapshot.project;
      const verdict = await worker.api.quickCheck({
        clip: file,
        plate: against,
        frame,
        delivery: { width, height },
      });
      setState({ is: 'told', name: file.name, verdict, seconds: (performance.now() - begun) / 1000 });
    } catch (error) {
      setState({ is: 'refused', name: file.name, message: asCoreError(error).message });
    } finally {
      worker.end();
    }
  };
  return (
    <section className="flex flex-col gap-2" aria-label="Quick check">
      <h2 className="text-[16px] font-[560]">Quick check</h2>
      <p className="text-[14px] text-ink2">
        For clips of the phone’s own camera or of another one: pick the last clip, and know before anyone
        moves.
      </p>
      <div className="flex flex-wrap gap-2">
        <button type="button" className="knob" onClick={() => platePicker.current?.click()}>
          {against ? 'Against another plate' : 'Choose the plate’s clip first'}
        </button>
        <button
          type="button"
          className="knob main"
          disabled={!against || state.is === 'looking'}
          onClick={() => picker.current?.click()}
        >
          {state.is === 'looking' ? 'Looking …' : 'Check a clip'}
        </button>
      </div>
      {chosenPlate && <p className="text-[13px] text-ink2">Plate: {chosenPlate.name}</p>}
      {[
        { ref: picker, id: 'quick-clip', take: (file: File) => void look(file) },
        { ref: platePicker, id: 'quick-plate', take: setChosenPlate },
      ].map(({ ref, id, take }) => (
        <input
          key={id}
          ref={ref}
          type="file"
          accept="video/*"
          hidden
          data-testid={id}
          onChange={(event) => {
            const [file] = event.target.files ?? [];
            event.target.value = '';
            if (file) take(file);
          }}
        />
      ))}
      <div role="status" aria-live="polite" data-testid="verdict">
        {state.is === 'refused' && (
          <p className="border-l-4 border-madder bg-ground px-2.5 py-1.5 text-[14px]">
            {state.name}: {state.message}
          </p>
        )}
        {state.is === 'told' && (
          <div className="flex flex-col gap-1.5" data-usable={state.verdict.usable}>
            <p className="text-[15px] font-semibold">
              {state.name}: {state.verdict.usable ? 'use it.' : 'film it again.'}{' '}
              <span className="font-normal text-ink2">
                {state.verdict.pictures} pictures in {state.seconds.toFixed(1)} s
              </span>
            </p>
            {byGravity(state.verdict.findings).map((finding) => (
              <p
                key={finding.code}
                data-finding={finding.code}
                className="border-l-4 bg-ground px-2.5 py-1.5 text-[14px]"
                style={{
                  borderColor:
                    finding.severity === 'fine'
                      ? 'var(--verdigris)'
                      : finding.severity === 'watch'
                        ? 'var(--saffron)'
                        : 'var(--madder)',
                }}
              >
                {sayFinding(finding, names).text}
              </p>
            ))}
          </div>
        )}
      </div>
    </section>
  );
}
