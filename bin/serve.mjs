#!/usr/bin/env node
/** Serves the built shell on this computer, and to nobody else on its network. */
import { createServer } from 'node:http';
import { handle } from './shell.mjs';

const port = Number(process.env.PORT ?? 4310);
const server = createServer(handle);
server.listen(port, '127.0.0.1', () =>
  console.log(`Fickle Ribbon is at http://localhost:${server.address().port}`),
);
