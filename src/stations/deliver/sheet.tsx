'use client';
import { writtenRow } from '@/core/formats/keyframe-sheet';
import type { Step } from '@/core/recipes/recipe';
import { rateLabel, type Rate } from '@/core/time/rate';
import { useData, useServices } from '@/ui/bench-context';
import { stepsOf } from './exports';

/** The keyframe sheet: a page that prints, and that fits any editor. */
export function KeyframeSheet() {
  const { go } = useServices();
  const snapshot = useData((data) => data.snapshot);
  const moment = useData((data) => data.builtMoment);
  const told = moment && stepsOf(snapshot, moment);
  if (!moment || !told) {
    return (
      <main className="p-8">
        <p>There is no moment to print. Choose one first.</p>
        <button type="button" className="knob main mt-3" onClick={() => go({ station: 'deliver' })}>
          Back
        </button>
      </main>
    );
  }
  const { project } = snapshot;
  return (
    <main className="flex-1 overflow-auto bg-raised print:overflow-visible">
      <div className="mx-auto max-w-[820px] px-8 py-7 print:max-w-none print:p-0">
        <div className="mb-4 flex gap-2 print:hidden">
          <button type="button" className="knob main" onClick={() => window.print()}>
            Print
          </button>
          <button type="button" className="knob" onClick={() => go({ station: 'deliver' })}>
            Back
          </button>
        </div>
        <h1 className="text-[26px] font-medium">{moment.name}</h1>
        <p className="num mb-1 text-ink2">
          {project.name} · {project.width} × {project.height} · {rateLabel(project.rate)} frames/s · the shot
          begins on frame {told.start}
        </p>
        <p className="mb-5 max-w-[70ch]">
          Frames count from 0. Positions are measured from the top left corner, in pixels of the delivered
          picture and in per cent of its width (across) or height (down); what is said to be “in the file”, in
          the file’s own. Lay each file at its size and place, then turn and grow it about the middle of the
          frame (or the point given), then move it. Moves are what is to be added to the take as it was
          filmed. Masks reach beyond the frame where their soft edge would show along it.
        </p>
        {told.steps.map((step, index) => (
          <StepTable key={step.title} number={index + 1} step={step} rate={project.rate} start={told.start} />
        ))}
      </div>
    </main>
  );
}

function StepTable({ number, step, rate, start }: { number: number; step: Step; rate: Rate; start: number }) {
  return (
    <section className="mb-6 break-inside-avoid-page">
      <h2 className="text-[17px] font-[560]">
        {number}. {step.title}
      </h2>
      <p className="mb-2 max-w-[80ch]">{step.text}</p>
      <table className="num w-full border-collapse text-left">
        <thead>
          <tr className="border-b-2 border-ink font-sans">
            {[
              'Frame in the shot',
              'Seconds',
              'Timecode in the film',
              'What',
              'Value',
              'Per cent',
              'Until the next',
            ].map((head) => (
              <th key={head} scope="col" className="py-1 pr-3 text-[11px] font-semibold">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {step.rows.map((row, index) => {
            const written = writtenRow(row, rate, start);
            return (
              <tr key={index} className="border-b border-dotted border-line">
                <td className="py-0.5 pr-3">{written.frameInShot}</td>
                <td className="pr-3">{written.secondsInShot}</td>
                <td className="pr-3">{written.timecodeInFilm}</td>
                <td className="pr-3 font-sans">{written.what}</td>
                <td className="pr-3 text-right">{written.value}</td>
                <td className="pr-3 text-right">{written.perCent}</td>
                <td className="font-sans">{written.then}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
