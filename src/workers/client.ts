import { wrap, type Remote } from 'comlink';

/** A worker and what it offers; `end` is how work is cancelled. */
export type Client<Api> = { api: Remote<Api>; end: () => void };

/**
 * A client that somebody else may end while its answer is waited for. An ended worker answers nothing more; what waits
 * for it then gets null by `orEnded`, and would wait for ever otherwise.
 */
export type CancellableClient<Api> = Client<Api> & {
  orEnded: <T>(answer: Promise<T>) => Promise<T | null>;
};

export function clientOf<Api>(worker: Worker): CancellableClient<Api> {
  let tell: (nothing: null) => void = () => undefined;
  const ended = new Promise<null>((resolve) => (tell = resolve));
  return {
    api: wrap<Api>(worker),
    end: () => {
      worker.terminate();
      tell(null);
    },
    orEnded: (answer) => Promise.race([answer, ended]),
  };
}
