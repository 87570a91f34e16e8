'use client';
import { useRef } from 'react';
import { apartAtEnd, type FieldRecording } from '@/core/footage/field-recorder';
import { formatClock } from '@/core/time/timecode';
import type { Alignment } from '@/core/footage/align-sound';
import { useData, useServices } from '@/ui/bench-context';
import { Progress } from '@/ui/progress';
import { Empty, Station, type Parts } from '../../station';
import { useRecordings } from './use-recordings';

const inWords = new Intl.ListFormat('en');
const names = (takes: readonly { name: string }[]) => inWords.format(takes.map(({ name }) => name));

/** How a recorder's clock runs beside a take's, in words. */
function sayClock(alignment: Alignment, seconds: number): string {
  const apart = 1000 * apartAtEnd(alignment, seconds);
  // Three parts in a million are less than is measured of a take.
  if (Math.abs(alignment.drift) < 3) return 'together with it';
  const way = alignment.drift > 0 ? 'fast' : 'slow';
  return `${Math.abs(alignment.drift).toFixed(0)} parts in a million ${way}, ${Math.abs(apart).toFixed(1)} ms by its end`;
}

/** Where the takes lie on what a recorder beside the camera has heard. */
export function Recordings<Id extends string>({ question, parts }: { question: string; parts: Parts<Id> }) {
  const { attempt } = useServices();
  const { takes, recordings, doing, cancel, listen, save, fileOf, forget } = useRecordings();
  const picker = useRef<HTMLInputElement>(null);
  const choose = () => picker.current?.click();
  const again = (id: string) => {
    const file = fileOf(id);
    if (file) void attempt(() => listen([file]));
    else choose();
  };
  const tools = (
    <>
      <input
        ref={picker}
        type="file"
        multiple
        className="hidden"
        accept="audio/*,video/*,.wav,.flac,.mp3,.m4a,.ogg,.opus"
        aria-label="Files of a recorder"
        onChange={({ target }) => {
          const files = [...(target.files ?? [])];
          target.value = '';
          void attempt(() => listen(files));
        }}
      />
      {takes.length > 0 && recordings.length > 0 && (
        <button type="button" className="knob" onClick={choose} disabled={doing !== null}>
          Choose a recorder’s files
        </button>
      )}
    </>
  );
  const running = doing && (
    <div className="flex max-w-[520px] items-center gap-3">
      <span className="text-ink2">{doing.what}</span>
      <Progress label={doing.what} share={doing.share} />
      <button type="button" className="knob" onClick={cancel}>
        Cancel
      </button>
    </div>
  );
  if (takes.length === 0)
    return (
      <Station question={question} parts={parts}>
        <Empty title="No take has sound of its own">
          <p>
            Where a take lies on a recording is told by what both have heard. Film with sound, however poor it
            is, and bring that take in.
          </p>
        </Empty>
      </Station>
    );
  if (recordings.length === 0)
    return (
      <Station question={question} parts={parts} tools={tools}>
        <Empty title="A recorder ran beside the camera?">
          <p>
            Choose its files, of up to two hours each. Where each take lies on them is told by what both have
            heard, to the sample, with how far their clocks drift apart. The files themselves are not kept.
          </p>
          {running ?? (
            <button type="button" className="knob main" onClick={choose}>
              Choose a recorder’s files
            </button>
          )}
        </Empty>
      </Station>
    );
  return (
    <Station question={question} parts={parts} tools={tools}>
      <div className="flex flex-col gap-6 px-5 py-4 phone:px-3">
        {running}
        {recordings.map((one) => (
          <OneRecording
            key={one.id}
            {...one}
            busy={doing !== null}
            onListen={() => again(one.id)}
            onSave={() => (one.isHere ? void attempt(() => save(one.id)) : choose())}
            onForget={() => void attempt(() => forget(one.id))}
          />
        ))}
      </div>
    </Station>
  );
}

type Heard = ReturnType<typeof useRecordings>['recordings'][number];

