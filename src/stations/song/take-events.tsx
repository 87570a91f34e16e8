'use client';
import { useState } from 'react';
import type { SoundEvent } from '@/core/song/events';
import { layEvents } from '@/store/commands/song';
import { callback, openMedia } from '@/workers/clients';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Part } from '../station';

const kinds = { hit: 'snaps and hits', end: 'ends of words', both: 'snaps, hits and ends of words' };

/** Without a song, instants in a take's own sound can be counted as beats. */
export function TakeEvents() {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const sounding = snapshot.takes.filter((take) => snapshot.media.get(take.media)?.probe?.audio);
  const [chosen, setChosen] = useState<string | null>(null);
  const [kind, setKind] = useState<keyof typeof kinds>('both');
  const [least, setLeast] = useState(40);
  const [found, setFound] = useState<{ take: string; events: SoundEvent[] } | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const take = sounding.find((one) => one.id === chosen) ?? sounding[0];
  if (!take) {
    return (
      <Part title="Events in a take">
        <p className="text-ink2">
          No take has sound. Bring one in that does, and its snaps, hits and words can be counted.
        </p>
      </Part>
    );
  }
  const events = found?.take === take.id ? found.events : null;
  const meant = (events ?? []).filter(
    (event) => (kind === 'both' || event.kind === kind) && event.strength * 100 >= least,
  );
  const listen = async () => {
    const original = await store.originals.get(take.media);
    if (!original)
      throw { code: 'absent', message: 'The file is no longer in this browser. Bring it in again.' };
    const worker = openMedia();
    setShare(0);
    try {
      const events = await worker.api.takeEvents(original.blob, callback(setShare));
      setFound({ take: take.id, events });
    } finally {
      worker.end();
      setShare(null);
    }
  };
  return (
    <Part title="Events in a take">
      <p className="leading-[1.9]">
        In the sound of{' '}
        <LiveChoice
          label="Take with the sound"
          value={take.id}
          options={sounding.map((one) => ({ value: one.id, text: one.name }))}
          onChange={setChosen}
        />
        , count{' '}
        <LiveChoice
          label="Kind of event"
          value={kind}
          options={Object.entries(kinds).map(([value, text]) => ({ value, text }))}
          onChange={(value) => setKind(value as keyof typeof kinds)}
        />{' '}
        from{' '}
        <LiveNumber
          label="Least strength"
          value={least}
          step={5}
          min={0}
          max={100}
          show={(value) => `${value} %`}
          onChange={setLeast}
        />{' '}
        of full strength.
      </p>
      <div className="flex flex-wrap items-center gap-1.5">
        <button type="button" className="knob" disabled={share !== null} onClick={() => attempt(listen)}>
          {share === null ? 'Listen for them' : `Listening, ${Math.round(share * 100)} %`}
        </button>
        {events && (
          <button
            type="button"
            className="knob"
            disabled={meant.length < 2}
            onClick={() =>
              attempt(() =>
                layEvents(
                  store,
                  snapshot.project.id,
                  meant.map(({ time }) => time),
                ),
              )
            }
          >
            Count these {meant.length}
          </button>
        )}
      </div>
    </Part>
  );
}
