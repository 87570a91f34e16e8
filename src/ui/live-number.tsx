'use client';
import { useEffect, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { useAhead } from './ahead';
import { useGesture } from './gesture';

type Props = {
  /** what it is, for those who cannot see the sentence */
  label: string;
  value: number;
  /** one notch of the wheel, an arrow key or eight pixels of dragging */
  step: number;
  min?: number;
  max?: number;
  show: (value: number) => string;
  /** the other useful unit, shown on hover */
  also?: (value: number) => string;
  /** reads what was typed; null where it makes no sense */
  read?: (text: string) => number | null;
  dye?: string;
  /** hears of values while they are typed or dragged, and null when that is over */
  onDraft?: (value: number | null) => void;
  /** where it returns a promise, the value is on its way until that is over */
  onChange: (value: number) => void | Promise<void>;
};

const readNumber = (text: string): number | null => {
  const match = /-?\d+(?:[.,]\d+)?/.exec(text);
  return match ? Number(match[0].replace(',', '.')) : null;
};

/** A quantity inside a sentence: drag, wheel, arrow keys, or press and type. */
export function LiveNumber({
  label,
  value,
  step,
  min = -Infinity,
  max = Infinity,
  show,
  also,
  read,
  dye,
  onDraft,
  onChange,
}: Props) {
  const [typing, setTyping] = useState<string | null>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const shownNumber = useRef<HTMLSpanElement>(null);
  const start = useRef<{ x: number; value: number; moved: boolean } | null>(null);
  const asOne = useGesture();
  const ahead = useAhead<number>();
  const [sent, setSent] = useState<readonly number[]>([]);
  const fit = (next: number) => Math.min(max, Math.max(min, Math.round(next / step) * step));
  const change = (next: number) => {
    const done = onChange(next);
    if (!done) return;
    ahead.send(label, next, done);
    setSent((all) => [...all, next]);
    void done.finally(() => setSent((all) => all.slice(1)));
  };
  const stepBy = (by: number) => change(fit(ahead.newest(label, value) + by));

  useEffect(() => {
    const element = shownNumber.current;
    const turn = (event: WheelEvent) => {
      if (document.activeElement !== element) return;
      event.preventDefault();
      asOne(event, () => stepBy(event.deltaY < 0 ? step : -step));
    };
    element?.addEventListener('wheel', turn, { passive: false });
    return () => element?.removeEventListener('wheel', turn);
  });

  if (typing !== null) {
    const finish = () => {
      const next = (read ?? readNumber)(typing);
      setTyping(null);
      onDraft?.(null);
      if (next !== null && Number.isFinite(next)) change(Math.min(max, Math.max(min, next)));
    };
    return (
      <input
        aria-label={label}
        autoFocus
        className="num border-b-2 bg-sunk px-1"
        style={{ width: `${Math.max(6, typing.length + 2)}ch`, borderColor: dye }}
        value={typing}
        onFocus={(event) => event.target.select()}
        onChange={(event) => {
          setTyping(event.target.value);
          const next = (read ?? readNumber)(event.target.value);
          onDraft?.(next !== null && Number.isFinite(next) ? Math.min(max, Math.max(min, next)) : null);
        }}
        onBlur={finish}
        onKeyDown={(event) => {
          if (event.key === 'Enter') finish();
          if (event.key !== 'Escape') return;
          setTyping(null);
          onDraft?.(null);
        }}
      />
    );
  }

  const shown = dragged ?? sent.at(-1) ?? value;
  const down = (event: PointerEvent<HTMLSpanElement>) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    start.current = { x: event.clientX, value: shown, moved: false };
  };
  const move = (event: PointerEvent) => {
    if (!start.current) return;
    const notches = Math.round((event.clientX - start.current.x) / 8);
    if (notches !== 0) start.current.moved = true;
    if (!start.current.moved) return;
    const next = fit(start.current.value + notches * step);
    setDragged(next);
    onDraft?.(next);
  };
  const up = () => {
    if (!start.current) return;
    const { moved } = start.current;
    start.current = null;
    if (!moved) setTyping(show(shown));
    else if (dragged !== null) change(dragged);
    setDragged(null);
    onDraft?.(null);
  };
  const key = (event: KeyboardEvent) => {
    const by = { ArrowUp: step, ArrowRight: step, ArrowDown: -step, ArrowLeft: -step }[event.key];
    if (by !== undefined) {
      event.preventDefault();
      event.stopPropagation();
      asOne(event.nativeEvent, () => stepBy(by * (event.shiftKey ? 10 : 1)));
    }
    if (event.key === 'Enter' || event.key === ' ') {
      event.preventDefault();
      event.stopPropagation();
      setTyping(show(shown));
    }
  };
  return (
    <span
      ref={shownNumber}
      tabIndex={0}
      role="spinbutton"
      aria-label={label}
      aria-valuenow={shown}
      aria-valuetext={show(shown)}
      title={also?.(shown) ?? 'Drag, use the arrow keys, or press to type'}
      className="num inline-block cursor-ew-resize touch-none select-none whitespace-nowrap border-b-2 px-0.5 hover:bg-sunk"
      style={{ borderColor: dye ?? 'var(--ink2)' }}
      onPointerDown={down}
      onPointerMove={move}
      onPointerUp={up}
      onPointerCancel={() => {
        setDragged(null);
        onDraft?.(null);
      }}
      onKeyDown={key}
    >
      {show(shown)}
    </span>
  );
}
