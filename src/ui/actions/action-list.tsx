'use client';
import { Command } from 'cmdk';
import { Dialog } from 'radix-ui';
import { memo } from 'react';
import { sayKeys, scopeTitles, type Action, type Scope } from './action';
import { useActionsHere } from './offers';

/** 1 where each word that was typed stands in it. */
const holdsWords = (value: string, typed: string): number =>
  Number(
    typed
      .toLowerCase()
      .split(/\s+/)
      .every((word) => value.toLowerCase().includes(word)),
  );

/** Lists everything that can be done here. */
export const ActionList = memo(function ActionList({
  actions,
  scopes,
  open,
  setOpen,
}: {
  actions: readonly Action[];
  /** what is on the screen */
  scopes: readonly Scope[];
  open: boolean;
  setOpen: (open: boolean) => void;
}) {
  const here = useActionsHere(actions, scopes);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <Dialog.Content className="fixed top-[12vh] left-1/2 z-50 w-[min(520px,94vw)] -translate-x-1/2 border border-line bg-raised p-4 shadow-xl">
          <Dialog.Title className="mb-2 text-[17px]">What do you want to do?</Dialog.Title>
          <Dialog.Description className="sr-only">
            Type to search, arrows to choose, Enter to do it.
          </Dialog.Description>
          <Command label="What can be done here" loop filter={holdsWords}>
            <Command.Input
              autoFocus
              placeholder="Type to search"
              className="mb-2 w-full border-b-2 border-line bg-transparent py-1.5 outline-none placeholder:text-ink2 focus:border-woad"
            />
            <Command.List className="max-h-[55vh] overflow-auto">
              <Command.Empty className="px-2 py-1.5 text-ink2">Nothing is called that here.</Command.Empty>
              {scopes.map((scope) => (
                <Command.Group
                  key={scope}
                  heading={scopeTitles[scope]}
                  className="[&>[cmdk-group-heading]]:px-2 [&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:font-serif [&>[cmdk-group-heading]]:text-ink2"
                >
                  {here
                    .filter((action) => action.scope === scope)
                    .map((action) => (
                      <Command.Item
                        key={action.id}
                        value={`${action.text} ${action.id}`}
                        keywords={[action.text]}
                        className="flex cursor-pointer items-center justify-between gap-4 px-2 py-1.5 data-[selected=true]:bg-sunk pointer-coarse:min-h-11"
                        onSelect={() => {
                          setOpen(false);
                          action.run();
                        }}
                      >
                        {action.text}
                        {action.keys && (
                          <kbd className="num text-ink2 pointer-coarse:hidden">{sayKeys(action.keys[0])}</kbd>
                        )}
                      </Command.Item>
                    ))}
                </Command.Group>
              ))}
            </Command.List>
          </Command>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
});
