import type { CDPSession, Page } from 'playwright-core';

type Point = readonly [number, number];

/** Fingers on the glass, one after the other or two at once, as the browser itself is told of them. */
export class Fingers {
  private constructor(private readonly session: CDPSession) {}

  static async on(page: Page): Promise<Fingers> {
    return new Fingers(await page.context().newCDPSession(page));
  }

  private send(type: 'touchStart' | 'touchMove' | 'touchEnd' | 'touchCancel', points: readonly Point[]) {
    return this.session.send('Input.dispatchTouchEvent', {
      type,
      touchPoints: points.map(([x, y], id) => ({ x, y, id })),
    });
  }

  /** Moves one finger in steps from here to there. @param end how it leaves the glass; `touchCancel` is the system's */
  async swipe(
    from: Point,
    to: Point,
    end: 'touchEnd' | 'touchCancel' = 'touchEnd',
    steps = 10,
  ): Promise<void> {
    await this.send('touchStart', [from]);
    for (let step = 1; step <= steps; step++) {
      const at = (axis: 0 | 1) => from[axis] + ((to[axis] - from[axis]) * step) / steps;
      await this.send('touchMove', [[at(0), at(1)]]);
    }
    await this.send(end, []);
  }

  /** Moves one finger along a line. @param during what happens before it leaves the glass */
  async along(
    points: readonly Point[],
    during: () => Promise<unknown> = async () => undefined,
  ): Promise<void> {
    await this.send('touchStart', [points[0]]);
    for (const point of points.slice(1)) await this.send('touchMove', [point]);
    await during();
    await this.send('touchEnd', []);
  }

  async tap(at: Point): Promise<void> {
    await this.send('touchStart', [at]);
    await this.send('touchEnd', []);
  }
}
