/* Keeps the whole shell for use without a network. The version and the list are put in after the build. */
const version = '__VERSION__';
const files = '__FILES__';
const cacheName = `shell-${version}`;

self.addEventListener('install', (event) => {
  event.waitUntil(
    caches
      .open(cacheName)
      .then((cache) => cache.addAll(files))
      .then(() => self.skipWaiting()),
  );
});

self.addEventListener('activate', (event) => {
  event.waitUntil(
    caches
      .keys()
      .then((names) =>
        Promise.all(names.filter((name) => name !== cacheName).map((name) => caches.delete(name))),
      )
      .then(() => self.clients.claim()),
  );
});

self.addEventListener('fetch', (event) => {
  const url = new URL(event.request.url);
  if (event.request.method !== 'GET' || url.origin !== location.origin) return;
  const wanted = event.request.mode === 'navigate' ? '/' : url.pathname;
  event.respondWith(
    caches
      .open(cacheName)
      .then((cache) => cache.match(wanted, { ignoreSearch: true }))
      // A new answer has no address of its own, so that a worker keeps the one it was asked for, with its query.
      .then((kept) => (kept ? new Response(kept.body, { headers: kept.headers }) : fetch(event.request))),
  );
});
