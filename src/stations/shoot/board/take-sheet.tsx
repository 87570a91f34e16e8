'use client';
import { useState } from 'react';
import { logTags, longestNote, longestVariation, ratings, type Log } from '@/core/model/shoot-records';
import { takeLabel, type BoardRow } from '@/core/shoot/board';
import { sayFinding } from '@/core/finding/say';
import { noteLog, rateLog, removeLog, removePickup, tagLog, varyLog } from '@/store/commands/shoot';
import { useData, useServices } from '@/ui/bench-context';
import { useTyped } from '@/ui/use-typed';
import { Longest } from '@/ui/longest';
import { Choices } from '@/ui/choices';
import { ratingWords, sayLengthOfTake, sayTimeOfDay } from '../words';
import { Dictate } from './dictate';

/** Everything about one shot's takes: rating, variation, what went wrong, notes. */
export function TakeSheet({ row }: { row: BoardRow }) {
  const { store, attempt } = useServices();
  const projectId = useData((data) => data.snapshot.project.id);
  const [open, setOpen] = useState<string | null>(null);
  const latest = row.logs.at(-1)?.id ?? null;
  const shown = row.logs.find(({ id }) => id === (open ?? latest)) ?? row.logs.at(-1) ?? null;
  return (
    <section className="flex flex-col gap-3" aria-label={`Takes of ${row.title}`}>
      <div>
        <h2 className="text-[18px] font-[560]">{row.title}</h2>
        <p className="text-[14px] text-ink2">{row.note}</p>
        {row.pickup && (
          <button
            type="button"
            className="knob mt-2"
            onClick={() => attempt(() => removePickup(store, projectId, row.pickup?.id ?? ''))}
          >
            Not needed after all
          </button>
        )}
      </div>
      {row.logs.length === 0 && (
        <p className="text-[14px]">No take yet. The large button begins the first one.</p>
      )}
      {row.logs.length > 0 && (
        <div className="flex flex-wrap gap-2" role="group" aria-label="Takes">
          {row.logs.map((log) => (
            <button
              key={log.id}
              type="button"
              className="knob num"
              aria-pressed={log === shown}
              aria-label={`Take ${takeLabel(log, row.logs)}${log.rating ? `, ${log.rating}` : ''}`}
              onClick={() => setOpen(log.id)}
            >
              <span
                className="mr-1.5 inline-block size-2.5 rounded-full align-baseline"
                style={{
                  background: log.rating ? ratingWords[log.rating].dye : 'transparent',
                  boxShadow: 'inset 0 0 0 1.5px currentColor',
                }}
              />
              {takeLabel(log, row.logs)}
            </button>
          ))}
        </div>
      )}
      {shown && <TakeDetail key={shown.id} log={shown} row={row} />}
    </section>
  );
}

function TakeDetail({ log, row }: { log: Log; row: BoardRow }) {
  const { store, attempt } = useServices();
  const names = useData((data) => data.names);
  const [own, setOwn] = useState('');
  const notes = useTyped(log.notes, (text) => attempt(() => noteLog(store, log, text)));
  const offered = [
    ...new Set([...row.variations.map(({ name }) => name), 'closer', 'further', 'straighter', 'lower']),
  ];
  const chosen = log.variation && !offered.includes(log.variation) ? [...offered, log.variation] : offered;
  const words = (code: string, value: number | null, at: number) =>
    sayFinding(
      {
        code,
        severity: 'watch',
        where: { from: at },
        ...(value === null ? {} : { measured: { value, unit: unitOf[code] ?? 'share' } }),
        facts: { seam: 'the join' },
      },
      names,
    ).text.split(' (allowed')[0];
  return (
    <div className="flex flex-col gap-3">
      <p className="text-[14px]">
        {sayTimeOfDay(log.started)}
        {log.length === null ? ', still running' : `, ${sayLengthOfTake(log.length)} long`}
        {log.take ? ', file in the project' : ', no file yet'}
        {log.draft ? ', a draft: settings were not held' : ''}.
      </p>
      {log.seen.length > 0 && (
        <ul className="border-l-4 border-saffron pl-2.5 text-[13.5px]" aria-label="What the watch saw">
          {log.seen.map(({ at, code, value }, index) => (
            <li key={index} data-seen={code}>
              {words(code, value, at)}
            </li>
          ))}
        </ul>
      )}
      <Choices
        label="Rating"
        options={ratings.map((id) => ({ id, text: ratingWords[id].text }))}
        pressed={(rating) => log.rating === rating}
        onPress={(rating) => attempt(() => rateLog(store, log, rating))}
      />
      <Choices
        label="What went wrong"
        options={logTags}
        pressed={(tag) => Boolean(log.tags[tag])}
        onPress={(tag) => attempt(() => tagLog(store, log, tag))}
      />
      <div className="flex flex-wrap items-center gap-2">
        <Choices
          label="Variation"
          options={chosen}
          pressed={(variation) => log.variation === variation}
          onPress={(variation) => attempt(() => varyLog(store, log, variation))}
        />
        <input
          aria-label="Variation in your own words"
          placeholder="own words"
          className="min-h-11 w-36 border-b-2 border-line bg-transparent px-1 text-[14px] placeholder:text-ink2"
          value={own}
          maxLength={longestVariation}
          onChange={(event) => setOwn(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter' || own.trim() === '') return;
            void attempt(() => varyLog(store, log, own.trim()));
            setOwn('');
          }}
        />
        {own.length >= longestVariation && <Longest most={longestVariation} />}
      </div>
      <textarea
        aria-label="Notes"
        placeholder="Notes"
        rows={2}
        maxLength={longestNote}
        className="min-h-11 w-full border border-line bg-ground p-2 text-[14px] placeholder:text-ink2"
        value={notes.text}
        onChange={(event) => notes.type(event.target.value)}
        onBlur={notes.flush}
      />
      {notes.text.length >= longestNote && <Longest most={longestNote} />}
      <div className="flex flex-wrap gap-2">
        <Dictate
          onWords={(text) => {
            notes.type([notes.text, text].filter(Boolean).join(' '));
            notes.flush();
          }}
        />
        {log.length !== null && (
          <button type="button" className="knob" onClick={() => attempt(() => removeLog(store, log))}>
            Remove this take
          </button>
        )}
      </div>
    </div>
  );
}

const unitOf: Record<string, 'px' | 'stops' | 'deltaE' | 'share'> = {
  'watch.moved': 'px',
  'watch.light': 'stops',
  'watch.colour': 'deltaE',
};