function OneRecording({
  recording,
  isHere,
  laid,
  unheard,
  open,
  busy,
  onListen,
  onSave,
  onForget,
}: Heard & { busy: boolean; onListen: () => void; onSave: () => void; onForget: () => void }) {
  return (
    <section aria-label={recording.name} className="flex max-w-[820px] flex-col gap-2">
      <h2 className="font-semibold">
        {recording.name} <span className="num font-normal text-ink2">{formatClock(recording.seconds)}</span>
      </h2>
      <p className="max-w-[68ch] text-[15px]">{saidOf(recording, laid.length, unheard)}</p>
      {laid.length > 0 && (
        <>
          <Line seconds={recording.seconds} laid={laid} />
          <WhereTheyLie laid={laid} />
        </>
      )}
      <div className="flex flex-wrap gap-2">
        {laid.length > 0 && (
          <button type="button" className="knob main" onClick={onSave} disabled={busy}>
            {isHere
              ? `Save its sound for ${laid.length === 1 ? 'this take' : `these ${laid.length} takes`}`
              : `Choose ${recording.name} again to save its sound`}
          </button>
        )}
        {open.length > 0 && (
          <button type="button" className="knob" onClick={onListen} disabled={busy}>
            Look for {open.length === 1 ? open[0].name : `the ${open.length} takes that came since`}
          </button>
        )}
        <button type="button" className="knob" onClick={onForget} disabled={busy}>
          Take it off this list
        </button>
      </div>
    </section>
  );
}

const whyUnheard = 'either it did not run then, or one of both has heard too little';

/** What a recording has heard, in words. */
function saidOf({ heard }: FieldRecording, laid: number, unheard: readonly { name: string }[]): string {
  if (laid === 0)
    return Object.keys(heard).length === 0
      ? 'No take was held against it.'
      : `No take is heard in it: ${whyUnheard}.`;
  const rest = unheard.length > 0 ? ` Not heard in it: ${names(unheard)}; ${whyUnheard}.` : '';
  return `What it heard lies under ${laid === 1 ? 'one take' : `${laid} takes`}: each sound that is saved begins with its take’s first picture and keeps to its clock.${rest}`;
}

/** CSS pixels of a take's height on the line */
const tall = 28;

/** The whole recording from left to right, with the takes where they lie on it; those of other cameras above one another. */
function Line({ seconds, laid }: Pick<Heard, 'laid'> & { seconds: number }) {
  const media = useData((data) => data.snapshot.media);
  const share = (at: number) => `${(100 * at) / seconds}%`;
  const ends: number[] = [];
  const rows = [...laid]
    .sort((one, other) => one.alignment.offset - other.alignment.offset)
    .map(({ take, alignment: { offset } }) => {
      const lasts = media.get(take.media)?.probe?.duration ?? 0;
      const free = ends.findIndex((end) => end <= offset);
      const row = free < 0 ? ends.length : free;
      ends[row] = offset + lasts;
      return { take, offset, lasts, row };
    });
  return (
    <div
      aria-hidden
      className="relative overflow-hidden border-b-2 border-dotted border-ink2"
      style={{ height: ends.length * (tall + 2) + 8 }}
    >
      {rows.map(({ take, offset, lasts, row }) => (
        <span
          key={take.id}
          className="absolute overflow-hidden border-l-2 border-woad bg-sunk px-1.5 text-[12px] leading-7 whitespace-nowrap"
          style={{ left: share(offset), width: share(lasts), height: tall, bottom: row * (tall + 2) }}
        >
          {take.name}
        </span>
      ))}
    </div>
  );
}

/** Where each take lies. */
function WhereTheyLie({ laid }: Pick<Heard, 'laid'>) {
  const media = useData((data) => data.snapshot.media);
  return (
    <div className="overflow-x-auto" tabIndex={0} role="region" aria-label="Where the takes lie on it">
      <table className="thread-table w-full">
        <thead>
          <tr>
            <th scope="col">Take</th>
            <th scope="col">Begins at</th>
            <th scope="col">Its clock runs</th>
          </tr>
        </thead>
        <tbody>
          {laid.map(({ take, alignment }) => (
            <tr key={take.id}>
              <td className="font-sans">{take.name}</td>
              <td className="num whitespace-nowrap">{alignment.offset.toFixed(4)} s</td>
              <td className="font-sans !whitespace-normal">
                {sayClock(alignment, media.get(take.media)?.probe?.duration ?? 0)}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}
