import { expect, test } from 'vitest';
import { clientOf } from './client';

/** A worker that never answers. */
function silent() {
  const ended: string[] = [];
  const worker = {
    addEventListener: () => undefined,
    removeEventListener: () => undefined,
    postMessage: () => undefined,
    terminate: () => ended.push('ended'),
  };
  return { client: clientOf<{ work: () => number }>(worker as unknown as Worker), ended };
}

test('what waits for a worker that is ended gets null, and an answer or an error that came before as it is', async () => {
  const { client, ended } = silent();
  const waits = client.orEnded(client.api.work());
  expect(await client.orEnded(Promise.resolve(3))).toBe(3);
  await expect(client.orEnded(Promise.reject(new Error('no')))).rejects.toThrow('no');
  client.end();
  expect([await waits, ended]).toEqual([null, ['ended']]);
});
