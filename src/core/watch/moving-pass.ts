import { median } from '../statistics';
import { allowed } from '../finding/allowed';
import type { Finding } from '../finding/finding';
import { cornerMove, scalePlacement, type Placement } from '../geometry/placement';
import { prepareReference, type Reference } from '../footage/reference';
import { registerFrame } from '../footage/register';
import type { RgbaImage } from '../picture/image';
import type { Size } from '../geometry/size';
import { readCells } from './cells';
import type { PassCode } from './pass-words';

/** A move that was filmed once, as luma with the seconds since it began: small enough for minutes on a phone. */
type FirstPass = { size: Size; stops: { time: number; luma: Uint8Array }[] };
/** What a stop of the first pass is compared with, made once it is needed. */
type Prepared = { index: number; reference: Reference; travel: { perSecond: number; x: number; y: number } };

/** How a later pass lay at one of its times, delivery pixels. */
export type PassPoint = {
  time: number;
  placement: Placement;
  move: number;
  /** seconds; > 0 where it lags behind */
  late: number;
  /** seconds between the pictures of the first pass around it: lateness cannot be told closer than that */
  apart: number;
};

/**
 * A pass that repeats a move drifts by a little and may start late. Position within a pass that is free of
 * performers moving is asked only of the set: registration leaves them out.
 */
export class MovingPass {
  private first: FirstPass | null = null;
  private recording: FirstPass = { size: { width: 0, height: 0 }, stops: [] };
  private points: PassPoint[] = [];
  private prepared: Prepared | null = null;

  constructor(private readonly delivery: Size) {}

  hasFirst(): boolean {
    return this.first !== null;
  }

  /** Begins a pass; the first one that was finished is what all others are held against. */
  begin(): void {
    this.recording = { size: { width: 0, height: 0 }, stops: [] };
    this.points = [];
  }

  /**
   * Takes a picture of the running pass.
   * @param time seconds since the move began
   * @returns how it lies against the first pass at the matching time; null during the first pass
   * @throws CoreError `sizes-differ` where the picture has another size than the first pass
   */
  push(image: RgbaImage, time: number): PassPoint | null {
    const { luma } = readCells(image);
    if (!this.first) {
      this.recording.size = { width: luma.width, height: luma.height };
      this.recording.stops.push({ time, luma: Uint8Array.from(luma.data, Math.round) });
      return null;
    }
    const { stops, size } = this.first;
    const near = nearest(stops, time);
    const { reference, travel } = this.prepare(this.first, near);
    const factor = Math.max(this.delivery.width / size.width, this.delivery.height / size.height);
    const seen = { width: size.width * factor, height: size.height * factor };
    const placement = scalePlacement(registerFrame(reference, luma), factor);
    const speed = travel.perSecond * factor;
    const along = speed > 1 ? travel : null;
    // What lies along the way of the move is lateness; what is left beside it is drift.
    const ahead = along ? (placement.dx * along.x + placement.dy * along.y) / speed : 0;
    const late = along ? time - stops[near].time - ahead : 0;
    const rest = along
      ? {
          ...placement,
          dx: placement.dx - ahead * speed * along.x,
          dy: placement.dy - ahead * speed * along.y,
        }
      : placement;
    const around = stops.slice(Math.max(0, near - 1), near + 2).map((stop) => stop.time);
    const apart = Math.max(0, ...around.slice(1).map((at, index) => at - around[index]));
    const point = { time, placement: rest, move: cornerMove(rest, seen), late, apart };
    this.points.push(point);
    return point;
  }

  private prepare({ stops, size }: FirstPass, index: number): Prepared {
    if (this.prepared?.index === index) return this.prepared;
    const picture = (at: number) => ({ ...size, data: stops[at].luma });
    const reference = prepareReference(picture(index));
    const [before, after] = [Math.max(0, index - 1), Math.min(stops.length - 1, index + 1)];
    const seconds = stops[after].time - stops[before].time;
    // How fast the set moves through the picture there, in pixels of its luma a second.
    const { dx, dy } = registerFrame(prepareReference(picture(before)), picture(after));
    const length = Math.hypot(dx, dy);
    const travel = {
      perSecond: seconds > 0 ? length / seconds : 0,
      x: length > 0 ? dx / length : 0,
      y: length > 0 ? dy / length : 0,
    };
    this.prepared = { index, reference, travel };
    return this.prepared;
  }

  /** Ends the pass. @returns what is to be said of it; a first pass becomes the one to be held against */
  finish(): { findings: Finding<PassCode>[]; points: PassPoint[]; first: boolean } {
    if (!this.first) {
      const enough = this.recording.stops.length >= 4;
      if (enough) this.first = this.recording;
      const { stops } = this.recording;
      const finding: Finding<PassCode> = enough
        ? {
            code: 'pass.first',
            severity: 'fine',
            where: {},
            measured: { value: stops[stops.length - 1].time - stops[0].time, unit: 'seconds' },
            facts: { pictures: stops.length },
          }
        : { code: 'pass.short', severity: 'fix', where: {}, facts: { pictures: stops.length } };
      return { findings: [finding], points: [], first: true };
    }
    return { findings: judge(this.points), points: this.points, first: false };
  }
}

function nearest(stops: FirstPass['stops'], time: number): number {
  let best = 0;
  stops.forEach((stop, index) => {
    if (Math.abs(stop.time - time) < Math.abs(stops[best].time - time)) best = index;
  });
  return best;
}

function judge(points: readonly PassPoint[]): Finding<PassCode>[] {
  const fitting = points.filter(({ placement }) => placement.agreement >= allowed.agreement);
  if (fitting.length < Math.max(3, points.length / 2))
    return [
      {
        code: 'pass.other',
        severity: 'stop',
        where: {},
        measured: { value: fitting.length / Math.max(1, points.length), unit: 'share' },
      },
    ];
  const late = median(fitting.map((point) => point.late));
  // Where the first pass has few pictures, how it sped up between two of them is not known.
  const steps = fitting.map((point) => ({
    off: Math.abs(point.late - late),
    allowed: Math.max(2 * allowed.late, point.apart),
  }));
  const uneven = steps.reduce((most, step) =>
    step.off - step.allowed > most.off - most.allowed ? step : most,
  );
  const worst = fitting.reduce((most, point) => (point.move > most.move ? point : most));
  const findings: Finding<PassCode>[] = [];
  if (Math.abs(late) > allowed.late)
    findings.push({
      code: 'pass.late',
      severity: 'watch',
      where: {},
      measured: { value: late, unit: 'seconds' },
      allowed: { value: allowed.late, unit: 'seconds' },
    });
  if (uneven.off > uneven.allowed)
    findings.push({
      code: 'pass.uneven',
      severity: 'fix',
      where: {},
      measured: { value: uneven.off, unit: 'seconds' },
      allowed: { value: uneven.allowed, unit: 'seconds' },
    });
  const drift = allowed.passMove;
  findings.push({
    code: worst.move > drift ? 'pass.drift' : 'pass.fits',
    severity: worst.move > drift ? 'fix' : 'fine',
    where: { from: worst.time },
    measured: { value: worst.move, unit: 'px' },
    allowed: { value: drift, unit: 'px' },
  });
  return findings;
}
