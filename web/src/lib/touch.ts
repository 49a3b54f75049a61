import { createStore } from "zustand/vanilla";

/** What is known of the server, and of what the page shows of it. */
export interface Touch {
  /** What was taken from this device in the server's place, each with the time it is from, in milliseconds since 1970. */
  kept: Record<string, number>;
  /** Since when the server does not answer a page that is open. */
  lost?: number;
  /** The server is another version of the program now than this page. */
  newer?: boolean;
  /** Somebody said that what is kept will do to cut by. */
  accepted?: boolean;
}

/** The server was needed for what somebody typed, and did not answer: it is asked again. */
export class Unanswered extends Error {
  constructor(message = "The server does not answer: what you typed waits here, and is taken as soon as it does.") {
    super(message);
  }
}

/** The touch that this window has with the server. */
export const touch = createStore<Touch>(() => ({ kept: {} }));

/** Something is shown as it was kept on this device. */
export const keptAs = (key: string, since: number) =>
  touch.setState((t) => (t.kept[key] === since ? t : { kept: { ...t.kept, [key]: since } }));

/** The server said it itself. What is left of nothing kept is cut from without a word again. */
export const freshAs = (key: string) =>
  touch.setState((t) => {
    if (!(key in t.kept)) return t;
    const { [key]: _gone, ...kept } = t.kept;
    return { kept, accepted: Object.keys(kept).length > 0 && t.accepted };
  });

export const lostTouch = () => touch.setState((t) => (t.lost ? t : { lost: Date.now() }));
export const inTouch = () => {
  touch.setState((t) => (t.lost ? { lost: undefined } : t));
  freshAs("page"); // the page itself is the same, whoever gave it
};

/** Cuts may be made by what is kept: somebody has seen from when it is. */
export const accept = () => touch.setState({ accepted: true });

/** The oldest of what is kept; nothing where all is the server's own. */
export const keptSince = (t: Touch): number | undefined => {
  const all = Object.values(t.kept);
  return all.length > 0 ? Math.min(...all) : undefined;
};

const mine = (): string | undefined => (typeof document === "undefined" ? undefined : document.documentElement.dataset.version);

/** The server says which version it is: another than the page was made by has files that this page cannot ask for. */
export const versionIs = (v: string | null | undefined) => {
  const own = mine();
  if (v && own && v !== own) touch.setState({ newer: true });
};

/** The header of an answer that was kept on this device: from when it is, in milliseconds since 1970. */
export const keptHeader = "X-Kept";

/** Looks at an answer of the server, or of what was kept in its place. */
export function noticed(r: Response): Response {
  const since = Number(r.headers.get(keptHeader) ?? 0);
  const key = r.url;
  if (since > 0) keptAs(key, since);
  else {
    freshAs(key);
    if (r.ok) inTouch();
    versionIs(r.headers.get("X-Version"));
  }
  return r;
}

let asking = false;

/**
 * Asks for whatever was kept once more: what is in sight or will be through its queries, then what else was read, which nobody else
 * would ask for again.
 */
export async function askKeptAgain(queries: () => Promise<unknown>) {
  const kept = () => Object.keys(touch.getState().kept);
  if (asking || kept().length === 0) return;
  asking = true;
  try {
    await queries();
    let fresh = false;
    for (const url of kept().filter((k) => /^https?:/.test(k))) {
      const r = await fetch(url).catch(() => undefined);
      if (!r || r.headers.has(keptHeader)) continue;
      noticed(r);
      fresh = true;
    }
    if (fresh) await queries(); // what is shown of it is new, too
  } finally {
    asking = false;
  }
}

/** From when the page itself is, where it was kept on this device; 0 where the server gave it. */
export const pageKept = (): number => Number((typeof document !== "undefined" && document.documentElement.dataset.kept) || 0);
