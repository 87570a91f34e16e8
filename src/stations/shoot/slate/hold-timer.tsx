'use client';
import { useEffect, useRef, useState } from 'react';
import { LiveNumber } from '@/ui/live-number';
import { beep } from '@/ui/sound-out';

const around = 2 * Math.PI * 54;

/** Holds a pose in silence for as long as an answer takes: a ring that empties, and a tone at the end. */
export function HoldTimer({ start }: { start: number }) {
  const [length, setLength] = useState(start);
  const [begun, setBegun] = useState<number | null>(null);
  const [now, setNow] = useState(0);
  /** takes the tone at the end back */
  const silence = useRef<() => void>(() => undefined);
  useEffect(() => () => silence.current(), []);
  useEffect(() => {
    if (begun === null) return;
    const timer = setInterval(() => {
      const at = performance.now();
      setNow(at);
      if (at - begun < length * 1000) return;
      setBegun(null);
    }, 50);
    return () => clearInterval(timer);
  }, [begun, length]);
  const left = begun === null ? length : Math.max(0, length - (now - begun) / 1000);
  return (
    <div className="flex flex-wrap items-center justify-center gap-3 text-[15px]">
      {begun !== null && (
        <svg width="120" height="120" role="timer" aria-label={`${Math.ceil(left)} seconds to hold`}>
          <circle cx="60" cy="60" r="54" fill="none" stroke="#343a5a" strokeWidth="8" />
          <circle
            cx="60"
            cy="60"
            r="54"
            fill="none"
            stroke="#f2b252"
            strokeWidth="8"
            strokeDasharray={around}
            strokeDashoffset={around * (1 - left / length)}
            transform="rotate(-90 60 60)"
          />
          <text x="60" y="72" textAnchor="middle" fontSize="36" fill="#efe6d6" className="num !text-[36px]">
            {Math.ceil(left)}
          </text>
        </svg>
      )}
      <button
        type="button"
        className="knob"
        onClick={() => {
          setNow(performance.now());
          // The tone is laid on its time by the press itself: a browser plays none that nobody asked for.
          if (begun === null) silence.current = beep({ later: length });
          else silence.current();
          setBegun(begun === null ? performance.now() : null);
        }}
      >
        {begun === null ? 'Hold the pose' : 'Enough'}
      </button>
      <span>
        for{' '}
        <LiveNumber
          label="Seconds to hold the pose"
          value={length}
          step={0.5}
          min={0.5}
          max={120}
          show={(value) => `${value.toFixed(1)} s`}
          onChange={(value) => {
            setLength(value);
            if (begun === null) return;
            silence.current();
            silence.current = beep({ later: Math.max(0, value - (performance.now() - begun) / 1000) });
          }}
        />
      </span>
    </div>
  );
}
