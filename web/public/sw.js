// Lets a page that was seen before open without the network, where the browser allows it. It keeps what was
// fetched and asks the server first whenever that answers: it never shows something old in the place of
// something new. What is typed and ticked is kept by the page itself, and sent by it.
const kept = "sturdyelbow-1";
const patience = 4000; // ms that a page waits for the server before what was kept is shown

addEventListener("install", (e) => e.waitUntil(skipWaiting()));

addEventListener("activate", (e) =>
  e.waitUntil(
    caches
      .keys()
      .then((all) => Promise.all(all.filter((k) => k.startsWith("sturdyelbow-") && k !== kept).map((k) => caches.delete(k))))
      .then(() => clients.claim()),
  ),
);

// Files whose names carry a hash never change.
const forGood = async (request) => {
  const store = await caches.open(kept);
  const had = await store.match(request);
  if (had) return had;
  const answer = await fetch(request);
  if (answer.ok) await store.put(request, answer.clone());
  return answer;
};

// The server first; what it said last where it does not answer.
const fresh = async (request, key = request) => {
  const store = await caches.open(kept);
  const asked = fetch(request).then(async (answer) => {
    if (answer.ok) await store.put(key, answer.clone());
    return answer;
  });
  const had = await store.match(key, { ignoreVary: true });
  if (!had) return asked;
  const late = new Promise((go) => setTimeout(go, patience, had.clone()));
  return Promise.race([asked, late]).catch(() => had);
};

const reads = /^\/api\/(about|starters|pictures|shop|projects|projects\/[^/]+|projects\/[^/]+\/card|purchases\/[^/]+)$/;

addEventListener("fetch", (e) => {
  const { request } = e;
  const at = new URL(request.url);
  if (request.method !== "GET" || at.origin !== location.origin) return;
  if (at.pathname.startsWith("/assets/") || at.pathname === "/icon.svg") e.respondWith(forGood(request));
  else if (request.mode === "navigate") e.respondWith(fresh(request, at.pathname + at.search));
  else if (reads.test(at.pathname)) e.respondWith(fresh(request));
});
