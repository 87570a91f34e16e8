import type { ReactNode } from 'react';
import { ErrorBoundary, type FallbackProps } from 'react-error-boundary';
import { asCoreError } from '@/workers/plain-errors';

/** What went wrong where nothing else can be shown, and what can be done about it. */
export function Trouble({ title, text, children }: { title: string; text: string; children: ReactNode }) {
  return (
    <div role="alert" className="m-auto flex max-w-[52ch] flex-col items-start gap-3 p-8">
      <h2 className="text-[19px] font-medium">{title}</h2>
      <p>{text}</p>
      <div className="flex flex-wrap gap-2">{children}</div>
    </div>
  );
}

function Broken({ error, resetErrorBoundary }: FallbackProps) {
  return (
    <Trouble
      title="This screen went wrong"
      text={`Your project is kept as it is. ${asCoreError(error).message} If it goes wrong again, load the page anew or go to another station.`}
    >
      <button type="button" className="knob main" onClick={resetErrorBoundary}>
        Show it again
      </button>
      <button type="button" className="knob" onClick={() => window.location.reload()}>
        Load the page anew
      </button>
    </Trouble>
  );
}

/** Keeps a fault of one part from taking the rest with it. @param place another place begins anew */
export const Guarded = ({ place, children }: { place: string; children: ReactNode }) => (
  <ErrorBoundary key={place} FallbackComponent={Broken}>
    {children}
  </ErrorBoundary>
);
