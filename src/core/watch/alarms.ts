import { flood } from '../picture/flood';
import { allowed } from '../finding/allowed';
import type { Finding, Severity } from '../finding/finding';
import type { Point, Size } from '../geometry/size';
import { cellGrid } from './cells';
import { crossingOf } from './crossing';
import type { Reading } from './reading';
import type { WatchCode } from './watch-words';

/** A join or a copy's place on the frame, in shares of it. */
type WatchLine = { name: string; from: Point; to: Point };
export type WatchFrame = {
  seams: readonly WatchLine[];
  copies: readonly WatchLine[];
  take?: string;
  /** true where two are to touch over the join: then a hand across it is none of their faults */
  touching?: boolean;
};

type Kind = 'move' | 'light' | 'colour' | 'sharpness' | 'view' | 'crossing' | 'changed';

/** share of a join's length that a hand or an arm covers at the most; somebody who walks across covers more */
const aHand = 0.3;

/** What is wrong with one reading, each kind at most once. */
function wrongs(reading: Reading, frame: WatchFrame): Map<Kind, Omit<Finding<WatchCode>, 'where'>> {
  const out = new Map<Kind, Omit<Finding<WatchCode>, 'where'>>();
  if (reading.agreement < allowed.agreement) {
    out.set('view', {
      code: 'watch.view',
      severity: 'stop',
      measured: { value: reading.agreement, unit: 'share' },
      allowed: { value: allowed.agreement, unit: 'share' },
    });
    return out;
  }
  if (reading.move > allowed.move) {
    const { dx, dy, scale } = reading.placement;
    const severity: Severity = reading.move > allowed.graveMove * allowed.move ? 'stop' : 'fix';
    out.set('move', {
      code: 'watch.moved',
      severity,
      measured: { value: reading.move, unit: 'px' },
      allowed: { value: allowed.move, unit: 'px' },
      facts: { dx, dy, rotation: reading.placement.rotation, scale },
    });
  }
  if (Math.abs(reading.stops) > allowed.stops) {
    out.set('light', {
      code: 'watch.light',
      severity: 'fix',
      measured: { value: reading.stops, unit: 'stops' },
      allowed: { value: allowed.stops, unit: 'stops' },
    });
  }
  if (reading.colour > allowed.difference) {
    out.set('colour', {
      code: 'watch.colour',
      severity: 'fix',
      measured: { value: reading.colour, unit: 'deltaE' },
      allowed: { value: allowed.difference, unit: 'deltaE' },
    });
  }
  if (reading.sharpness < allowed.sharpness) {
    out.set('sharpness', {
      code: 'watch.soft',
      severity: 'fix',
      measured: { value: reading.sharpness, unit: 'share' },
      allowed: { value: allowed.sharpness, unit: 'share' },
    });
  }
  for (const seam of frame.seams) {
    const hit = crossingOf(reading, seam.from, seam.to);
    if (!hit || (frame.touching && !hit.shadow && hit.to - hit.from < aHand)) continue;
    out.set('crossing', {
      code: hit.shadow ? 'watch.shadow' : 'watch.crossing',
      severity: hit.shadow ? 'fix' : 'watch',
      facts: { seam: seam.name, from: hit.from, to: hit.to },
    });
    break;
  }
  return out;
}

/** Groups of cells that touch. */
function groups(present: Uint8Array): number[][] {
  const seen = new Uint8Array(present.length);
  return [...present.keys()]
    .map((start) => flood(cellGrid, present, seen, start))
    .filter((group) => group.length > 0);
}

const inside = (cell: number, { from, to }: WatchLine): boolean => {
  const x = ((cell % cellGrid.width) + 0.5) / cellGrid.width;
  const y = (Math.floor(cell / cellGrid.width) + 0.5) / cellGrid.height;
  return (
    x >= Math.min(from[0], to[0]) &&
    x <= Math.max(from[0], to[0]) &&
    y >= Math.min(from[1], to[1]) &&
    y <= Math.max(from[1], to[1])
  );
};

/**
 * Follows readings through a take and says what is wrong once it is sure: at the second check in a row, or at
 * once where the camera moved far. What hangs elsewhere than on the plate is told from a performer by not moving.
 */
export class LiveWatch {
  private readonly streak = new Map<Kind, number>();
  private readonly raised = new Map<Kind, Finding<WatchCode>>();
  private still: { since: Float64Array; level: Float32Array } | null = null;

  /** @param delivery size that pixels are counted in */
  constructor(
    private readonly frame: WatchFrame,
    readonly delivery: Size,
  ) {}

  /**
   * Takes note of a reading.
   * @param time seconds since the watch began
   * @returns findings that are new with this reading; what was said before is not said again until it has passed
   */
  push(reading: Reading, time: number): Finding<WatchCode>[] {
    const wrong = wrongs(reading, this.frame);
    const changed = this.hanging(reading, time);
    if (changed) wrong.set('changed', changed);
    const fresh: Finding<WatchCode>[] = [];
    for (const kind of [...this.streak.keys()]) if (!wrong.has(kind)) this.streak.delete(kind);
    for (const kind of [...this.raised.keys()]) if (!wrong.has(kind)) this.raised.delete(kind);
    for (const [kind, finding] of wrong) {
      const streak = (this.streak.get(kind) ?? 0) + 1;
      this.streak.set(kind, streak);
      const far = kind === 'move' && reading.move > allowed.graveMove * allowed.move;
      if (streak < 2 && !far) continue;
      const full: Finding<WatchCode> = {
        ...finding,
        where: { ...(this.frame.take ? { take: this.frame.take } : {}), from: time },
      };
      if (!this.raised.has(kind)) fresh.push(full);
      this.raised.set(kind, full);
    }
    return fresh;
  }

  /** What is wrong at the moment. */
  current(): Finding<WatchCode>[] {
    return [...this.raised.values()];
  }

  /** Something that the plate has not, that does not move and that nobody is part of. */
  private hanging(reading: Reading, time: number): Omit<Finding<WatchCode>, 'where'> | null {
    this.still ??= {
      since: new Float64Array(reading.present.length).fill(time),
      level: reading.level.slice(),
    };
    const { since, level } = this.still;
    for (let cell = 0; cell < since.length; cell++) {
      if (reading.present[cell] && Math.abs(reading.level[cell] - level[cell]) < 5) continue;
      since[cell] = time;
      level[cell] = reading.level[cell];
    }
    let most = 0;
    for (const group of groups(reading.present)) {
      if (group.length < 5) continue;
      const steady = group.filter((cell) => time - since[cell] >= allowed.hanging);
      const mine = group.filter((cell) => this.frame.copies.some((copy) => inside(cell, copy)));
      const dark = group.filter((cell) => reading.shadow[cell]);
      if (steady.length < 0.9 * group.length || mine.length > 0.3 * group.length) continue;
      if (dark.length > 0.5 * group.length) continue;
      most = Math.max(most, group.length);
    }
    if (most === 0 || Math.abs(reading.stops) > 0.6) return null;
    return {
      code: 'watch.changed',
      severity: 'fix',
      measured: { value: most / reading.present.length, unit: 'share' },
    };
  }
}
