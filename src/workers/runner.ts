import { liveQuery } from 'dexie';
import type { Role } from '@/core/model/records';
import type { Source } from '@/media/footage';
import { change } from '@/store/change';
import { layFirstBeats, layFoundRest, layFoundSections, lockedPassages } from '@/store/commands/song';
import type { Measure, MeasureValue, Store } from '@/store/db';
import { layersOf, needsOf, seamTask, type Need } from '@/store/needs';
import { readSnapshot, songKey, takeKey, type Snapshot } from '@/store/snapshot';
import { cloneFrames } from '@/core/recipes/clone/build';
import { callback, openMedia, openRender } from './clients';
import { asCoreError } from './plain-errors';

/** What is being done now: shares 0..1, seconds left once that can be told. */
export type Activity = { key: string; label: string; share: number; left: number | null; waiting: number };

/**
 * Does the work that a project is missing, one piece after the other, in one tab at a time. What it does follows
 * from the store, so nothing has to be remembered across a reload.
 */
export class Runner {
  private activity: Activity | null = null;
  private readonly listeners = new Set<() => void>();
  private stopCurrent: (() => void) | null = null;
  private wake: () => void = () => undefined;

  constructor(
    private readonly store: Store,
    private readonly project: string,
  ) {}

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };
  readonly current = (): Activity | null => this.activity;

  /** Begins; returns what ends it. */
  start(): () => void {
    const life = { ended: false };
    const watching = liveQuery(() => readSnapshot(this.store, this.project)).subscribe(() => this.wake());
    const lock = new AbortController();
    navigator.locks
      .request(`fickle-ribbon-work-${this.project}`, { signal: lock.signal }, () => this.loop(life))
      .catch(() => undefined);
    return () => {
      life.ended = true;
      watching.unsubscribe();
      lock.abort();
      this.stopCurrent?.();
      this.wake();
    };
  }

  /** Ends the piece of work at hand; it is not begun again until someone asks. */
  async cancel(): Promise<void> {
    const { activity } = this;
    if (!activity) return;
    await this.store.halted.put({
      key: activity.key,
      project: this.project,
      label: activity.label,
      reason: 'cancelled',
    });
    this.stopCurrent?.();
  }

  private async loop(life: { ended: boolean }): Promise<void> {
    while (!life.ended) {
      const changed = new Promise<void>((resolve) => (this.wake = resolve));
      const snapshot = await readSnapshot(this.store, this.project);
      const needs = snapshot ? needsOf(snapshot) : [];
      if (!snapshot || needs.length === 0) {
        this.tell(null);
        await changed;
        continue;
      }
      await this.perform(needs[0], snapshot, needs.length - 1);
    }
  }

  private tell(activity: Activity | null): void {
    if (!activity && !this.activity) return;
    this.activity = activity;
    this.listeners.forEach((listener) => listener());
  }

  private async perform(need: Need, snapshot: Snapshot, waiting: number): Promise<void> {
    const begun = performance.now();
    let told = 0;
    const progress = callback((share: number) => {
      const now = performance.now();
      if (now - told < 120 && share < 1) return;
      told = now;
      const seconds = (now - begun) / 1000;
      const left = share > 0.04 && seconds > 0.7 ? (seconds * (1 - share)) / share : null;
      this.tell({ key: need.key, label: need.label, share, left, waiting });
    });
    this.tell({ key: need.key, label: need.label, share: 0, left: null, waiting });
    let stopped = false;
    try {
      await new Promise<void>((resolve, reject) => {
        this.stopCurrent = () => {
          stopped = true;
          reject(new Error('stopped'));
        };
        this.work(need, snapshot, progress).then(resolve, reject);
      });
    } catch (error) {
      if (!stopped) {
        const reason = asCoreError(error);
        await this.store.halted.put({ key: need.key, project: this.project, label: need.label, reason });
      }
    } finally {
      this.stopCurrent = null;
    }
  }

  private async work(need: Need, snapshot: Snapshot, progress: (share: number) => void): Promise<void> {
    const worker = need.kind === 'render' ? null : openMedia();
    const ended = this.stopCurrent;
    this.stopCurrent = () => {
      worker?.end();
      ended?.();
    };
    try {
      if (need.kind === 'render') return await this.render(need, snapshot, progress);
      const { api } = worker as NonNullable<typeof worker>;
      switch (need.kind) {
        case 'take': {
          const media = snapshot.media.get(need.media);
          const expected = { duration: media?.probe?.duration ?? 0, rate: media?.probe?.video?.rate ?? 25 };
          const { measure, stills, poster, proxy, complete } = await api.measureTake(
            await this.original(need.media),
            expected,
            progress,
          );
          await this.store.stills.put({ id: need.media, stills });
          await this.store.proxies.put({ id: need.media, blob: proxy });
          await this.keep(need.key, need.media, { method: 'take-1', take: measure, poster, complete });
          await this.giveRole(snapshot, need.media, measure.motion);
          return;
        }
        case 'song': {
          const { measure, beats, wav } = await api.measureSong(await this.original(need.media), progress);
          await this.store.proxies.put({ id: need.media, blob: wav });
          await this.keep(need.key, need.media, { method: 'song-2', song: measure, beats });
          const song = (await this.store.records.get(need.song)) ?? null;
          if (song?.kind === 'song' && !song.grid && beats.beats.length >= 2) {
            const before = await readSnapshot(this.store, this.project);
            if (before) await layFirstBeats(this.store, before, beats, before.gridBefore);
            const now = await readSnapshot(this.store, this.project);
            if (now && now.sections.length === 0 && measure.sections.length > 1)
              await layFoundSections(this.store, now, true);
          }
          return;
        }
        case 'again': {
          const wav = await this.store.proxies.get(need.media);
          if (!wav)
            throw { code: 'absent', message: 'The song is no longer in this browser. Bring it in again.' };
          const found = await api.findBeatsAgain(wav.blob, lockedPassages(snapshot), progress);
          const now = await readSnapshot(this.store, this.project);
          if (now) await layFoundRest(this.store, now, found);
          return;
        }
        case 'compare': {
          const [take, plate] = await Promise.all([
            this.measured(snapshot, need.take),
            this.measured(snapshot, need.plate),
          ]);
          const comparison = await api.compareTake(take, plate).catch((error: unknown) => {
            // Sizes that differ are a finding of their own, from the measures themselves.
            if (asCoreError(error).code !== 'take.size') throw error;
            return null;
          });
          if (comparison) await this.keep(need.key, need.subject, { method: 'compare-1', comparison });
          else
            await this.store.halted.put({
              key: need.key,
              project: this.project,
              label: need.label,
              reason: { code: 'take.size', message: '' },
            });
          return;
        }
        case 'seam': {
          const task = seamTask(snapshot, need.moment);
          if (!task)
            throw { code: 'seam', message: 'The takes of this moment are not ready. Choose them again.' };
          const layers = [task.left.layer, task.right.layer, ...(task.plate ? [task.plate] : [])];
          const sources = await this.sources(
            snapshot,
            layers.map((layer) => layer.source.media),
            'proxies',
          );
          const seam = await api.solveMomentSeam({ ...task, sources }, progress);
          await this.store.measures.where({ subject: need.moment.id }).delete();
          await this.keep(need.key, need.moment.id, { method: 'seam-1', seam });
        }
      }
    } finally {
      worker?.end();
    }
  }

  private async render(
    need: Extract<Need, { kind: 'render' }>,
    snapshot: Snapshot,
    progress: (share: number) => void,
  ): Promise<void> {
    const built = layersOf(snapshot, need.moment);
    const render = snapshot.renders.find((one) => one.id === need.render);
    if (!built || !render || !snapshot.song?.grid)
      throw { code: 'render', message: 'There is nothing to render yet. Choose takes first.' };
    const { project, song } = snapshot;
    const frames = cloneFrames(need.moment, { project, grid: snapshot.song.grid });
    const worker = openRender();
    const ended = this.stopCurrent;
    this.stopCurrent = () => {
      worker.end();
      ended?.();
    };
    try {
      const wav =
        song.media && snapshot.measures.has(songKey(song.media))
          ? await this.store.proxies.get(song.media)
          : null;
      const blob = await worker.api.renderShot(
        {
          layers: built.layers,
          start: frames.start,
          end: frames.end,
          delivery: { width: project.width, height: project.height },
          rate: project.rate,
          container: render.container,
          bitrate: project.megabits * 1e6,
          sources: await this.sources(
            snapshot,
            built.layers.map((layer) => layer.source.media),
            'originals',
          ),
          song: wav?.blob ?? null,
          file: render.name,
        },
        progress,
      );
      await this.store.renders.update(render.id, { status: 'done', blob });
    } finally {
      worker.end();
    }
  }

  private async original(media: string): Promise<Blob> {
    const row = await this.store.originals.get(media);
    if (!row) throw { code: 'absent', message: 'The file is no longer in this browser. Bring it in again.' };
    return row.blob;
  }

  private async measured(snapshot: Snapshot, media: string) {
    const value = snapshot.measures.get(takeKey(media))?.value;
    const kept = await this.store.stills.get(media);
    if (value?.method !== 'take-1' || !kept)
      throw { code: 'absent', message: 'This take has to be measured again. Bring it in again.' };
    return { ...value.take, stills: kept.stills };
  }

  /** Files for some media with the real times of their pictures. */
  async sources(snapshot: Snapshot, media: string[], table: 'proxies' | 'originals'): Promise<Source[]> {
    const out: Source[] = [];
    for (const id of new Set(media)) {
      const row = await this.store[table].get(id);
      const value = snapshot.measures.get(takeKey(id))?.value;
      if (row && value?.method === 'take-1') out.push({ media: id, blob: row.blob, times: value.take.times });
    }
    return out;
  }

  private async keep(key: string, subject: string, value: MeasureValue): Promise<void> {
    const measure: Measure = { key, project: this.project, subject, value };
    await this.store.measures.put(measure);
  }

  /** A clip without a role gets the one that its movement suggests; the person may change it. */
  private async giveRole(
    snapshot: Snapshot,
    media: string,
    motion: { share: number; middle: number },
  ): Promise<void> {
    const take = snapshot.takes.find((one) => one.media === media);
    if (!take || take.role !== 'none') return;
    const role: Role = motion.share < 0.004 ? 'plate' : motion.middle < 0.5 ? 'left' : 'right';
    await change(this.store, this.project, 'Sort the take', [{ record: take.id, set: { role } }], true);
  }
}
