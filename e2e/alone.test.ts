import { connect } from 'node:net';
import { expect, it } from 'vitest';
import { startServer } from './support/server';

/** Whether somebody listens at an address of this computer. */
const answers = (host: string, port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect({ host, port });
    socket.once('connect', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
  });

it('the bench is served to this computer alone', async () => {
  const server = await startServer();
  const port = Number(new URL(server.url).port);
  // All of 127/8 is this computer; what listens on every address answers at each of them (RFC 1122, 3.2.1.3).
  expect([await answers('127.0.0.1', port), await answers('127.0.0.2', port)]).toEqual([true, false]);
  expect((await fetch(server.url)).status).toBe(200);
  await server.stop();
});
