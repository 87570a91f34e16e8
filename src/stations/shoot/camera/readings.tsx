'use client';
import { byGravity, type Finding } from '@/core/finding/finding';
import { sayFinding } from '@/core/finding/say';
import { allowed } from '@/core/finding/allowed';
import { useData } from '@/ui/bench-context';
import { Term } from '@/ui/term';
import type { Check } from '@/workers/watch.worker';
import type { Plate } from './use-plate';

/** "same light", or by how many stops it is off. */
const sayLight = (stops: number): string =>
  Math.abs(stops) <= allowed.stops
    ? 'same light'
    : `${Math.abs(stops).toFixed(2)} stops ${stops < 0 ? 'darker' : 'brighter'}`;

/** What the watch says, in words first, in numbers below. */
export function Readings({
  on,
  check,
  plate,
  problem,
  over = false,
}: {
  on: boolean;
  check: Check | null;
  plate: Plate;
  problem: string | null;
  /** it lies over the picture, in words and two numbers */
  over?: boolean;
}) {
  const names = useData((data) => data.names);
  const words = (finding: Finding) => sayFinding(finding, names).text;
  const wrong = check ? byGravity(check.current) : [];
  const reading = check?.reading;
  const signed = (value: number, digits: number) =>
    value
      .toFixed(digits)
      .replace(/^-(?=0\.?0*$)/, '')
      .replace('-', '−');
  const numbers =
    reading &&
    ([
      ['moved', 'px', reading.move.toFixed(2), reading.move > allowed.move],
      ['turned', '°', signed(reading.placement.rotation, 2), false],
      ['size', '%', (reading.placement.scale * 100).toFixed(2), false],
      ['light', 'stops', signed(reading.stops, 2), Math.abs(reading.stops) > allowed.stops],
      ['colour', 'ΔE', reading.colour.toFixed(1), reading.colour > allowed.difference],
      ['sharp', '%', (reading.sharpness * 100).toFixed(0), reading.sharpness < allowed.sharpness],
    ] as const);
  return (
    <div className={over ? 'contents' : 'flex flex-col gap-2 px-3.5 py-2.5 phone:contents'}>
      <div
        className={
          over
            ? 'absolute top-3 left-3 max-w-[62%] bg-ground/85 px-2.5 py-1 text-[15px]'
            : // On a phone the page scrolls below it: what is wrong stays in sight, held sideways above a picture that is higher than the page.
              'min-h-[44px] flex-none text-[15px] phone:sticky phone:top-0 phone:z-10 phone:bg-ground phone:px-3.5 phone:pt-2 phone:pb-1 low:order-first'
        }
        role="status"
        aria-live="assertive"
        data-testid="watch-says"
      >
        {!on && 'The camera is off.'}
        {on && problem}
        {on && !problem && !plate && (
          <>
            No plate yet. Film the <Term word="clean plate" /> with nobody in the picture: the watch begins
            with it.
          </>
        )}
        {on && !problem && plate && !check && 'Looking …'}
        {check && wrong.length === 0 && (
          <span className="font-semibold text-verdigris" data-watch="fine">
            Everything stands as on the plate.
          </span>
        )}
        {wrong.map((finding) => (
          <p
            key={finding.code}
            data-watch={finding.code}
            className="border-l-4 bg-raised px-2.5 py-1 font-semibold"
            style={{ borderColor: finding.severity === 'watch' ? 'var(--saffron)' : 'var(--madder)' }}
          >
            {words(finding)}
          </p>
        ))}
      </div>
      {over && reading && (
        <p className="num absolute top-3 right-3 bg-ground/85 px-2.5 py-1 !text-[14px]">
          {reading.move.toFixed(1)} px · {sayLight(reading.stops)}
        </p>
      )}
      {numbers && !over && (
        <dl className="grid flex-none grid-cols-6 gap-1.5 phone:px-3.5 phone:pb-2">
          {numbers.map(([name, unit, value, over]) => (
            <div key={name} data-reading={name}>
              <dt className="text-[11.5px] whitespace-nowrap text-ink2">
                {name} <span className="desk:hidden">{unit}</span>
              </dt>
              <dd
                className="num !text-[14px]"
                style={over ? { color: 'var(--madder)', fontWeight: 700 } : {}}
              >
                {value} <span className="phone:hidden">{unit}</span>
              </dd>
            </div>
          ))}
        </dl>
      )}
      {plate?.from === 'file' && !over && (
        <p className="flex-none text-[13px] text-ink2 phone:px-3.5 phone:pb-2">
          Held against the plate’s file: colours of two cameras differ. Film a plate with this camera to be
          exact.
        </p>
      )}
    </div>
  );
}
