import { beforeEach, expect, vi } from 'vitest';
import { partKey, takeParts } from '@/core/footage/take-parts';
import { needsOf } from '@/store/needs';
import { TestFilm } from '@/store/__tests__/film';
import { Runner, type Hold, type Opening } from '../runner';
import { answers, until, type Calls } from './answers';

/** A film of its own for each test of a file, with a runner whose workers answer at once. */
export class RunnerFilm {
  film!: TestFilm;
  runner!: Runner;
  readonly opened = vi.fn();
  readonly ended = vi.fn();
  /** Stops the runner that was started last. */
  stop: () => void = () => undefined;
  /** Works one tab after the other, as the browser's locks do. */
  private turn: Promise<unknown> = Promise.resolve();
  readonly hold: Hold = (_, __, work) => (this.turn = this.turn.then(work));

  constructor() {
    beforeEach(async () => {
      this.turn = Promise.resolve();
      this.opened.mockClear();
      this.ended.mockClear();
      this.film = await TestFilm.begin();
      return () => this.stop();
    });
  }

  readonly workers = (more: Calls = {}): Opening => {
    const open = () => {
      this.opened();
      return { api: { ...answers, ...more } as never, end: this.ended };
    };
    return { openMedia: open, openRender: open };
  };
  readonly start = (more: Calls = {}): void => {
    this.runner = new Runner(this.film.store, this.film.project, this.workers(more), this.hold);
    this.stop = this.runner.start();
  };
  readonly idle = () =>
    until(async () => {
      expect(this.runner.current()).toBeNull();
      const left = needsOf(await this.film.read()).map(({ key }) => key);
      const unwritten = this.runner.notWrittenDown().map(({ key }) => key);
      expect(left.filter((key) => !unwritten.includes(key))).toEqual([]);
    });
  /** Files of which every part is measured. */
  readonly measuredTakes = async () => {
    const { measures, takes } = await this.film.read();
    return takes
      .map(({ media }) => media)
      .filter((media) => takeParts.every((part) => measures.has(partKey(part, { media }))));
  };
  readonly fileOf = (id: string) => this.film.store.originals.add({ id, blob: new Blob([id]) });
}
