import { useEffect, useState } from "react";
import { type DoneEvent, type EventsAnswer, type Project, Refusal, type Shop, api, ask } from "../api/client";
import { mergeShops } from "./history";
import { type Keeper, type Kept, deviceKeeper } from "./kept";
import { sayDone, sayTogether, standsFor } from "./server";
import { pressesOf, sendWaiting, shelfOf, shelvesWithEvents, waitingOf } from "./shelf";

/** What waits on this device of one project, or of several that are bought together. */
export interface Waiting {
  /** The project, or several with commas between; "" is the shop. */
  id: string;
  events: number;
  /** Events that the server could not take, and that are set aside. */
  aside: number;
  /** Sizes, prices and the like that were changed. */
  changes: boolean;
  /** The server does not answer, it is refused, or the project is gone. */
  why: "silent" | "refused" | "gone";
}

/** Says what was done to one project, or to several that are bought together. */
const sayTo =
  (id: string) =>
  (events: DoneEvent[]): Promise<EventsAnswer> =>
    id.includes(",") ? sayTogether(standsFor(id), events) : sayDone(id, events);

/** What stores changes that were kept. */
export interface Stores {
  project: (id: string, revision: number, p: Project) => Promise<number>;
  shop: () => Promise<{ doc: Shop; revision: number }>;
  saveShop: (revision: number, s: Shop) => Promise<number>;
}

const stores: Stores = {
  project: async (id, revision, project) =>
    id.includes(",")
      ? (await ask(api.PUT("/api/purchases/{of}", { params: { path: { of: id } }, body: { revision, project } }))).revision
      : (await ask(api.PUT("/api/projects/{id}", { params: { path: { id } }, body: { revision, project } }))).revision,
  shop: async () => {
    const s = await ask(api.GET("/api/shop"));
    return { doc: s.shop, revision: s.revision };
  },
  saveShop: async (revision, shop) => (await ask(api.PUT("/api/shop", { body: { revision, shop } }))).revision,
};

/**
 * Stores what was changed on this device and the server does not have; what others changed in the shop stays. A project that
 * another window saved meanwhile waits for its page, which has both in sight. Each part that is stored is no longer kept as waiting.
 */
export async function storeChanges(id: string, at: Keeper, to: Stores): Promise<void> {
  const k = await at.get(id);
  if (!k?.mine) return;
  let now: Kept = k;
  const keep = (next: Partial<Kept>) => {
    now = { ...now, ...next };
    if (now.mine && !now.mine.project && !now.mine.shop) now = { ...now, mine: undefined };
    return at.set(id, now);
  };
  if (k.mine.shop) {
    const theirs = await to.shop();
    const doc = mergeShops(k.shop.doc, k.mine.shop, theirs.doc);
    const revision = await to.saveShop(theirs.revision, doc);
    await keep({ shop: { doc, revision }, mine: { ...now.mine, shop: undefined } });
  }
  const { project } = k.mine;
  if (project) {
    const revision = await to.project(id, k.project.revision, project);
    await keep({ project: { doc: project, revision }, mine: { ...now.mine, project: undefined } });
  }
}

/** Sends what waits on this device of projects whose page is closed, and gives what still waits. What the server refuses stays: the project's page says it. */
async function sendAll(only?: string): Promise<Waiting[]> {
  const left: Waiting[] = [];
  const at = deviceKeeper();
  const ids = only === undefined ? new Set([...shelvesWithEvents(), ...(await at.ids())]) : [only];
  for (const id of ids) {
    const shelf = shelfOf(id);
    let e: Error | undefined;
    if (waitingOf(shelf).length > 0) e = await sendWaiting(shelf, sayTo(id));
    const changed = await storeChanges(id, at, stores).then(
      () => undefined,
      (x: Error) => x,
    );
    const events = waitingOf(shelf).reduce((n, b) => n + pressesOf(b.events), 0);
    const aside = shelf.aside().length;
    if (events === 0 && aside === 0 && !changed) continue;
    const refused = [e, changed].find((x) => x instanceof Refusal) as Refusal | undefined;
    left.push({
      id,
      events,
      aside,
      changes: Boolean(changed),
      why: refused?.status === 404 ? "gone" : refused || aside ? "refused" : "silent",
    });
  }
  return left;
}

/** Lets go of what waits of a project that is gone. */
export function letGo(id: string) {
  const shelf = shelfOf(id);
  for (const b of shelf.list()) shelf.drop(b.key);
  for (const a of shelf.aside()) shelf.takeUp(a.event.id);
  void deviceKeeper().del(id);
}

const again = 10_000; // ms

/** What waits on this device, of projects that are not open, or of one of them alone; meanwhile it is sent. */
export function useWaiting(only?: string): [left: Waiting[], look: () => void] {
  const [left, setLeft] = useState<Waiting[]>([]);
  const [look, lookAgain] = useState(0);
  useEffect(() => {
    let over = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const go = async () => {
      clearTimeout(timer);
      const still = await sendAll(only);
      if (over) return;
      setLeft(still);
      if (still.length > 0) timer = setTimeout(() => void go(), again);
    };
    const now = () => void go();
    addEventListener("online", now);
    void go();
    return () => {
      over = true;
      clearTimeout(timer);
      removeEventListener("online", now);
    };
  }, [look, only]);
  return [left, () => lookAgain((n) => n + 1)];
}
