import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { get } from 'node:https';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { X509Certificate } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { localAddresses } from '../bin/lan/addresses.mjs';

describe('the bench on the local network', () => {
  const folder = mkdtempSync(join(tmpdir(), 'ribbon-lan-'));
  let port = 0;
  let child: ChildProcess;
  let told = '';

  const start = async () => {
    told = '';
    child = spawn('node', ['bin/lan.mjs'], {
      env: { ...process.env, PORT: String(port), RIBBON_LAN: folder },
    });
    child.stdout?.on('data', (data: Buffer) => (told += data.toString()));
    await new Promise<void>((resolve, reject) => {
      child.stdout?.on('data', () => /kept in/.test(told) && resolve());
      child.once('exit', () => reject(new Error('The server ended before it was ready.')));
    });
  };
  const stop = async () => {
    child.kill();
    await once(child, 'exit');
  };
  beforeAll(async () => {
    // It takes two ports, one after the other; that whose neighbour is free too is looked for.
    const free = (wanted: number) =>
      new Promise<number>((resolve) => {
        const server = createServer().once('error', () => resolve(0));
        server.listen(wanted, () => {
          const { port: found } = server.address() as AddressInfo;
          server.close(() => resolve(found));
        });
      });
    for (let tries = 0; tries < 20 && port === 0; tries++) {
      const first = await free(0);
      if (await free(first + 1)) port = first;
    }
    await start();
  });
  afterAll(async () => {
    await stop();
    rmSync(folder, { recursive: true });
  });

  /** Asks over HTTPS, trusting this authority alone. */
  const ask = (host: string, path: string, ca: string | Buffer) =>
    new Promise<{ status: number; body: string }>((resolve, reject) =>
      get({ host, port, path, ca }, (answer) => {
        let body = '';
        answer.on('data', (data: Buffer) => (body += data.toString()));
        answer.on('end', () => resolve({ status: answer.statusCode ?? 0, body }));
      }).on('error', reject),
    );

  it('answers over HTTPS to whoever trusts its authority, by name and by address, and to nobody else', async () => {
    const ca = readFileSync(join(folder, 'authority.crt'));
    for (const host of ['localhost', ...localAddresses().slice(0, 1)]) {
      const { status, body } = await ask(host, '/', ca);
      expect(status).toBe(200);
      expect(body).toContain('Fickle Ribbon');
    }
    await expect(ask('localhost', '/', new Uint8Array() as Buffer)).rejects.toThrow();
  });

  it('gives phones the certificate and the way to trust it, without encryption too', async () => {
    const at = `http://localhost:${port + 1}`;
    const page = await (await fetch(`${at}/anything`)).text();
    expect(page).toContain('The camera works without any of this');
    expect(page).toContain('need one more step');
    const bytes = new Uint8Array(await (await fetch(`${at}/authority.crt`)).arrayBuffer());
    const certificate = new X509Certificate(bytes);
    expect(certificate.ca).toBe(true);
    expect(page).toContain(certificate.fingerprint256);
    expect(told).toContain(certificate.fingerprint256);
    expect(told).toContain('▄');
  });

  it('keeps its key to itself, and the same authority over a restart', async () => {
    expect(statSync(join(folder, 'authority.key')).mode & 0o077).toBe(0);
    const before = readFileSync(join(folder, 'authority.crt'), 'utf8');
    await stop();
    await start();
    expect(readFileSync(join(folder, 'authority.crt'), 'utf8')).toBe(before);
    expect((await ask('localhost', '/', before)).status).toBe(200);
  });

  it('finds private addresses first and never the machine’s own loop', () => {
    const address = (text: string, internal = false) =>
      ({ address: text, family: 'IPv4', internal }) as ReturnType<
        typeof import('node:os').networkInterfaces
      >['x'] extends (infer One)[] | undefined
        ? One
        : never;
    const found = localAddresses({
      lo: [address('127.0.0.1', true)],
      wan: [address('203.0.113.7')],
      wlan: [address('192.168.1.20'), address('172.20.0.3')],
    });
    expect(found).toEqual(['192.168.1.20', '172.20.0.3', '203.0.113.7']);
  });
});
