// Holds the day's sheets, and what belongs to them, for the time without signal. With signal, what is fresh is shown; pages and pictures of
// the plan are forgotten when somebody signs out.
const PAGES = 'meadow-pages-1';
const PARTS = 'meadow-parts-1';
const PATIENCE_MS = 4000;
const MOST_HELD = 150;
const MOST_TRIES = 6;
const AGAIN_MS = 1500;

// Pages that belong to a sheet are not asked for again with every look at it.
const HELD_FOR_MS = 3 * 3_600_000;

const isPart = (url) => /\/(css|js|lib|img)\/|favicon/.test(url.pathname);

const put = async (request, answer) => {
  // A page that only stands in until its own is reckoned is no page to be held.
  if (!answer.ok || answer.redirected || answer.type !== 'basic' || answer.headers.has('Refresh')) return;
  const cache = await caches.open(isPart(new URL(request.url)) ? PARTS : PAGES);
  await cache.put(request, answer);
};

const held = async (request) => (await caches.match(request)) ?? (await caches.match(request, { ignoreSearch: isPart(new URL(request.url)) }));

const fresh = async (request) => {
  const answer = await fetch(request);
  await put(request, answer.clone());
  return answer;
};

// What is to be held, once it is there: a page that is still being reckoned is asked for again.
const hold = async (request) => {
  for (let tries = 0; tries < MOST_TRIES; tries++) {
    const answer = await fresh(request);
    if (!answer.headers.has('Refresh')) return;
    await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
  }
};

// What is fresh, unless it takes too long and something is held.
const freshOrHeld = async (request) => {
  const asked = fresh(request);
  asked.catch(() => {});
  const late = new Promise((resolve) => setTimeout(resolve, PATIENCE_MS, null));
  try {
    const answer = await Promise.race([asked, late]);
    if (answer && answer.status < 500) return answer;
  } catch {
    // No signal.
  }
  return (await held(request)) ?? asked;
};

addEventListener('install', () => skipWaiting());
addEventListener('activate', (event) => event.waitUntil(clients.claim()));

addEventListener('message', (event) => {
  const wanted = event.data?.hold;
  if (!Array.isArray(wanted)) return;
  event.waitUntil(
    (async () => {
      for (const url of wanted.slice(0, MOST_HELD)) {
        const { origin, pathname } = new URL(url);
        if (origin !== location.origin) continue;
        const request = new Request(url);
        const there = await held(request);
        const age = there ? Date.now() - Date.parse(there.headers.get('Date')) : Infinity;
        if (/\/today$/.test(pathname) || !(age < HELD_FOR_MS)) await hold(request).catch(() => {});
      }
    })(),
  );
});

addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (url.origin !== location.origin) return;
  if (request.method === 'POST' && url.pathname.endsWith('/signout')) {
    event.waitUntil(caches.delete(PAGES));
    return;
  }
  if (request.method !== 'GET') return;
  if (isPart(url)) {
    event.respondWith(url.searchParams.has('v') ? held(request).then((h) => h ?? fresh(request)) : freshOrHeld(request));
    return;
  }
  // Only what was asked to be held, or is the sheet itself, is answered from here.
  if (/\/today$/.test(url.pathname)) event.respondWith(freshOrHeld(request));
  else
    event.respondWith(
      fetch(request).catch(async (fault) => {
        const answer = await held(request);
        if (answer) return answer;
        throw fault;
      }),
    );
});
