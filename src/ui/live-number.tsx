'use client';
import { useDrag } from '@use-gesture/react';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { readNumber } from '@/core/read-number';
import { useAhead } from './ahead';
import { gripOf, type DragState } from './drag-state';
import { dyed } from './dyed';
import { useGesture } from './gesture';
import { focused } from './focused';

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

/** Pixels of dragging for one step. */
const notch = 8;

/** A quantity inside a sentence: drag, wheel, arrow keys, or press and type. Only what was changed is handed on. */
export function LiveNumber({
  label,
  value,
  step,
  min = -Infinity,
  max = Infinity,
  show,
  also,
  read = readNumber,
  dye,
  onDraft,
  onChange,
}: Props) {
  /** what is typed at first; null while nothing is */
  const [typing, setTyping] = useState<string | null>(null);
  const [dragged, setDragged] = useState<number | null>(null);
  const element = useRef<HTMLSpanElement>(null);
  const refocus = useRef(false);
  const asOne = useGesture();
  const ahead = useAhead<number>();
  const [sent, setSent] = useState<readonly number[]>([]);
  const within = (next: number) => Math.min(max, Math.max(min, next));
  const fit = (next: number) => within(Math.round(next / step) * step);
  const change = (next: number) => {
    const done = onChange(next);
    if (!done) return;
    ahead.send(label, next, done);
    setSent((all) => [...all, next]);
    void done.finally(() => setSent((all) => all.slice(1)));
  };
  const stepBy = (by: number) => change(fit(ahead.newest(label, value) + by));
  const shown = dragged ?? sent.at(-1) ?? value;

  useEffect(() => {
    const turned = element.current;
    const turn = (event: WheelEvent) => {
      if (document.activeElement !== turned) return;
      event.preventDefault();
      asOne(event, () => stepBy(event.deltaY < 0 ? step : -step));
    };
    turned?.addEventListener('wheel', turn, { passive: false });
    return () => turned?.removeEventListener('wheel', turn);
  });
  useEffect(() => {
    if (typing !== null || !refocus.current) return;
    refocus.current = false;
    element.current?.focus();
  }, [typing]);

  const drag = useDrag(
    ({ movement: [across], tap, last, event, memo = shown }: DragState<number>) => {
      if (tap) return void setTyping('');
      const notches = Math.round(across / notch);
      const next = notches === 0 ? memo : fit(memo + notches * step);
      const grip = gripOf({ last, event });
      if (grip === 'done' && next !== memo) change(next);
      setDragged(grip === 'held' ? next : null);
      onDraft?.(grip === 'held' ? next : null);
      return memo;
    },
    { axis: 'x', filterTaps: true, threshold: notch / 2, pointer: { keys: false } },
  );

  if (typing !== null)
    return (
      <Typed
        label={label}
        first={show(shown)}
        begun={typing}
        decimals={read === readNumber && min >= 0}
        dye={dye}
        read={(text) => {
          const next = read(text);
          return next !== null && Number.isFinite(next) ? within(next) : null;
        }}
        show={show}
        onDraft={onDraft}
        onEnd={(next, byKey) => {
          refocus.current = byKey;
          setTyping(null);
          onDraft?.(null);
          if (next !== null) change(next);
        }}
      />
    );

  const key = (event: KeyboardEvent) => {
    const by = { ArrowUp: step, ArrowRight: step, ArrowDown: -step, ArrowLeft: -step }[event.key];
    const begun = event.key === 'Enter' || event.key === ' ' ? '' : event.key;
    const plain = !event.ctrlKey && !event.metaKey && !event.altKey;
    if (by === undefined && !(plain && (begun === '' || /^[\d.,−-]$/.test(begun)))) return;
    event.preventDefault();
    event.stopPropagation();
    if (by !== undefined) asOne(event.nativeEvent, () => stepBy(by * (event.shiftKey ? 10 : 1)));
    else setTyping(begun);
  };
  return (
    <span
      ref={element}
      tabIndex={0}
      role="spinbutton"
      aria-label={label}
      aria-valuenow={shown}
      aria-valuemin={Number.isFinite(min) ? min : undefined}
      aria-valuemax={Number.isFinite(max) ? max : undefined}
      aria-valuetext={show(shown)}
      title={also?.(shown) ?? 'Drag, use the arrow keys, or press to type'}
      className="num live inline-block cursor-ew-resize touch-pan-y whitespace-nowrap select-none"
      style={dyed(dye)}
      onKeyDown={key}
      {...drag()}
    >
      {show(shown)}
    </span>
  );
}

/** The number while it is typed, and what is understood. */
function Typed({
  label,
  first,
  begun,
  decimals,
  dye,
  read,
  show,
  onDraft,
  onEnd,
}: {
  label: string;
  first: string;
  /** the key that began it, in place of what stood there */
  begun: string;
  /** a keyboard of digits and a decimal sign is all that it takes */
  decimals: boolean;
  dye?: string;
  read: (text: string) => number | null;
  show: (value: number) => string;
  onDraft?: (value: number | null) => void;
  onEnd: (value: number | null, byKey: boolean) => void;
}) {
  const [text, setText] = useState(begun || first);
  const changed = text.trim() !== first.trim();
  const understood = changed ? read(text) : null;
  const ended = useRef(false);
  const end = (value: number | null, byKey: boolean) => {
    // Taking the field away blurs it once more.
    if (ended.current) return;
    ended.current = true;
    onEnd(value, byKey);
  };
  return (
    <span className="relative inline-block">
      <input
        aria-label={label}
        ref={focused}
        autoComplete="off"
        inputMode={decimals ? 'decimal' : 'text'}
        enterKeyHint="done"
        className="num live bg-sunk"
        style={{ ...dyed(dye), width: `${Math.max(6, text.length + 2)}ch` }}
        value={text}
        onFocus={(event) => begun || event.target.select()}
        onChange={(event) => {
          setText(event.target.value);
          onDraft?.(event.target.value.trim() === first.trim() ? null : read(event.target.value));
        }}
        onBlur={() => end(understood, false)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key !== 'Enter' && event.key !== 'Escape') return;
          event.preventDefault();
          end(event.key === 'Enter' ? understood : null, true);
        }}
      />
      {changed && (
        <output
          className="num absolute top-full left-0 z-30 bg-ink px-1.5 py-0.5 whitespace-nowrap text-raised"
          data-understood=""
        >
          {understood === null ? 'stays as it is: no number' : show(understood)}
        </output>
      )}
    </span>
  );
}
