'use client';
import { useMemo, useRef, useState } from 'react';
import type { Stretch } from '@/core/footage/action';
import { perSecond, type PartsBy, type PartsWanted } from '@/core/footage/parts';
import type { Take } from '@/core/model/records';
import { readClock } from '@/core/read-number';
import { formatClock } from '@/core/time/timecode';
import { partsKey, partsWanted } from '@/store/snapshot';
import { usesOfTake } from '@/store/space';
import { useData, useServices } from '@/ui/bench-context';
import { Chart, type ChartProps } from '@/ui/chart';
import { LiveChoice } from '@/ui/live-choice';
import { LiveNumber } from '@/ui/live-number';
import { Progress } from '@/ui/progress';
import { say } from '@/ui/say';
import { openMedia } from '@/workers/clients';
import { Empty, Station } from '../../station';
import { FilmPart } from '../film-part';
import { showSheet } from '../show-sheet';
import { bringParts } from './bring-parts';
import { usePicturesAt, useParts, type Long } from './use-parts';

const question = 'Which parts of it count?';
/** What tells parts, in words. */
const ways: Record<PartsBy, string> = { sound: 'music was playing', movement: 'something moves' };

/** How a take is divided as long as nothing else is said. */
const usual: PartsWanted = { pause: 1.5, by: 'sound', parts: null, left: [] };
/** a part that takes up this share of a take does not divide it */
const nearlyAll = 0.9;
/** seconds between points of the curves: what lies between them shows in neither */
const apart = 0.2;

const seconds = (value: number) => `${value.toFixed(1)} s`;

/** What was found, in a sentence. */
function saidOf({ parts, moves, times }: Long): string {
  const end = times[times.length - 1];
  const way =
    moves === 0
      ? ''
      : ` The camera was moved ${moves === 1 ? 'once' : `${moves} times`}; what it saw on its way is in no part.`;
  if (parts.length === 0) return 'Nothing moves in it for longer than a second.';
  if (parts.length === 1 && parts[0].until - parts[0].from > nearlyAll * end)
    return `It is one part: there is no such pause in it. Take a shorter one, or say yourself where it begins and ends.${way}`;
  return `${parts.length === 1 ? 'One part' : `${parts.length} parts`}, with a second before and after where there is room.${way}`;
}

/** The most of each stretch of values, at its seconds. */
function thinned(times: ArrayLike<number>, values: ArrayLike<number>): [number, number][] {
  const points: [number, number][] = [];
  for (let at = 0; at < times.length; at++) {
    const place = Math.floor(times[at] / apart);
    const last = points[points.length - 1];
    if (last && Math.floor(last[0] / apart) === place) last[1] = Math.max(last[1], values[at]);
    else points.push([times[at], values[at]]);
  }
  return points;
}

/** How much moves in a long take, and how loud it is, each against its most; the parts by their numbers. */
function chartOf({ times, moved, levels }: Long, parts: readonly Stretch[]): ChartProps {
  const share = (points: [number, number][]) => {
    const most = Math.max(1e-6, ...points.map(([, value]) => value));
    return points.map(([at, value]) => [at, value / most] as const);
  };
  const heardAt = Float64Array.from(levels ?? [], (_, at) => at / perSecond);
  return {
    label: 'How much moves in it, and how loud it is. A press goes to the part.',
    curves: [
      { name: 'Moves', dye: '--woad', points: share(thinned(times, moved)) },
      ...(levels ? [{ name: 'Loud', dye: '--madder', points: share(thinned(heardAt, levels)) }] : []),
    ],
    across: formatClock,
    down: (value) => `${Math.round(100 * value)} %`,
    height: 150,
    span: [0, 1],
    marks: parts.map(({ from }, index) => ({ at: from, text: String(index + 1) })),
  };
}

