'use client';
import { Check, ChevronDown } from 'lucide-react';
import { memo } from 'react';
import { byGravity, type Finding, type Severity } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import { applyFix } from '@/store/commands/fix';
import { useData, useServices } from './bench-context';
import { GravityMark, Remark } from './remark';

/** What is said alike of several takes but for its numbers. */
const kindOf = ({ code, severity, facts = {} }: Finding): string =>
  [code, severity, ...Object.values(facts).filter((fact) => typeof fact === 'string')].join(' ');

/** What was found: what needs doing first, gravest first, each with what to do; what is fine in one line. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  const projectId = useData((data) => data.snapshot.project.id);
  const names = useData((data) => data.names);
  const notes = byGravity(findings).map((finding, index) => ({
    key: `${finding.code}${JSON.stringify(finding.where)}${index}`,
    ...sayFinding(finding, names),
    code: finding.code,
    severity: finding.severity,
    project: projectId,
    mending: JSON.stringify(finding.fix),
    kind: kindOf(finding),
  }));
  const fine = notes.filter(({ severity }) => severity === 'fine');
  const folded = fine.length > 1 || fine.length < notes.length ? fine : [];
  const shown = notes.filter((note) => !folded.includes(note));
  return (
    <div className="flex flex-col gap-2">
      {shown.length > 0 && <NoteList notes={shown} />}
      {folded.length > 0 && (
        <details className="text-[12.5px]" data-fine={folded.length}>
          <summary className="flex cursor-pointer list-none items-center gap-1.5 py-0.5 text-verdigris pointer-coarse:min-h-11 [&::-webkit-details-marker]:hidden">
            <Check size={13} strokeWidth={2.4} aria-hidden />
            <b>{folded.length === 1 ? '1 thing is fine' : `${folded.length} things are fine`}</b>
            <ChevronDown size={13} aria-hidden />
          </summary>
          <div className="pt-1.5">
            <NoteList notes={folded} />
          </div>
        </details>
      )}
    </div>
  );
}

type Note = Parameters<typeof FindingNote>[0] & { key: string; kind: string };

/** what is found alike of more takes than this is said of the first two, and of the others on asking */
const mostAlike = 3;

function NoteList({ notes }: { notes: readonly Note[] }) {
  return (
    <ul className="flex flex-col gap-2">
      {notes.map(({ key, kind, ...note }) => {
        const group = notes.filter((one) => one.kind === kind);
        const place = group.length > mostAlike ? group.findIndex((one) => one.key === key) : 0;
        if (place > 2) return null;
        if (place < 2) return <FindingNote key={key} {...note} />;
        return <AlikeNotes key={kind} notes={group.slice(2)} />;
      })}
    </ul>
  );
}

/** Notes that say the same of other takes, folded. */
const AlikeNotes = ({ notes }: { notes: readonly Note[] }) => (
  <li className="text-[12.5px]">
    <details>
      <summary className="flex cursor-pointer list-none items-center gap-1.5 py-0.5 text-ink2 pointer-coarse:min-h-11 [&::-webkit-details-marker]:hidden">
        <GravityMark severity={notes[0].severity} />
        <b>{notes.length} more like it</b>
        <ChevronDown size={13} aria-hidden />
      </summary>
      <ul className="flex flex-col gap-2 pt-1.5">
        {notes.map(({ key, ...note }) => (
          <FindingNote key={key} {...note} />
        ))}
      </ul>
    </details>
  </li>
);

/** One finding in words. Notes are many and found again with every change: most say what they said. */
const FindingNote = memo(function FindingNote({
  code,
  severity,
  text,
  fix,
  project,
  mending,
}: {
  code: string;
  severity: Severity;
  text: string;
  /** what mending it is called; null where nothing mends it */
  fix: string | null;
  project: string;
  /** the finding's fix as text */
  mending: string | undefined;
}) {
  const { store, attempt } = useServices();
  return (
    <Remark severity={severity} code={code} text={text}>
      {fix && mending && (
        <button
          type="button"
          className="font-semibold underline underline-offset-2 pointer-coarse:min-h-11"
          onClick={() =>
            attempt(() => applyFix(store, project, JSON.parse(mending) as NonNullable<Finding['fix']>))
          }
        >
          {fix}
        </button>
      )}
    </Remark>
  );
});

/** A number with its name. Pressing it copies it. */
export function Reading({ name, value, hint }: { name: string; value: string; hint?: string }) {
  return (
    <div className="row" title={hint}>
      <span>{name}</span>
      <button
        type="button"
        className="num text-right hover:bg-sunk"
        aria-label={`${name}: ${value}. Copy`}
        onClick={() => void navigator.clipboard?.writeText(value)}
      >
        {value}
      </button>
    </div>
  );
}
