// Lets a page that was seen before open without the network, where the browser allows it. It keeps what was
// fetched and asks the server first: what it gives in the server's place says so, and from when it is. What is
// typed and ticked is kept by the page itself, and sent by it.
//
// The build writes the names of all files of this version in the place of FILES: with another version they are
// kept anew, and those of the one before are let go.
const files = FILES;
const version = VERSION;
const filesKept = `sturdyelbow-files-${version}`;
const readsKept = "sturdyelbow-reads";
const patience = 4000; // ms that a page waits for the server before what was kept is shown

addEventListener("install", (e) =>
  e.waitUntil(
    caches
      .open(filesKept)
      .then((store) => store.addAll(files))
      .catch(() => undefined) // there is no room, or no server: each is kept when it is asked for
      .then(() => skipWaiting()),
  ),
);

addEventListener("activate", (e) =>
  e.waitUntil(
    caches
      .keys()
      .then((all) =>
        Promise.all(all.filter((k) => k.startsWith("sturdyelbow-") && k !== filesKept && k !== readsKept).map((k) => caches.delete(k))),
      )
      .then(() => clients.claim()),
  ),
);

// Files whose names carry a hash never change.
const forGood = async (request) => {
  const had = await caches.match(request, { ignoreVary: true });
  if (had) return had;
  const answer = await fetch(request);
  if (answer.ok) await (await caches.open(filesKept)).put(request, answer.clone()).catch(() => undefined);
  return answer;
};

/** What was kept, with the time that it is from. */
const asKept = async (had, page) => {
  const headers = new Headers(had.headers);
  const since = Date.parse(headers.get("X-Kept-At") ?? headers.get("Date") ?? "") || 1;
  headers.set("X-Kept", String(since));
  const body = page ? (await had.text()).replace("<html ", `<html data-kept="${since}" `) : had.body;
  return new Response(body, { status: had.status, statusText: had.statusText, headers });
};

const keep = async (store, key, answer) => {
  const headers = new Headers(answer.headers);
  headers.set("X-Kept-At", new Date().toISOString());
  await store.put(key, new Response(answer.body, { status: answer.status, statusText: answer.statusText, headers })).catch(() => undefined);
};

// The server first; what it said last where it does not answer, or not soon.
const fresh = async (request, key, page) => {
  const store = await caches.open(page ? filesKept : readsKept); // a page goes with the files that it names
  const asked = fetch(request).then(async (answer) => {
    if (answer.ok) await keep(store, key, answer.clone());
    return answer;
  });
  // a page that was never seen opens as any other does: it knows by its address what it is
  const had = (await store.match(key, { ignoreVary: true })) ?? (page ? await store.match("/", { ignoreVary: true }) : undefined);
  if (!had) return asked;
  const late = new Promise((go) => setTimeout(go, patience));
  const answer = await Promise.race([asked, late]).catch(() => undefined);
  asked.catch(() => undefined);
  return answer ?? asKept(had.clone(), page);
};

const reads = /^\/api\/(about|starters|pictures|shop|projects|projects\/[^/]+|projects\/[^/]+\/(card|events)|purchases\/[^/]+|prices|rack)$/;

addEventListener("fetch", (e) => {
  const { request } = e;
  const at = new URL(request.url);
  if (request.method !== "GET" || at.origin !== location.origin) return;
  if (at.pathname.startsWith("/assets/") || at.pathname === "/icon.svg") e.respondWith(forGood(request));
  else if (request.mode === "navigate" && !at.pathname.startsWith("/api/")) e.respondWith(fresh(request, at.pathname + at.search, true));
  else if (reads.test(at.pathname)) e.respondWith(fresh(request, request, false));
});
