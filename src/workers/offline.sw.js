/* Keeps the whole shell for use without a network. What belongs to it is put in after the build. */
import { cleanupOutdatedCaches, matchPrecache, precache } from 'workbox-precaching';

precache(self.__WB_MANIFEST);
cleanupOutdatedCaches();

// A new version waits until the page says so: it takes the files of the old one away from under open pages.
self.addEventListener('message', ({ data }) => {
  if (data?.type === 'SKIP_WAITING') void self.skipWaiting();
});
/** What is too large to be kept before it is needed; what of it belongs to this version is kept under its mark. */
const large = /^\/people\//;
const keptLarge = `people-${process.env.PEOPLE_MARK}`;

async function dropOtherLarge() {
  for (const name of await caches.keys())
    if (name.startsWith('people-') && name !== keptLarge) await caches.delete(name);
}

self.addEventListener('activate', (event) =>
  event.waitUntil(Promise.all([dropOtherLarge(), self.clients.claim()])),
);

/** What was fetched once is kept. */
async function largeAnswer(request) {
  const cache = await caches.open(keptLarge);
  const kept = await cache.match(request.url);
  if (kept) return kept;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request.url, answer.clone());
  return answer;
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== location.origin) return;
  const answer = async () => {
    if (large.test(url.pathname)) return largeAnswer(request);
    const kept = await matchPrecache(request.mode === 'navigate' ? '/' : url.pathname);
    // A new answer has no address of its own, so that a worker keeps the one it was asked for, with its query.
    return kept ? new Response(kept.body, { headers: kept.headers }) : fetch(request);
  };
  event.respondWith(answer());
});
