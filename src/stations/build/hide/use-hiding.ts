import { useState } from 'react';

/** Who is tapped next: somebody anew, or again somebody who is hidden in a take. */
export type Wanted = { is: 'anew' } | { is: 'again'; take: string; id: string };

export type Hiding = {
  /** null where the picture is not tapped to hide somebody */
  wanted: Wanted | null;
  /** a face is being looked for */
  looking: boolean;
  /** what came of the last tap */
  said: string | null;
  want: (wanted: Wanted | null) => void;
  look: () => void;
  say: (said: string) => void;
  /** a tap is over: somebody anew is hidden, and somebody who is tapped again may be so on the next picture */
  done: (said: string) => void;
};

/** Hiding people by taps on the stage, which is asked for beside it. */
export function useHiding(): Hiding {
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [looking, setLooking] = useState(false);
  const [said, say] = useState<string | null>(null);
  return {
    wanted,
    looking,
    said,
    want: (next) => {
      setWanted(next);
      say(null);
    },
    look: () => setLooking(true),
    say,
    done: (text) => {
      setLooking(false);
      setWanted((now) => (now?.is === 'again' ? now : null));
      say(text);
    },
  };
}
