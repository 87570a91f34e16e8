import { liveQuery } from 'dexie';
import type { Halted, Store } from '@/store/db';
import { needsOf, type Need } from '@/store/needs';
import { readSnapshot, type Snapshot } from '@/store/snapshot';
import { callback, openMedia, openRender, type Client } from './clients';
import { KeptClient } from './kept-client';
import type { MediaApi } from './media.worker';
import type { Workers } from './perform';
import type { RenderApi } from './render.worker';
import { asCoreError } from './plain-errors';

/** What is being done now: shares 0..1, seconds left once that can be told. */
type Activity = { key: string; label: string; share: number; left: number | null; waiting: number };

/** Opens the workers that work is given to. */
export type Opening = { openMedia: () => Client<MediaApi>; openRender: () => Client<RenderApi> };

/** One tab at a time does a project's work. @param held runs once this tab is the one, until it is over */
export type Hold = (name: string, until: AbortSignal, held: () => Promise<void>) => Promise<unknown>;
const holdAmongTabs: Hold = (name, signal, held) => navigator.locks.request(name, { signal }, held);

/**
 * Does the work that a project is missing, one piece after the other, in one tab at a time. What it does follows
 * from the store, so nothing has to be remembered across a reload.
 */
export class Runner {
  private activity: Activity | null = null;
  private readonly listeners = new Set<() => void>();
  /** the piece of work at hand */
  private need: Need | null = null;
  /** ends it */
  private stopCurrent: (() => void) | null = null;
  private wake: () => void = () => undefined;
  /** work that ended and could not even be written down as ended, for want of room */
  private unwritten: readonly Halted[] = [];
  private readonly workers: Workers;

  constructor(
    private readonly store: Store,
    private readonly project: string,
    { openMedia: media, openRender: render }: Opening = { openMedia, openRender },
    private readonly hold: Hold = holdAmongTabs,
  ) {
    this.workers = { media: new KeptClient(media), openRender: render };
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly current = (): Activity | null => this.activity;
  readonly notWrittenDown = (): readonly Halted[] => this.unwritten;

  /** Begins; returns what ends it. */
  start(): () => void {
    const life = new AbortController();
    const watching = liveQuery(() => readSnapshot(this.store, this.project)).subscribe({
      next: (snapshot) => {
        this.endUnwanted(snapshot);
        this.wake();
      },
      error: () => this.wake(),
    });
    this.hold(`fickle-ribbon-work-${this.project}`, life.signal, () => this.loop(life.signal)).catch(
      () => undefined,
    );
    return () => {
      life.abort();
      watching.unsubscribe();
      this.stopCurrent?.();
      this.workers.media.end();
      this.wake();
    };
  }

  /** Ends a piece of work, the one at hand where none is named; it is not begun again until someone asks. */
  async cancel(key = this.activity?.key): Promise<void> {
    const { activity } = this;
    if (!activity || activity.key !== key) return;
    const stop = this.stopCurrent;
    await this.end({ key, project: this.project, label: activity.label, reason: 'cancelled' });
    stop?.();
  }

  /** Ends the render at hand where somebody removed it, and what a moment no longer asks. */
  private endUnwanted(snapshot: Snapshot | null): void {
    const { need } = this;
    if (!need || !snapshot) return;
    const wanted =
      need.kind === 'render'
        ? snapshot.renders.some(({ id }) => id === need.render)
        : need.kind !== 'work' ||
          snapshot.measures.has(need.key) ||
          needsOf(snapshot).some(({ key }) => key === need.key);
    if (!wanted) this.stopCurrent?.();
  }

  /** Takes work that ended without a result off the list; it is still not begun again by itself. */
  async dismiss(keys: readonly string[]): Promise<void> {
    this.unwritten = this.unwritten.map((one) =>
      keys.includes(one.key) ? { ...one, dismissed: true } : one,
    );
    const rows = await this.store.halted.bulkGet([...keys]);
    await this.store.writeRows(
      'halted',
      rows.flatMap((row) => (row ? [{ ...row, dismissed: true }] : [])),
    );
    this.tell(this.activity);
  }

  /** Lets work that ended without a result be begun again. */
  async again(key: string): Promise<void> {
    this.unwritten = this.unwritten.filter((one) => one.key !== key);
    await this.store.removeRows('halted', this.project, [key]);
    this.tell(this.activity);
    this.wake();
  }

  private async end(halted: Halted): Promise<void> {
    try {
      await this.store.writeRows('halted', [halted]);
    } catch {
      this.unwritten = [...this.unwritten.filter(({ key }) => key !== halted.key), halted];
    }
  }

  private async loop(life: AbortSignal): Promise<void> {
    while (!life.aborted) {
      const changed = new Promise<void>((resolve) => (this.wake = resolve));
      const snapshot = await readSnapshot(this.store, this.project).catch(() => null);
      const ended = new Set(this.unwritten.map(({ key }) => key));
      const needs = snapshot ? needsOf(snapshot).filter(({ key }) => !ended.has(key)) : [];
      if (life.aborted) break;
      if (!snapshot || needs.length === 0) {
        this.tell(null);
        await changed;
        continue;
      }
      await this.run(needs[0], snapshot, needs.length - 1);
    }
    this.tell(null);
  }

  private tell(activity: Activity | null): void {
    this.activity = activity;
    this.listeners.forEach((listener) => listener());
  }

  private async run(need: Need, snapshot: Snapshot, waiting: number): Promise<void> {
    const { key, label } = need;
    const begun = performance.now();
    let told = 0;
    let over = false;
    const progress = callback((share: number) => {
      const now = performance.now();
      // A worker may tell of progress after its answer.
      if (over || (now - told < 120 && share < 1)) return;
      told = now;
      const seconds = (now - begun) / 1000;
      const left = share > 0.04 && seconds > 0.7 ? (seconds * (1 - share)) / share : null;
      this.tell({ key, label, share, left, waiting });
    });
    this.tell({ key, label, share: 0, left: null, waiting });
    this.need = need;
    let stopped = false;
    let endWorker: () => void = () => undefined;
    try {
      await new Promise<void>((resolve, reject) => {
        this.stopCurrent = () => {
          stopped = true;
          endWorker();
          reject(new Error('stopped'));
        };
        const work = async () => {
          const { perform } = await import('./perform');
          if (stopped) return;
          await perform(
            { store: this.store, snapshot, need, progress },
            this.workers,
            (end) => (endWorker = end),
          );
        };
        work().then(resolve, reject);
      });
    } catch (error) {
      if (!stopped) await this.end({ key, project: this.project, label, reason: asCoreError(error) });
    } finally {
      over = true;
      this.need = null;
      this.stopCurrent = null;
    }
  }
}
