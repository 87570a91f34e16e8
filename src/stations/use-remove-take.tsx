'use client';
import { useState, type ReactNode } from 'react';
import type { Take } from '@/core/model/records';
import { removeTake } from '@/store/commands/takes';
import { usesOfTake } from '@/store/space';
import { useData, useServices } from '@/ui/bench-context';
import { Confirm } from '@/ui/confirm';
import { say } from '@/ui/say';

/**
 * Takes a take out of the project. Where something uses it, says what first.
 * @returns what begins it, and what asks, to be placed anywhere
 */
export function useRemoveTake(take: Take): { remove: () => void; asking: ReactNode } {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const [asked, setAsked] = useState(false);
  const uses = usesOfTake(snapshot, take);
  const act = () =>
    void attempt(async () => {
      await removeTake(store, snapshot.project.id, take.id);
      say('known', `${take.name} is out. Undo brings it back; its room is freed under Space.`);
    });
  return {
    remove: () => (uses.length > 0 ? setAsked(true) : act()),
    asking: (
      <Confirm
        open={asked}
        title={`Take ${take.name} out?`}
        text={`It is used: ${uses.join(', ')}. What used it then lacks it. It waits under Space until it is deleted for good; undo brings it back.`}
        keep="Keep it"
        act="Take it out"
        onAct={act}
        onClose={() => setAsked(false)}
      />
    ),
  };
}
