import { wrap, type Remote } from 'comlink';

/** A worker and what it offers; `end` is how work is cancelled. */
export type Client<Api> = { api: Remote<Api>; end: () => void };

export const clientOf = <Api>(worker: Worker): Client<Api> => ({
  api: wrap<Api>(worker),
  end: () => worker.terminate(),
});
