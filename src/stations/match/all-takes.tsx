'use client';
import { Search } from 'lucide-react';
import { useDeferredValue, useMemo, useState } from 'react';
import { byGravity, type Finding } from '@/core/finding/finding';
import {
  sheetFilters,
  sheetOf,
  sheetOrders,
  type SheetOrder,
  type SheetRow,
} from '@/core/footage/contact-sheet';
import type { Take } from '@/core/model/records';
import { setTakes } from '@/store/commands/takes';
import { comparisonOf, takeMeasure, type Snapshot } from '@/store/snapshot';
import { useData, useServices } from '@/ui/bench-context';
import { Findings } from '@/ui/findings';
import { LiveChoice } from '@/ui/live-choice';
import { useGrowing } from '@/ui/use-growing';
import { Part, Station, type Parts } from '../station';
import { slotOptions, Swatch } from './swatch';
import { plateHere, verdict } from './verdict';

const optionsOf = (texts: Record<string, string>) =>
  Object.entries(texts).map(([value, text]) => ({ value, text }));

/** What the sheet knows of a take. */
function rowOf(snapshot: Snapshot, take: Take, about: readonly Finding[]): SheetRow {
  const measure = takeMeasure(snapshot, take);
  const comparison = comparisonOf(snapshot, take, plateHere(snapshot, null, take));
  const factor = measure ? snapshot.project.width / measure.size.width : 1;
  return {
    id: take.id,
    name: take.name,
    slot: take.slot,
    order: take.order,
    seconds: measure?.times.last ?? null,
    move: comparison ? comparison.path.furthest.move * factor : null,
    stops: comparison?.colour?.stops ?? null,
    moves: measure?.motion?.share ?? null,
    sound: !!snapshot.media.get(take.media)?.probe?.audio,
    worst: byGravity(about)[0]?.severity ?? null,
  };
}

/** All takes as a contact sheet: searched, filtered and put in order by what was measured, and sorted many at once. */
export function AllTakes<Id extends string>({ question, parts }: { question: string; parts: Parts<Id> }) {
  const { openFiles, store, attempt } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const findings = useData((data) => data.findings.match);
  const [text, setText] = useState('');
  const [filter, setFilter] = useState('all');
  const [by, setBy] = useState<SheetOrder>('order');
  const asked = useDeferredValue(text);
  const rows = useMemo(() => {
    const about = new Map<string, Finding[]>();
    for (const finding of findings) {
      const { take } = finding.where;
      if (take) about.set(take, [...(about.get(take) ?? []), finding]);
    }
    return snapshot.takes.map((take) => rowOf(snapshot, take, about.get(take.id) ?? []));
  }, [snapshot, findings]);
  const shown = useMemo(() => sheetOf(rows, { text: asked, filter, by }), [rows, asked, filter, by]);
  const drawn = useGrowing(shown.length, 24);
  const takes = new Map(snapshot.takes.map((take) => [take.id, take]));
  const ids = new Set(shown.map(({ id }) => id));
  const about = findings.filter(({ where }) => where.take !== undefined && ids.has(where.take));
  return (
    <Station
      question={question}
      parts={parts}
      sub={`${shown.length === rows.length ? '' : `${shown.length} of `}${rows.length} takes`}
      tools={
        <button type="button" className="knob" onClick={openFiles}>
          Bring in takes
        </button>
      }
      side={
        <Part title="What was found about these">
          {about.length > 0 ? <Findings findings={about} /> : <p className="text-ink2">Nothing so far.</p>}
        </Part>
      }
    >
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-5 py-3 phone:px-3">
        <label className="flex min-w-[180px] flex-1 items-center gap-2 bg-raised px-2.5 py-1.5">
          <Search size={15} strokeWidth={2.2} aria-hidden />
          <input
            type="search"
            aria-label="Words in a take’s name"
            placeholder="Words in its name"
            className="min-w-0 flex-1 bg-transparent outline-none"
            value={text}
            onChange={({ target }) => setText(target.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
        </label>
        <p className="leading-[1.9]">
          Show{' '}
          <LiveChoice
            label="Which takes"
            value={filter}
            options={[...optionsOf(sheetFilters), ...slotOptions]}
            onChange={setFilter}
          />
          ,{' '}
          <LiveChoice
            label="In which order"
            value={by}
            options={optionsOf(sheetOrders)}
            onChange={(value) => setBy(value as SheetOrder)}
          />
          .
          {shown.length > 1 && shown.length < rows.length && (
            <>
              {' '}
              All {shown.length} of them are{' '}
              <LiveChoice
                label="What all of these are"
                value=""
                empty="choose"
                options={slotOptions}
                onChange={(slot) =>
                  attempt(() =>
                    setTakes(
                      store,
                      snapshot.project.id,
                      shown.map(({ id }) => id),
                      slot,
                    ),
                  )
                }
              />
              .
            </>
          )}
        </p>
      </div>
      {shown.length === 0 ? (
        <p className="px-5 py-6 text-ink2 phone:px-3">
          No take is like that. Take words away, or show all takes.
        </p>
      ) : (
        <div
          role="group"
          aria-label="Contact sheet"
          data-sheet={shown.length}
          className="grid grid-cols-[repeat(auto-fill,minmax(184px,1fr))] gap-x-3.5 gap-y-4 px-5 py-4 phone:grid-cols-2 phone:px-3"
        >
          {shown.slice(0, drawn).map(({ id }) => {
            const take = takes.get(id);
            return (
              take && (
                <div key={id} className="[contain-intrinsic-size:auto_170px] [content-visibility:auto]">
                  <Swatch take={take} verdict={verdict(snapshot, null, take)} />
                </div>
              )
            );
          })}
        </div>
      )}
    </Station>
  );
}