/** A long take, in which several were filmed one after the other, divided into parts that become takes of their own. */
export function Divide({ take, onBack }: { take: Take; onBack: () => void }) {
  const { store, attempt } = useServices();
  const project = useData((data) => data.snapshot.project.id);
  const wanted = useData((data) => partsWanted(data.snapshot, take)) ?? usual;
  const { pause, by } = wanted;
  const { long, share } = useParts(take, pause, by);
  /** Keeps what was set, so that a reload does not lose it. */
  const want = (set: Partial<PartsWanted>) =>
    attempt(() =>
      store.writeRows('measures', [
        {
          key: partsKey(take),
          project,
          subject: take.media,
          value: { method: 'parts', wanted: { ...wanted, ...set } },
        },
      ]),
    );
  /** What is told anew is as it is found. */
  const asFound = { parts: null, left: [] };
  return (
    <Station
      question={question}
      sub={take.name}
      tools={
        <button type="button" className="knob" onClick={onBack}>
          Back to the takes
        </button>
      }
    >
      {long ? (
        <div className="flex flex-col gap-4 px-5 py-4 phone:px-3">
          <p className="max-w-[68ch] text-[16px] leading-[1.9]">
            It is divided where{' '}
            {long.hasMusic ? (
              <LiveChoice
                label="What tells its parts"
                value={by}
                options={Object.entries(ways).map(([value, text]) => ({ value, text }))}
                onChange={(value) => want({ ...asFound, by: value as PartsBy })}
              />
            ) : (
              ways.movement
            )}
            , by pauses of at least{' '}
            <LiveNumber
              label="Seconds of a pause"
              value={pause}
              step={0.1}
              min={0.3}
              max={60}
              show={seconds}
              onChange={(next) => want({ ...asFound, pause: next })}
            />
            . {saidOf(long)}
          </p>
          <Parts take={take} long={long} wanted={wanted} onWant={want} onBack={onBack} />
        </div>
      ) : (
        <Empty title={share === null ? 'It is being measured' : 'It is listened to'}>
          <p>
            {share === null
              ? 'Its parts can be told once it is known what moves in it.'
              : 'What was playing while it was filmed tells where its parts begin and end.'}
          </p>
          {share !== null && <Progress label="Listening" share={share} />}
        </Empty>
      )}
    </Station>
  );
}

