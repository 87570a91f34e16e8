'use client';
import { Dialog } from 'radix-ui';
import { memo, useEffect, useState } from 'react';

/** Something that can be done, with its key; all of them are listed and searched in one place. */
export type Action = { id: string; text: string; keys?: string; run: () => void };

/** "Ctrl+Z" for an event, as actions name their keys. */
function keysOf(event: KeyboardEvent): string {
  const key = event.key === ' ' ? 'Space' : event.key.length === 1 ? event.key.toUpperCase() : event.key;
  return `${event.ctrlKey || event.metaKey ? 'Ctrl+' : ''}${event.shiftKey && key.length > 1 ? 'Shift+' : ''}${key}`;
}

const writes = (target: EventTarget | null) =>
  target instanceof HTMLElement &&
  (/^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable);

/** Listens for the keys of actions, and shows them all on Ctrl+K or "?". */
export const ActionList = memo(function ActionList({
  actions,
  open,
  setOpen,
}: {
  actions: readonly Action[];
  open: boolean;
  setOpen: (open: boolean) => void;
}) {
  const [words, setWords] = useState('');
  const [at, setAt] = useState(0);
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      if (event.defaultPrevented || writes(event.target)) return;
      const keys = keysOf(event);
      if (keys === 'Ctrl+K' || keys === '?') {
        event.preventDefault();
        setOpen(true);
        return;
      }
      const onControl =
        event.target instanceof HTMLElement && event.target.closest('button, a, [role=option]');
      if (open || (keys === 'Space' && onControl)) return;
      const action = actions.find((one) => one.keys === keys);
      if (!action) return;
      event.preventDefault();
      action.run();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [actions, open, setOpen]);

  const found = actions.filter((action) => action.text.toLowerCase().includes(words.trim().toLowerCase()));
  const run = (action: Action | undefined) => {
    setOpen(false);
    setWords('');
    action?.run();
  };
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content className="fixed left-1/2 top-[12vh] z-50 w-[min(520px,94vw)] -translate-x-1/2 border border-line bg-raised p-4 shadow-xl">
          <Dialog.Title className="mb-2 text-[17px]">What do you want to do?</Dialog.Title>
          <Dialog.Description className="sr-only">
            Type to search, arrows to choose, Enter to do it.
          </Dialog.Description>
          <input
            autoFocus
            aria-label="Search what can be done"
            className="mb-2 w-full border-b-2 border-line bg-transparent py-1.5 outline-none focus:border-woad"
            value={words}
            onChange={(event) => {
              setWords(event.target.value);
              setAt(0);
            }}
            onKeyDown={(event) => {
              if (event.key === 'ArrowDown') setAt(Math.min(found.length - 1, at + 1));
              else if (event.key === 'ArrowUp') setAt(Math.max(0, at - 1));
              else if (event.key === 'Enter') run(found[at]);
              else return;
              event.preventDefault();
            }}
          />
          <ul className="max-h-[55vh] overflow-auto">
            {found.map((action, index) => (
              <li key={action.id}>
                <button
                  type="button"
                  className={`flex w-full justify-between gap-4 px-2 py-1.5 text-left hover:bg-sunk ${index === at ? 'bg-sunk' : ''}`}
                  onClick={() => run(action)}
                >
                  {action.text}
                  <kbd className="num text-ink2">{action.keys}</kbd>
                </button>
              </li>
            ))}
            {found.length === 0 && <li className="px-2 py-1.5 text-ink2">Nothing is called that here.</li>}
          </ul>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
});
