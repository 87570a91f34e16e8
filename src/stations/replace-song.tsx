'use client';
import { Confirm } from '@/ui/confirm';

/** A sound that was brought in beside the song, and what is called with whether it takes the song's place. */
export type Replacing = { name: string; song: string; answer: (yes: boolean) => void };

/** Asks before a second sound takes the place of the song. */
export const ReplaceSong = ({ open, asked }: { open: boolean; asked: Replacing | null }) => (
  <Confirm
    open={open}
    title={`Lay ${asked?.name} under the film in place of ${asked?.song}?`}
    text="Its beats are found anew; moments stay where they are in time."
    keep="Keep the song"
    act="Lay it under"
    onAct={() => asked?.answer(true)}
    onClose={() => asked?.answer(false)}
  />
);
