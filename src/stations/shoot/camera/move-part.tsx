'use client';
import { useEffect, useMemo, useRef, useState, type RefObject } from 'react';
import { allowed } from '@/core/finding/allowed';
import type { Finding } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import type { OpenCamera } from '@/media/camera';
import type { PassPoint } from '@/core/watch/moving-pass';
import { setMove } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';
import { Chart, type ChartProps } from '@/ui/chart';
import { LiveNumber } from '@/ui/live-number';
import { LiveText } from '@/ui/live-text';
import { openWatch, transferred, type CancellableClient } from '@/workers/clients';
import type { PracticeControls } from '@/workers/practice-camera';
import type { WatchApi } from '@/workers/watch.worker';
import { beep } from '@/ui/sound-out';
import { pictureOf } from './use-watch';

type Told = { number: number; findings: Finding[]; points: PassPoint[] };

const dyes = ['--woad', '--madder', '--lichen', '--saffron'];

const rest = (milliseconds: number) => new Promise((resolve) => setTimeout(resolve, milliseconds));

/** A move that is repeated for each copy: its marks and length, and how each pass follows the first one. */
export function MovePart({
  setup,
  video,
  camera,
  practice,
  onMoving,
}: {
  setup: string;
  video: RefObject<HTMLVideoElement | null>;
  camera: OpenCamera | null;
  practice: PracticeControls | null;
  /** the watch against the plate has to rest while the camera moves */
  onMoving: (moving: boolean) => void;
}) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const names = useData((data) => data.names);
  const on = camera !== null;
  const move = snapshot.moves.find((one) => one.setup === setup);
  const { from, to, seconds } = move ?? { from: 'first mark', to: 'last mark', seconds: 4 };
  const worker = useRef<CancellableClient<WatchApi> | null>(null);
  const [says, setSays] = useState('');
  const [passes, setPasses] = useState<Told[]>([]);
  const [live, setLive] = useState<PassPoint | null>(null);
  const stopped = useRef(false);
  useEffect(
    () => () => {
      stopped.current = true;
      worker.current?.end();
      worker.current = null;
    },
    [],
  );
  const change = (set: Parameters<typeof setMove>[3]) =>
    attempt(() => setMove(store, snapshot.project.id, setup, set));

  const repeated = useMemo(() => passes.filter(({ points }) => points.length > 1), [passes]);

  const run = async (anew: boolean) => {
    worker.current ??= openWatch();
    const { api, orEnded } = worker.current;
    const { width, height } = snapshot.project;
    stopped.current = false;
    onMoving(true);
    try {
      for (const count of [3, 2, 1]) {
        setSays(`Starts in ${count}`);
        beep({ hertz: 660, seconds: 0.08 });
        await rest(800);
        if (stopped.current) return;
      }
      beep({ hertz: 990, seconds: 0.2 });
      await orEnded(api.beginPass({ width, height }, anew));
      practice?.push(true);
      const begun = performance.now() / 1000;
      const ran = () => performance.now() / 1000 - begun;
      let last = -Infinity;
      while (ran() < seconds && !stopped.current) {
        setSays(`Moving, ${Math.max(0, seconds - ran()).toFixed(0)} s left`);
        const asked = ran();
        const taken = await pictureOf(video.current, camera);
        // A picture from before the move, or one that was looked at already, says nothing new.
        if (taken && taken.time >= begun && taken.time > last) {
          last = taken.time;
          setLive(await orEnded(api.pushPass(transferred(taken.bitmap), taken.time - begun)));
        } else taken?.bitmap.close();
        await rest(Math.max(10, 200 - (ran() - asked) * 1000));
      }
      beep({ hertz: 660, seconds: 0.3 });
      const told = await orEnded(api.finishPass());
      if (told) {
        const before = anew || told.first ? [] : passes;
        setPasses([...before, { number: before.length + 1, ...told }]);
      }
    } finally {
      practice?.push(false);
      setLive(null);
      setSays('');
      onMoving(false);
    }
  };
  return (
    <section className="flex flex-col gap-2" aria-label="A move that is repeated">
      <h2 className="text-[16px] font-[560]">A move that is repeated</h2>
      <p className="text-[15px]">
        From{' '}
        <LiveText label="Where the move begins" value={from} onChange={(text) => change({ from: text })} /> to{' '}
        <LiveText label="Where the move ends" value={to} onChange={(text) => change({ to: text })} /> in{' '}
        <LiveNumber
          label="Seconds of the move"
          value={seconds}
          step={0.5}
          min={1}
          max={120}
          show={(value) => `${value.toFixed(1)} s`}
          onChange={(value) => change({ seconds: value })}
        />
      </p>
      <div className="flex flex-wrap gap-2">
        {says ? (
          <button type="button" className="knob" onClick={() => (stopped.current = true)}>
            Stop · {says}
          </button>
        ) : (
          <>
            <button
              type="button"
              className="knob main"
              disabled={!on}
              onClick={() => attempt(() => run(false))}
            >
              {passes.length === 0 ? 'First pass' : `Pass ${passes.length + 1}`}
            </button>
            {passes.length > 0 && (
              <button type="button" className="knob" disabled={!on} onClick={() => attempt(() => run(true))}>
                Begin again with a first pass
              </button>
            )}
          </>
        )}
      </div>
      {!on && <p className="text-[14px] text-ink2">Open the camera to compare passes while they run.</p>}
      {live && (
        <p className="num !text-[14px]">
          {live.move.toFixed(1)} px beside, {live.late >= 0 ? '' : '−'}
          {Math.abs(live.late).toFixed(2)} s late
        </p>
      )}
      <ol className="flex flex-col gap-2" data-testid="passes">
        {passes.map(({ number, findings }) => (
          <li key={number} className="border-l-4 border-woad bg-ground px-2.5 py-1.5 text-[14px]">
            <b>Pass {number}.</b>{' '}
            {findings.map((finding) => (
              <span key={finding.code} data-finding={finding.code}>
                {sayFinding(finding, names).text}{' '}
              </span>
            ))}
          </li>
        ))}
      </ol>
      {repeated.length > 0 && <Drift passes={repeated} />}
    </section>
  );
}

/** How far each pass lay beside the first one, over the seconds of the move. */
function Drift({ passes }: { passes: readonly Told[] }) {
  const chart = useMemo(
    (): ChartProps => ({
      label: 'How far each pass lay beside the first one, in pixels over the seconds of the move',
      curves: passes.map(({ number, points }, index) => ({
        name: `Pass ${number}`,
        dye: dyes[index % dyes.length],
        points: points.map(({ time, move }) => [time, move] as const),
      })),
      across: (time) => `${time.toFixed(1)} s`,
      down: (move) => `${move.toFixed(1)} px`,
      limit: { value: allowed.passMove, text: 'allowed' },
    }),
    [passes],
  );
  return <Chart {...chart} />;
}