function Parts({
  take,
  long,
  wanted: { parts: set, left },
  onWant,
  onBack,
}: {
  take: Take;
  long: Long;
  wanted: PartsWanted;
  onWant: (set: Partial<PartsWanted>) => void;
  onBack: () => void;
}) {
  const { store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const end = long.times[long.times.length - 1];
  const parts = set ?? long.parts;
  const [chosen, choose] = useState(0);
  const [share, setShare] = useState<number | null>(null);
  const stop = useRef<() => void>(() => undefined);
  const middles = useMemo(() => parts.map(({ from, until }) => (from + until) / 2), [parts]);
  const found = usePicturesAt(take, long.times, middles);
  const chart = useMemo(
    (): ChartProps => ({
      ...chartOf(long, parts),
      onPick: (at) =>
        choose(
          Math.max(
            0,
            parts.findLastIndex(({ from }) => from <= at),
          ),
        ),
    }),
    [long, parts],
  );
  const change = (index: number, to: Partial<Stretch>) =>
    onWant({ parts: parts.map((part, at) => (at === index ? { ...part, ...to } : part)) });
  const counting = parts.flatMap((part, index) =>
    left.includes(index) ? [] : [{ ...part, number: index + 1 }],
  );
  const shown = parts[Math.min(chosen, parts.length - 1)];
  const isUsed = usesOfTake(snapshot, take).length > 0;
  const bring = () =>
    attempt(async () => {
      const media = openMedia();
      stop.current = media.end;
      setShare(0);
      try {
        const came = await bringParts(store, snapshot.project.id, take, isUsed, counting, media, setShare);
        const now =
          came === 0 ? 'No part is a take' : came === 1 ? 'One part is a take' : `${came} parts are takes`;
        if (came < counting.length)
          return say('known', `${now} now; the others are cut once you say so again.`);
        const rest = isUsed ? '' : ` ${take.name} is not used any more: take it out to free its room.`;
        say('done', `${now} now.${rest}`);
        onBack();
      } finally {
        media.end();
        setShare(null);
      }
    });
  return (
    <>
      <div className="flex flex-wrap gap-4">
        {shown && <FilmPart take={take} stretch={shown} play="Play this part" />}
        <div className="min-w-[260px] flex-1">
          <h2 className="font-semibold">
            <span className="text-woad">How much moves</span>
            {long.levels && (
              <>
                , and <span className="text-madder">how loud it is</span>
              </>
            )}
          </h2>
          <Chart {...chart} />
        </div>
      </div>
      <PartList
        parts={parts}
        end={end}
        left={left}
        chosen={chosen}
        pictures={found}
        onChoose={choose}
        onChange={change}
        onLeave={(index) =>
          onWant({ left: left.includes(index) ? left.filter((one) => one !== index) : [...left, index] })
        }
      />
      <div className="flex max-w-[520px] items-center gap-3">
        {share === null ? (
          <>
            {counting.length > 0 && (
              <button type="button" className="knob main" onClick={bring}>
                {counting.length === 1 ? 'Make it a take' : `Make these ${counting.length} takes`}
              </button>
            )}
            <button
              type="button"
              className="knob"
              onClick={() => onWant({ parts: [...parts, { from: parts.at(-1)?.until ?? 0, until: end }] })}
              disabled={(parts.at(-1)?.until ?? 0) > end - 0.5}
            >
              One more part
            </button>
          </>
        ) : (
          <>
            <Progress label="Cutting the parts" share={share} />
            <button type="button" className="knob" onClick={() => stop.current()}>
              Cancel
            </button>
          </>
        )}
      </div>
      <p className="max-w-[68ch] text-[13px] text-ink2">
        Each part becomes a file of its own, with the pictures and the sound just as they were recorded. It
        may begin up to a second or two earlier, with a picture that needs no other.
      </p>
    </>
  );
}

/** CSS pixels across of a part's picture */
const wide = 112;

/** The parts, one below the other. */
function PartList({
  parts,
  end,
  left,
  chosen,
  pictures,
  onChoose,
  onChange,
  onLeave,
}: {
  parts: readonly Stretch[];
  end: number;
  left: readonly number[];
  chosen: number;
  pictures: ReturnType<typeof usePicturesAt>;
  onChoose: (index: number) => void;
  onChange: (index: number, to: Partial<Stretch>) => void;
  onLeave: (index: number) => void;
}) {
  const blob = pictures?.pictures;
  const show = useMemo(() => (blob ? showSheet(blob) : undefined), [blob]);
  return (
    <div ref={show}>
      <ol aria-label="Parts" className="flex flex-col">
        {parts.map(({ from, until }, index) => {
          const gone = left.includes(index);
          const sheet = pictures && index < pictures.sheet.count ? pictures.sheet : null;
          const tall = sheet ? (wide * sheet.height) / sheet.width : 63;
          return (
            <li
              key={index}
              data-part={`${from.toFixed(1)} ${until.toFixed(1)}`}
              className={`flex items-center gap-x-4 border-b border-line py-2 ${gone ? 'opacity-50' : ''}`}
            >
              <button
                type="button"
                aria-label={`Show part ${index + 1}`}
                aria-pressed={index === chosen}
                className={`flex-none bg-stage ${index === chosen ? 'outline-2 outline-ink' : ''}`}
                style={{
                  width: wide,
                  height: tall,
                  ...(sheet
                    ? {
                        backgroundImage: 'var(--sheet)',
                        backgroundSize: sheet.columns * wide,
                        backgroundPosition: `${-(index % sheet.columns) * wide}px ${-Math.floor(index / sheet.columns) * tall}px`,
                      }
                    : {}),
                }}
                onClick={() => onChoose(index)}
              />
              <div className="min-w-0 flex-1 leading-[1.9]">
                <b>Part {index + 1}</b> from{' '}
                <LiveNumber
                  label={`Part ${index + 1} begins`}
                  value={from}
                  step={0.1}
                  min={0}
                  max={until - 0.5}
                  show={formatClock}
                  read={readClock}
                  onChange={(next) => onChange(index, { from: next })}
                />{' '}
                to{' '}
                <LiveNumber
                  label={`Part ${index + 1} ends`}
                  value={until}
                  step={0.1}
                  min={from + 0.5}
                  max={end}
                  show={formatClock}
                  read={readClock}
                  onChange={(next) => onChange(index, { until: next })}
                />
                , <span className="num whitespace-nowrap">{seconds(until - from)}</span>{' '}
                <button
                  type="button"
                  className="ml-2 text-ink2 underline underline-offset-2 hover:text-ink pointer-coarse:min-h-11"
                  aria-label={`${gone ? 'keep' : 'leave out'} part ${index + 1}`}
                  onClick={() => onLeave(index)}
                >
                  {gone ? 'keep' : 'leave out'}
                </button>
              </div>
            </li>
          );
        })}
      </ol>
    </div>
  );
}
