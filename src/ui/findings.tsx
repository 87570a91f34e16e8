'use client';
import { byGravity, type Finding } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import { applyFix } from '@/store/commands/fix';
import { useBench } from './bench-context';

const dye = { stop: 'var(--madder)', fix: 'var(--saffron)', watch: 'var(--weld)', fine: 'var(--verdigris)' };
const mark = { stop: 'Stop', fix: 'Fix', watch: 'Watch', fine: 'Fine' };

/** What was found, gravest first, each with what to do. */
export function Findings({ findings }: { findings: readonly Finding[] }) {
  return (
    <ul className="flex flex-col gap-2">
      {byGravity(findings).map((finding, index) => (
        <FindingNote key={`${finding.code}${JSON.stringify(finding.where)}${index}`} finding={finding} />
      ))}
    </ul>
  );
}

function FindingNote({ finding }: { finding: Finding }) {
  const { store, snapshot, names, attempt } = useBench();
  const { text, fix } = sayFinding(finding, names);
  return (
    <li
      data-finding={finding.code}
      data-severity={finding.severity}
      className="border-l-4 bg-ground px-2.5 py-1.5 text-[12.5px]"
      style={{ borderColor: dye[finding.severity] }}
    >
      <span className="sr-only">{mark[finding.severity]}: </span>
      {text}{' '}
      {fix && finding.fix && (
        <button
          type="button"
          className="font-semibold underline underline-offset-2 pointer-coarse:min-h-11"
          onClick={() =>
            attempt(() => applyFix(store, snapshot.project.id, finding.fix as NonNullable<Finding['fix']>))
          }
        >
          {fix}
        </button>
      )}
    </li>
  );
}

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
