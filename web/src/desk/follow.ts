import { inTouch, lostTouch, versionIs } from "../lib/touch";

/** How new what the server has is. */
export interface Now {
  project?: string;
  revision?: number;
  events?: number;
  shop: number;
  gone?: boolean;
  /** Of the program, and which start of the server it is. */
  version: string;
  run: string;
}

const again = [250, 500, 1000, 2000, 4000]; // ms until it is tried again

const patience = 2; // times that it fails until the page says that the server does not answer

/** Hears from the server whenever a project, or with "" anything, changes; gives what ends it. A connection that breaks is made anew. */
export function follow(project: string, heard: (n: Now) => void): () => void {
  let socket: WebSocket | undefined;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let ended = false;
  let failed = 0;
  const open = () => {
    const at = new URL(`/api/follow?project=${encodeURIComponent(project)}`, location.href);
    at.protocol = at.protocol.replace("http", "ws");
    socket = new WebSocket(at);
    socket.onmessage = (m) => {
      failed = 0;
      inTouch();
      const n = JSON.parse(m.data as string) as Now;
      versionIs(n.version);
      heard(n);
    };
    socket.onclose = () => {
      if (ended) return;
      timer = setTimeout(open, again[Math.min(failed++, again.length - 1)]);
      if (failed > patience) lostTouch();
    };
  };
  // a page that was asleep, or without a network, does not wait until it is tried again
  const now = () => {
    if (document.visibilityState === "hidden" || socket?.readyState !== WebSocket.CLOSED) return;
    clearTimeout(timer);
    open();
  };
  document.addEventListener("visibilitychange", now);
  addEventListener("online", now);
  open();
  return () => {
    ended = true;
    clearTimeout(timer);
    document.removeEventListener("visibilitychange", now);
    removeEventListener("online", now);
    socket?.close();
  };
}
