'use client';
import { useRef } from 'react';
import type { Moment } from '@/core/model/records';
import type { Recipe, Ruler } from '@/core/recipes/recipe';
import { soundsIn, type SoundEvent } from '@/core/recipes/sounds';
import { soundNames } from '@/core/sounds/sound';
import { layUsualSounds, setMoment } from '@/store/commands/moments';
import { removeTake } from '@/store/commands/takes';
import { soundName } from '@/store/sounds';
import { useData, useServices } from '@/ui/bench-context';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { say } from '@/ui/say';
import { Part } from '../station';

const silence = 'none';
const points = [
  { value: 'start', text: 'its start' },
  { value: 'loudest', text: 'its loudest point' },
  { value: 'end', text: 'its end' },
];
const ways = [
  { value: 'forwards', text: 'forwards' },
  { value: 'backwards', text: 'backwards' },
];
const ms = (value: number) => `${value} ms`;

/** What sounds at the instants of a moment, each in a sentence. */
export function MomentSounds({ moment, recipe, ruler }: { moment: Moment; recipe: Recipe; ruler: Ruler }) {
  const { store, attempt } = useServices();
  const picker = useRef<HTMLInputElement>(null);
  const own = useData((data) => data.snapshot.sounds);
  const events = soundsIn(moment, recipe, ruler);
  const missing = events.filter(({ usual, settings }) => usual && settings.sound === null);
  const bringIn = (files: File[]) =>
    attempt(async () => {
      const { importFiles } = await import('@/workers/import-files');
      for (const { outcome, message } of await importFiles(store, moment.project, files, { asSound: true }))
        say(outcome === 'problem' ? 'refused' : outcome === 'known' ? 'known' : 'done', message);
    });
  return (
    <Part title="What sounds">
      <ul className="flex flex-col gap-1.5 font-serif text-[15px] leading-[1.7]" data-testid="sounds">
        {events.map((event) => (
          <li key={event.anchor}>
            <SoundSentence moment={moment} event={event} />
          </li>
        ))}
      </ul>
      <div className="mt-2 flex flex-wrap gap-1.5">
        {missing.length > 0 && (
          <button
            type="button"
            className="knob"
            onClick={() => attempt(() => layUsualSounds(store, moment.project, moment.id, events))}
          >
            Lay the usual sounds
          </button>
        )}
        <button type="button" className="knob" onClick={() => picker.current?.click()}>
          Bring in a sound
        </button>
        <input
          ref={picker}
          type="file"
          multiple
          accept="audio/*"
          className="hidden"
          aria-label="Sounds to bring in"
          onChange={(event) => {
            const files = [...(event.target.files ?? [])];
            event.target.value = '';
            if (files.length > 0) void bringIn(files);
          }}
        />
      </div>
      {own.length > 0 && (
        <div className="mt-1.5 flex flex-wrap gap-1.5">
          {own.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              className="knob"
              onClick={() => attempt(() => removeTake(store, moment.project, id))}
            >
              Take {name} out of the project
            </button>
          ))}
        </div>
      )}
    </Part>
  );
}

/** The quantities of a sound: what they are, and between what they lie. */
const quantities = {
  lead: { title: 'Lead', step: 10, min: 0, max: 5000, show: ms },
  level: { title: 'Level', step: 1, min: -60, max: 12, show: (value: number) => `${value} dB` },
  swell: { title: 'Swell', step: 10, min: 0, max: 10_000, show: ms },
  fade: { title: 'Fade', step: 10, min: 0, max: 10_000, show: ms },
};

function SoundSentence({ moment, event }: { moment: Moment; event: SoundEvent }) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const { anchor, title, frame, settings } = event;
  const { sound, by, backwards } = settings;
  const of = (what: string) => `${what} at “${title}”`;
  const set = (label: string, field: string, value: unknown) =>
    attempt(() =>
      setMoment(store, moment.project, moment.id, label, { [`sounds.${anchor}.${field}`]: value }),
    );
  const own = snapshot.sounds.map(({ id }) => id);
  const known = [...soundNames, ...own];
  const gone = sound !== null && !known.includes(sound) ? [sound] : [];
  const options = [silence, ...known, ...gone].map((value) => ({
    value,
    text: value === silence ? 'no sound' : soundName(snapshot, value).toLowerCase(),
  }));
  const quantity = (field: keyof typeof quantities) => {
    const { title: what, ...range } = quantities[field];
    return (
      <LiveNumber
        label={of(`${what} of the sound`)}
        value={settings[field]}
        {...range}
        onChange={(value) => set(`${what} of a sound`, field, value)}
      />
    );
  };
  return (
    <>
      {title} frame {frame}:{' '}
      <LiveChoice
        label={of('Sound')}
        value={sound ?? silence}
        options={options}
        onChange={(value) => set('Choose a sound', 'sound', value === silence ? null : value)}
      />
      {sound !== null && (
        <>
          {', '}
          <LiveChoice
            label={of('What of the sound is')}
            value={by}
            options={points}
            onChange={(value) => set('Where a sound lies', 'by', value)}
          />{' '}
          there, {quantity('lead')} early, at {quantity('level')},{' '}
          <LiveChoice
            label={of('Way of the sound')}
            value={backwards ? 'backwards' : 'forwards'}
            options={ways}
            onChange={(value) => set('Way of a sound', 'backwards', value === 'backwards')}
          />
          , swelling over {quantity('swell')} and fading over {quantity('fade')}.
        </>
      )}
    </>
  );
}
