'use client';
import { memo } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import type { Action, Scope } from './action';
import { useActionsHere } from './offers';

/** Something is asked or chosen in front of the bench. */
const open = (...roles: string[]) => roles.map((role) => `[role=${role}][data-state=open]`).join();
const chosen = open('menu', 'listbox', 'alertdialog');
const inFront = `${chosen}, ${open('dialog')}`;
const typed = 'input:not([type=checkbox], [type=radio], [type=range]), textarea, select, [contenteditable]';
/** What takes single keys itself. */
const takesKeys = '[role=spinbutton], [role=slider], [role=combobox]';

function isTaken(event: KeyboardEvent, keys: string, within: string): boolean {
  const { target } = event;
  if (event.defaultPrevented || !(target instanceof Element)) return event.defaultPrevented;
  if (target.closest(typed) || document.querySelector(within)) return true;
  if (keys.includes('mod')) return false;
  return Boolean(
    target.closest(takesKeys) ||
    (keys === 'space' && target.closest('button, a, summary, label, [role=tab]')),
  );
}

/**
 * Listens for the keys of one action.
 * @param inDialog it belongs to the dialog that is open
 */
export function ActionKey({
  action,
  active = true,
  inDialog = false,
}: {
  action: Action;
  active?: boolean;
  inDialog?: boolean;
}) {
  const within = inDialog ? chosen : inFront;
  const options = {
    enabled: active,
    // Keys as they are written on the keyboard at hand; a space has no sign of its own.
    delimiter: '|',
    preventDefault: true,
    enableOnFormTags: true,
    enableOnContentEditable: true,
  };
  const { keys = [], repeats, run } = action;
  const press = (event: KeyboardEvent) => {
    if (repeats || !event.repeat) run();
  };
  const signs = keys.filter((one) => one !== 'space');
  useHotkeys(signs, press, {
    ...options,
    enabled: active && signs.length > 0,
    useKey: true,
    ignoreEventWhen: (event) => isTaken(event, keys[0], within),
  });
  useHotkeys('space', press, {
    ...options,
    enabled: active && keys.includes('space'),
    ignoreEventWhen: (event) => isTaken(event, 'space', within),
  });
  return null;
}

/** Listens for the keys of everything that can be done here. */
export const ActionKeys = memo(function ActionKeys({
  actions,
  scopes,
  active,
}: {
  actions: readonly Action[];
  /** what is on the screen */
  scopes: readonly Scope[];
  active: boolean;
}) {
  return useActionsHere(actions, scopes).map((action) => (
    <ActionKey key={action.id} action={action} active={active} />
  ));
});
