import type { Finding } from '../finding/finding';
import type { Size } from '../geometry/size';
import { LiveWatch, type WatchFrame } from './alarms';
import type { Reading } from './reading';
import type { WatchCode } from './watch-words';

/** What a look at a clip comes to. */
export type Verdict = {
  findings: Finding<WatchCode>[];
  /** no more than `watch`: the performer may go on */
  usable: boolean;
  worst: { move: number; stops: number; sharpness: number; agreement: number };
  pictures: number;
};

/**
 * Judges a clip from pictures sampled along it. Each finding names the first picture that shows it.
 * @param readings in the order of their times, seconds of the clip
 */
export function verdictOf(
  readings: readonly { time: number; reading: Reading }[],
  frame: WatchFrame,
  delivery: Size,
): Verdict {
  const watch = new LiveWatch(frame, delivery);
  const found = new Map<string, Finding<WatchCode>>();
  for (const { time, reading } of readings) {
    // Samples lie far apart: each picture is its own proof, so it is shown to the watch twice.
    const fresh = [...watch.push(reading, time), ...watch.push(reading, time)];
    for (const finding of fresh) if (!found.has(finding.code)) found.set(finding.code, finding);
  }
  const most = (pick: (reading: Reading) => number) =>
    readings.reduce((far, { reading }) => (Math.abs(pick(reading)) > Math.abs(far) ? pick(reading) : far), 0);
  const findings = [...found.values()];
  const worst = {
    move: most(({ move }) => move),
    stops: most(({ stops }) => stops),
    sharpness: Math.min(1, ...readings.map(({ reading }) => reading.sharpness)),
    agreement: Math.min(1, ...readings.map(({ reading }) => reading.agreement)),
  };
  if (readings.length === 0)
    findings.push({ code: 'watch.nothing', severity: 'stop', where: frame.take ? { take: frame.take } : {} });
  const usable = findings.every(({ severity }) => severity === 'watch' || severity === 'fine');
  if (usable)
    findings.push({
      code: 'watch.good',
      severity: 'fine',
      measured: { value: worst.move, unit: 'px' },
      facts: { stops: worst.stops, crossed: frame.touching || found.has('watch.crossing') ? 1 : 0 },
      where: frame.take ? { take: frame.take } : {},
    });
  return { findings, usable, worst, pictures: readings.length };
}
