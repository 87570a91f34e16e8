'use client';
import type { ReactNode } from 'react';

/** The frame of a station: its question, its working surface, and the detail beside it (below on a phone). */
export function Station({
  question,
  sub,
  tools,
  side,
  fixed = false,
  children,
}: {
  question: string;
  sub?: ReactNode;
  tools?: ReactNode;
  side?: ReactNode;
  /** the surface keeps to the screen on a phone too and scrolls inside: what a thumb needs stays in reach */
  fixed?: boolean;
  children: ReactNode;
}) {
  return (
    <main className="flex min-h-0 min-w-0 flex-1 flex-col">
      <header className="flex min-h-[58px] flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-5 py-2 max-sm:px-4">
        <h1 className="text-[22px] leading-tight font-medium max-sm:text-[20px]">{question}</h1>
        {sub && <span className="text-ink2">{sub}</span>}
        <span className="flex-1" />
        {tools}
      </header>
      <div className={`flex min-h-0 flex-1 max-sm:flex-col ${fixed ? '' : 'max-sm:overflow-y-auto'}`}>
        <div
          className={`flex min-h-0 min-w-0 flex-1 flex-col ${fixed ? '' : 'max-sm:flex-none sm:overflow-y-auto'}`}
        >
          {children}
        </div>
        {side && (
          <aside
            aria-label="Detail"
            className="flex flex-col gap-4 border-line bg-raised px-4 py-3.5 max-sm:border-t sm:w-[300px] sm:flex-none sm:overflow-y-auto sm:border-l"
          >
            {side}
          </aside>
        )}
      </div>
    </main>
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
