'use client';
import { useRef, useState } from 'react';
import { Select } from 'radix-ui';
import { dyed } from './dyed';

export type Option = { value: string; text: string; disabled?: boolean; why?: string };

/** Letters that fit on a line of a phone. */
const mostLetters = 36;

/** A word inside a sentence that can be another one. */
export function LiveChoice({
  label,
  value,
  options,
  dye,
  empty = 'choose',
  onChange,
}: {
  label: string;
  value: string;
  options: readonly Option[];
  dye?: string;
  empty?: string;
  onChange: (value: string) => void;
}) {
  const [open, setOpen] = useState(false);
  // Keys need the words before the list opens: letters choose while it is closed, quick ones as it opens.
  const [keyed, setKeyed] = useState(false);
  // A list takes keys once it has settled and has the focus, and acts on each of them a moment later. What is
  // pressed meanwhile waits for its turn, so that quick keys do what slow ones do.
  const waiting = useRef<string[]>([]);
  const turn = useRef<'free' | 'held' | 'working'>('free');
  const inTurn = () => {
    turn.current = 'working';
    // The list's own timer runs between the two.
    setTimeout(() => setTimeout(next));
  };
  const next = () => {
    if (turn.current !== 'working') return;
    const key = waiting.current.shift();
    if (key === undefined) {
      turn.current = 'free';
      return;
    }
    document.activeElement?.dispatchEvent(
      new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }),
    );
    if (turn.current === 'working') inTurn();
  };
  const text = options.find((one) => one.value === value)?.text;
  // Only what is too long for a line is cut short: what is cut no longer stands on the line's own letters.
  const long = (text?.length ?? 0) > mostLetters;
  const chosen = <Select.Value placeholder={empty}>{text}</Select.Value>;
  return (
    <Select.Root
      value={value}
      onValueChange={onChange}
      onOpenChange={(opens) => {
        waiting.current = [];
        turn.current = 'free';
        setOpen(opens);
      }}
    >
      <Select.Trigger
        aria-label={label}
        onFocus={() => setKeyed(true)}
        onBlur={() => {
          if (!open) setKeyed(false);
        }}
        onKeyDown={(event) => {
          if (!open) return;
          event.preventDefault();
          waiting.current.push(event.key);
          if (turn.current === 'free') turn.current = 'held';
        }}
        className={`num live text-left whitespace-nowrap data-[placeholder]:text-madder ${long ? 'max-w-[min(100%,40ch)] min-w-0 align-bottom' : ''}`}
        style={dyed(dye)}
      >
        {long ? <span className="block truncate">{chosen}</span> : chosen}
      </Select.Trigger>
      {/* A list that nobody is at costs nothing: some are as long as the takes of a film. */}
      {(open || keyed) && (
        <Select.Portal>
          <Select.Content
            position="popper"
            sideOffset={4}
            onFocus={() => {
              if (turn.current === 'held') inTurn();
            }}
            onKeyDownCapture={(event) => {
              if (!event.isTrusted) return;
              if (turn.current === 'free') {
                inTurn();
                return;
              }
              event.preventDefault();
              event.stopPropagation();
              waiting.current.push(event.key);
            }}
            className="z-50 max-h-80 max-w-[94vw] overflow-auto border border-line bg-raised p-1 shadow-lg"
          >
            <Select.Viewport>
              {options.map((option) => (
                <Select.Item
                  key={option.value}
                  value={option.value}
                  disabled={option.disabled}
                  className="num cursor-pointer px-3 py-1.5 [overflow-wrap:anywhere] outline-none data-[disabled]:cursor-default data-[disabled]:text-ink2 data-[highlighted]:bg-sunk data-[state=checked]:font-bold pointer-coarse:min-h-11 pointer-coarse:py-3"
                >
                  <Select.ItemText>{option.text}</Select.ItemText>
                  {option.why && <span className="ml-2 font-sans text-ink2">{option.why}</span>}
                </Select.Item>
              ))}
            </Select.Viewport>
          </Select.Content>
        </Select.Portal>
      )}
    </Select.Root>
  );
}
