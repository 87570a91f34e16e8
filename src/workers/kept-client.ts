import type { Client } from './client';

/** seconds for which a worker waits for its next piece of work before its memory is given back */
const patience = 20;
/** seconds of work after which a worker ends with its piece: what long work leaves behind takes memory, and to open another one is short beside it */
const mostWork = 30;

/**
 * A worker that is kept from one piece of work to the next: what it has loaded and compiled takes as long as a short
 * piece. It ends with a piece that fails or is stopped, once it has worked for long, and once it has waited for long.
 */
export class KeptClient<Api> {
  private client: Client<Api> | null = null;
  private leaving: ReturnType<typeof setTimeout> | undefined;
  /** milliseconds that it has worked */
  private worked = 0;

  constructor(private readonly open: () => Client<Api>) {}

  /** Does one piece of work, one at a time. @param onOpen receives what ends the worker at once */
  async use(
    onOpen: (end: () => void) => void,
    work: (api: Client<Api>['api']) => Promise<void>,
  ): Promise<void> {
    clearTimeout(this.leaving);
    if (!this.client) this.worked = 0;
    const client = (this.client ??= this.open());
    const begun = performance.now();
    onOpen(() => this.endThis(client));
    try {
      await work(client.api);
    } catch (error) {
      this.endThis(client);
      throw error;
    }
    if (this.client !== client) return;
    this.worked += performance.now() - begun;
    if (this.worked > mostWork * 1000) this.endThis(client);
    else this.leaving = setTimeout(() => this.endThis(client), patience * 1000);
  }

  /** Gives its memory back; the next piece of work opens it again. */
  end(): void {
    if (this.client) this.endThis(this.client);
  }

  /** A piece that was stopped may fail only when the next one has a worker already, which goes on. */
  private endThis(client: Client<Api>): void {
    client.end();
    if (this.client !== client) return;
    clearTimeout(this.leaving);
    this.client = null;
  }
}
