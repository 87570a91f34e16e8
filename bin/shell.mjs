/** The built shell as an answer to requests, with the headers that the application relies on. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import sirv from 'sirv';

const built = fileURLToPath(new URL('../out', import.meta.url));

const headersOf = (root) => ({
  'Cross-Origin-Opener-Policy': 'same-origin',
  'Cross-Origin-Embedder-Policy': 'require-corp',
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  'Permissions-Policy': 'camera=(self), microphone=(self), screen-wake-lock=(self)',
  'Content-Security-Policy': [
    "default-src 'self'",
    `script-src 'self' 'wasm-unsafe-eval' ${JSON.parse(readFileSync(`${root}/script-hashes.json`, 'utf8'))
      .map((hash) => `'${hash}'`)
      .join(' ')}`,
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
});

/** Answers requests from a built shell in a folder. */
export function shellIn(root) {
  const headers = headersOf(root);
  const files = sirv(root, {
    etag: true,
    setHeaders(response, path) {
      for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
      const cached = path.startsWith('/_next/static/') ? 'public, max-age=31536000, immutable' : 'no-cache';
      response.setHeader('Cache-Control', cached);
    },
  });
  return (request, response) =>
    files(request, response, () => {
      response.writeHead(404, { 'Content-Type': 'text/plain; charset=utf-8', ...headers });
      response.end('There is no such page here. Go to / to open the bench.');
    });
}

/** Answers a request from the shell that was built here. */
export const handle = shellIn(built);
