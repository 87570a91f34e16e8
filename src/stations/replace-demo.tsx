'use client';
import { Confirm } from '@/ui/confirm';

/** Says what becomes of the demo that is here before a fresh one takes its place. */
export function ReplaceDemo({
  open,
  onAct,
  onClose,
}: {
  open: boolean;
  onAct: () => void;
  onClose: () => void;
}) {
  return (
    <Confirm
      open={open}
      title="Replace the demo?"
      text="A fresh copy takes the place of the demo that is here. What was done in it waits under “Removed projects”; a demo that waits there already is deleted for good, to keep the room. A demo that was renamed or copied stays."
      keep="Keep this one"
      act="Open it afresh"
      onAct={onAct}
      onClose={onClose}
    />
  );
}
