'use client';
import { AlertDialog } from 'radix-ui';
import type { ReactNode } from 'react';

/** Asks before something is done that reaches far: what it does, and the way not to do it. */
export function Confirm({
  open,
  title,
  text,
  keep,
  act,
  onAct,
  onClose,
  children,
}: {
  open: boolean;
  title: string;
  text: string;
  /** what the buttons say */
  keep: string;
  act: string;
  onAct: () => void;
  onClose: () => void;
  children?: ReactNode;
}) {
  return (
    <AlertDialog.Root open={open} onOpenChange={(stays) => !stays && onClose()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="fixed top-[14vh] left-1/2 z-50 flex max-h-[76vh] w-[min(480px,94vw)] -translate-x-1/2 flex-col border border-line bg-raised p-5 shadow-xl">
          <AlertDialog.Title className="text-[18px] [overflow-wrap:anywhere]">{title}</AlertDialog.Title>
          <AlertDialog.Description className="my-2 text-ink2">{text}</AlertDialog.Description>
          {children}
          <div className="mt-4 flex flex-wrap justify-end gap-2">
            <AlertDialog.Cancel className="knob">{keep}</AlertDialog.Cancel>
            <AlertDialog.Action className="knob main" autoFocus onClick={onAct}>
              {act}
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
