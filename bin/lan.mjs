#!/usr/bin/env node
/** Serves the bench over HTTPS on the local network, and shows phones the way to it. */
import { readFileSync } from 'node:fs';
import { createServer as createPlain } from 'node:http';
import { createServer } from 'node:https';
import { homedir } from 'node:os';
import { join } from 'node:path';
import { X509Certificate } from 'node:crypto';
import qrcode from 'qrcode';
import { localAddresses } from './lan/addresses.mjs';
import { authority, serverCertificate } from './lan/authority.mjs';
import { trustPage } from './lan/trust-page.mjs';
import { handle } from './shell.mjs';

const folder = process.env.RIBBON_LAN ?? join(homedir(), '.fickle-ribbon');
const port = Number(process.env.PORT ?? 4310);
const plainPort = port + 1;
const addresses = localAddresses();
if (addresses.length === 0) {
  console.error(
    'This computer is on no network. Connect it to the one that the phone is on, then start again.',
  );
  process.exit(1);
}
const [address] = addresses;
const signer = authority(folder);
const pem = readFileSync(signer.certFile);
const { fingerprint256, raw } = new X509Certificate(pem);
const page = trustPage(`${address}:${port}`, fingerprint256);

/** What is the same with and without encryption: the guide and the certificate. */
function guide(request, response) {
  const path = new URL(request.url ?? '/', 'http://local').pathname;
  if (path === '/authority.crt') {
    response.writeHead(200, {
      'Content-Type': 'application/x-x509-ca-cert',
      'Content-Disposition': 'attachment; filename="fickle-ribbon-authority.crt"',
    });
    response.end(raw);
    return true;
  }
  if (path !== '/trust') return false;
  response.writeHead(200, {
    'Content-Type': 'text/html; charset=utf-8',
    'Content-Security-Policy': "default-src 'none'; style-src 'unsafe-inline'",
  });
  response.end(page);
  return true;
}

createServer(serverCertificate(signer, addresses), (request, response) => {
  if (!guide(request, response)) handle(request, response);
}).listen(port, async () => {
  console.log(
    await qrcode.toString(`http://${address}:${plainPort}/trust`, { type: 'terminal', small: true }),
  );
  console.log(
    `On the phone: http://${address}:${plainPort}/trust (the code above), then https://${address}:${port}`,
  );
  console.log(`Here:         https://localhost:${port}`);
  console.log(
    `Everybody on this network can open ports ${port} and ${plainPort} until this is ended (Ctrl+C). They get the bench, and nothing that is kept in this computer's browser.`,
  );
  console.log(
    'The camera works at once. Installing and working without a network need the certificate to be trusted;',
  );
  console.log(`the page guides through it. Its fingerprint: ${fingerprint256}`);
  console.log(`The authority is kept in ${folder}; its key never leaves that folder.`);
});
createPlain((request, response) => {
  if (guide(request, response)) return;
  response.writeHead(302, { Location: '/trust' });
  response.end();
}).listen(plainPort);
