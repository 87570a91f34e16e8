'use client';
import { median } from '@/core/statistics';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { tapBeats } from '@/store/commands/song';
import { useOffer } from '@/ui/actions/offers';
import { useData, useServices } from '@/ui/bench-context';
import { Part } from '../station';

const kept = 'fickle-ribbon:tap-latency';
/** Common practice, no published source: sound out, ear, finger and event together. */
const usual = 0.06;

const readLatency = () => {
  const value = Number(globalThis.localStorage?.getItem(kept));
  return value > 0 && value < 0.5 ? value : usual;
};

const counts = 12;
const every = 0.6;

/** Plays twelve even ticks and compares taps with them. */
function startTicks(): { context: AudioContext; at: number; late: number[] } {
  const context = new AudioContext();
  const at = context.currentTime + 0.6;
  for (let count = 0; count < counts; count++) {
    const tick = new OscillatorNode(context, { frequency: count % 4 === 0 ? 1760 : 1175 });
    const level = new GainNode(context, { gain: 0 });
    const time = at + count * every;
    level.gain.setValueAtTime(0.4, time);
    level.gain.exponentialRampToValueAtTime(0.001, time + 0.05);
    tick.connect(level).connect(context.destination);
    tick.start(time);
    tick.stop(time + 0.06);
  }
  return { context, at, late: [] };
}

/** Tapping along with the song, by key or touch, with the device's and the finger's lateness taken out. */
export function Taps() {
  const { player, store, attempt } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  const [taps, setTaps] = useState<number[]>([]);
  const [latency, setLatency] = useState(readLatency);
  const [measuring, setMeasuring] = useState<number | null>(null);
  const ticks = useRef<ReturnType<typeof startTicks> | null>(null);

  const endMeasuring = useCallback((late: readonly number[]) => {
    void ticks.current?.context.close();
    ticks.current = null;
    setMeasuring(null);
    const middle = median(late);
    if (late.length >= 5 && middle > 0 && middle < 0.5) {
      localStorage.setItem(kept, String(middle));
      setLatency(middle);
    }
  }, []);

  const tap = useCallback(() => {
    const running = ticks.current;
    if (running) {
      const since = running.context.currentTime - running.at;
      const late = since - Math.round(since / every) * every;
      running.late.push(late);
      if (running.late.length >= counts - 2) endMeasuring(running.late.slice(2));
      else setMeasuring(running.late.length);
      return;
    }
    if (!player.playing()) {
      void player.toggle();
      return;
    }
    const now = player.time();
    setTaps((all) =>
      all.length > 0 && (now < all[all.length - 1] || now - all[all.length - 1] > 4) ? [now] : [...all, now],
    );
  }, [player, endMeasuring]);

  useOffer(
    useMemo(() => [{ id: 'tap', text: 'Tap a beat', scope: 'song' as const, keys: ['t'], run: tap }], [tap]),
  );
  useEffect(() => () => void ticks.current?.context.close(), []);

  return (
    <Part title="Tap along">
      <button
        type="button"
        className="stitch-pad flex min-h-16 w-full touch-none flex-col items-center justify-center border-2 border-dashed border-line bg-sunk px-2 py-2 text-center font-semibold active:border-madder"
        onPointerDown={(event) => {
          event.preventDefault();
          tap();
        }}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' && event.key !== ' ') return;
          event.preventDefault();
          tap();
        }}
      >
        {measuring !== null
          ? `With the ticks: ${measuring} of ${counts - 2}`
          : taps.length > 0
            ? `${taps.length} taps`
            : 'Press here on every beat'}
      </button>
      <div className="mt-1.5 flex flex-wrap items-center gap-1.5">
        <button
          type="button"
          className="knob"
          disabled={taps.length < 4}
          onClick={() =>
            attempt(async () => {
              player.pause();
              // Playing slower, a lateness of the hand is less of the song.
              await tapBeats(store, projectId, taps, latency * player.speed());
              setTaps([]);
            })
          }
        >
          Lay these taps
        </button>
        {taps.length > 0 && (
          <button type="button" className="knob" onClick={() => setTaps([])}>
            Forget them
          </button>
        )}
        <button
          type="button"
          className="knob"
          onClick={() => {
            if (measuring !== null) return endMeasuring([]);
            player.pause();
            ticks.current = startTicks();
            setMeasuring(0);
          }}
        >
          {measuring !== null ? 'Stop the ticks' : 'Measure my lateness'}
        </button>
      </div>
      <p className="mt-1 text-[12px] text-ink2">
        Taps count <span className="num">{Math.round(latency * 1000)} ms</span> earlier than they arrive.
      </p>
    </Part>
  );
}
