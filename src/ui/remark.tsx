import { Check, Eye, OctagonX, Wrench } from 'lucide-react';
import type { ReactNode } from 'react';
import type { Severity } from '@/core/finding/finding';

const dye = { stop: 'var(--madder)', fix: 'var(--saffron)', watch: 'var(--weld)', fine: 'var(--verdigris)' };
/** A shape for each, for those who do not see the colours. */
const shapes = { stop: OctagonX, fix: Wrench, watch: Eye, fine: Check };
const words = { stop: 'Stop', fix: 'Fix', watch: 'Watch', fine: 'Fine' };

/** How grave something is, as its shape and its dye. */
export function GravityMark({ severity, said = words[severity] }: { severity: Severity; said?: string }) {
  const Shape = shapes[severity];
  return (
    <span className="inline-flex items-center gap-1 align-[-2px] font-bold" style={{ color: dye[severity] }}>
      <Shape size={13} strokeWidth={2.4} aria-hidden />
      {said}
    </span>
  );
}

/** A sentence of a list about what was found, with how grave it is. */
export const Remark = ({
  severity,
  text,
  code,
  children,
}: {
  severity: Severity;
  text: string;
  /** what was found, where that has a name */
  code?: string;
  /** what can be done about it */
  children?: ReactNode;
}) => (
  <li
    data-finding={code}
    data-severity={severity}
    className="border-l-4 bg-ground px-2.5 py-1.5 text-[12.5px]"
    style={{ borderColor: dye[severity] }}
  >
    <GravityMark severity={severity} /> {text} {children}
  </li>
);
