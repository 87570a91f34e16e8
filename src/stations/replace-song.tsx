'use client';
import { AlertDialog } from 'radix-ui';

/** A sound that was brought in beside the song, and what is called with whether it takes the song's place. */
export type Replacing = { name: string; song: string; answer: (yes: boolean) => void };

/** Asks before a second sound takes the place of the song. */
export function ReplaceSong({ asked }: { asked: Replacing | null }) {
  return (
    <AlertDialog.Root open={asked !== null} onOpenChange={(open) => !open && asked?.answer(false)}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content className="fixed left-1/2 top-[14vh] z-50 flex max-h-[76vh] w-[min(480px,94vw)] -translate-x-1/2 flex-col border border-line bg-raised p-5 shadow-xl">
          <AlertDialog.Title className="text-[18px]">
            Lay {asked?.name} under the film in place of {asked?.song}?
          </AlertDialog.Title>
          <AlertDialog.Description className="my-2 text-ink2">
            Its beats are found anew; moments keep their bars. Undo brings the other song back.
          </AlertDialog.Description>
          <div className="mt-4 flex flex-wrap justify-end gap-2">
            <AlertDialog.Cancel className="knob">Keep {asked?.song}</AlertDialog.Cancel>
            <AlertDialog.Action className="knob main" onClick={() => asked?.answer(true)}>
              Lay it under
            </AlertDialog.Action>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
