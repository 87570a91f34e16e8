/** The built shell as an answer to requests, with the headers that the application relies on. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import sirv from 'sirv';

const root = fileURLToPath(new URL('../out', import.meta.url));
const scripts = JSON.parse(readFileSync(`${root}/script-hashes.json`, 'utf8'));

const headers = {
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'Permissions-Policy': 'camera=(self), microphone=(self), screen-wake-lock=(self)',
  'Content-Security-Policy': [
    "default-src 'self'",
    `script-src 'self' ${scripts.map((hash) => `'${hash}'`).join(' ')}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "media-src 'self' blob: mediastream:",
    "worker-src 'self'",
    "connect-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "frame-ancestors 'none'",
    "form-action 'none'",
  ].join('; '),
};

const files = sirv(root, {
  etag: true,
  setHeaders(response, path) {
    for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
    const cached = path.startsWith('/_next/static/') ? 'public, max-age=31536000, immutable' : 'no-cache';
    response.setHeader('Cache-Control', cached);
  },
});

/** Answers a request from the built shell. */
export function handle(request, response) {
  files(request, response, () => {
    response.writeHead(404, { 'Content-Type': 'text/plain; charset=utf-8', ...headers });
    response.end('There is no such page here. Go to / to open the bench.');
  });
}
