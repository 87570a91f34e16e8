'use client';
import { Tabs } from 'radix-ui';
import type { ReactNode } from 'react';

/** The parts that a station has: one of them is shown. */
export type Parts<Id extends string> = {
  options: readonly { id: Id; text: string }[];
  shown: Id;
  onShow: (id: Id) => void;
};

/** The frame of a station: its question, its working surface, and the detail beside it (below on a phone). */
export function Station<Id extends string = string>({
  question,
  sub,
  parts,
  tools,
  side,
  fixed = false,
  children,
}: {
  question: string;
  sub?: ReactNode;
  parts?: Parts<Id>;
  tools?: ReactNode;
  side?: ReactNode;
  /** the surface keeps to the screen on a phone too and scrolls inside: what a thumb needs stays in reach */
  fixed?: boolean;
  children: ReactNode;
}) {
  const surface = (
    <div className={`flex min-h-0 flex-1 phone:flex-col ${fixed ? '' : 'phone:overflow-y-auto'}`}>
      <div
        className={`flex min-h-0 min-w-0 flex-1 flex-col ${fixed ? '' : 'phone:flex-none desk:overflow-y-auto'}`}
      >
        {children}
      </div>
      {side && (
        <aside
          aria-label="Detail"
          className="flex flex-col gap-4 border-line bg-raised px-4 py-3.5 phone:border-t desk:w-[300px] desk:flex-none desk:overflow-y-auto desk:border-l"
        >
          {side}
        </aside>
      )}
    </div>
  );
  const head = (tabs: ReactNode) => (
    <header className="flex min-h-[58px] flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-5 py-2 phone:px-4 low:min-h-0 low:py-1">
      <h1 className="text-[22px] leading-tight font-medium phone:text-[20px]">{question}</h1>
      {sub && <span className="min-w-0 text-ink2">{sub}</span>}
      <span className="flex-1" />
      {tabs}
      {tools}
    </header>
  );
  const whole = 'flex min-h-0 min-w-0 flex-1 flex-col';
  if (!parts)
    return (
      <main className={whole}>
        {head(null)}
        {surface}
      </main>
    );
  return (
    <Tabs.Root asChild value={parts.shown} onValueChange={(id) => parts.onShow(id as Id)}>
      <main className={whole}>
        {head(
          <Tabs.List
            aria-label="Parts of this station"
            className="flex max-w-full gap-1 overflow-x-auto phone:-mx-4 phone:px-4 phone:pb-1"
          >
            {parts.options.map(({ id, text }) => (
              <Tabs.Trigger key={id} value={id} className="knob flex-none">
                {text}
              </Tabs.Trigger>
            ))}
          </Tabs.List>,
        )}
        <Tabs.Content value={parts.shown} tabIndex={-1} className="flex min-h-0 flex-1 flex-col outline-none">
          {surface}
        </Tabs.Content>
      </main>
    </Tabs.Root>
  );
}

export function Part({ title, children }: { title: string; children: ReactNode }) {
  return (
    <section>
      <h2 className="mb-1.5 text-[15px] font-[560]">{title}</h2>
      {children}
    </section>
  );
}

/** What to do where there is nothing yet. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="m-auto flex max-w-[46ch] flex-col items-start gap-3 p-8">
      <h2 className="text-[19px] font-medium">{title}</h2>
      {children}
    </div>
  );
}
