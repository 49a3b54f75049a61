import { type DoneEvent, type EventsAnswer, Refusal } from "../api/client";
import { newId } from "./device";

/** What was done with one press, on its way. */
export interface Batch {
  key: string;
  events: DoneEvent[];
  /** The server has it, up to this sequence number; it stays until a plan has it too. */
  last?: number;
}

/** An event that the server cannot take, and why. */
export interface Aside {
  event: DoneEvent;
  why: string;
}

/** Where events wait, so that neither a reload nor a closed window loses them. */
export interface Shelf {
  /** In the order in which it was done. */
  list: () => Batch[];
  put: (events: DoneEvent[]) => string;
  /** Puts another batch in the place of one. */
  set: (b: Batch) => void;
  drop: (key: string) => void;
  /** What is set aside. */
  aside: () => Aside[];
  setAside: (a: Aside) => void;
  /** An event is no longer set aside. */
  takeUp: (event: string) => void;
}

/** A shelf that lasts as long as the page, where the browser has no storage to give. */
export function pageShelf(): Shelf {
  const all = new Map<string, Batch>();
  const aside = new Map<string, Aside>();
  return {
    list: () => [...all.values()],
    put: (events) => {
      const key = newId();
      all.set(key, { key, events });
      return key;
    },
    set: (b) => void all.set(b.key, b),
    drop: (key) => void all.delete(key),
    aside: () => [...aside.values()],
    setAside: (a) => void aside.set(a.event.id, a),
    takeUp: (event) => void aside.delete(event),
  };
}

const shelves = "sturdyelbow.done.";
const asides = "sturdyelbow.aside.";

/** The projects of which something waits in the browser's storage, or is set aside there. */
export const shelvesWithEvents = (): string[] => [
  ...new Set(
    Object.keys(localStorage).flatMap((k) =>
      [shelves, asides].filter((s) => k.startsWith(s)).map((s) => k.slice(s.length, k.indexOf(".", s.length))),
    ),
  ),
];

/** The browser's own storage, for one project, or for several that are bought together. */
export function shelfOf(project: string): Shelf {
  if (typeof localStorage === "undefined") return pageShelf();
  const here = (of: string) => `${of}${project}.`;
  const read = <T>(of: string): [string, T][] =>
    Object.keys(localStorage)
      .filter((k) => k.startsWith(here(of)))
      .sort()
      .flatMap((key) => {
        try {
          return [[key, JSON.parse(localStorage.getItem(key) ?? "") as T] as [string, T]];
        } catch {
          return [];
        }
      });
  return {
    list: () => read<DoneEvent[] | Omit<Batch, "key">>(shelves).map(([key, b]) => (Array.isArray(b) ? { key, events: b } : { ...b, key })),
    put: (events) => {
      const key = here(shelves) + newId();
      localStorage.setItem(key, JSON.stringify({ events }));
      return key;
    },
    set: ({ key, ...b }) => localStorage.setItem(key, JSON.stringify(b)),
    drop: (key) => localStorage.removeItem(key),
    aside: () => read<Aside>(asides).map(([, a]) => a),
    setAside: (a) => localStorage.setItem(here(asides) + a.event.id, JSON.stringify(a)),
    takeUp: (event) => localStorage.removeItem(here(asides) + event),
  };
}

/** A shelf that goes on in the page's memory where the other has no more room. */
export function roomy(shelf: Shelf): Shelf {
  const more = pageShelf();
  const or =
    <A>(first: (a: A) => void, second: (a: A) => void) =>
    (a: A) => {
      try {
        first(a);
      } catch {
        second(a);
      }
    };
  return {
    list: () => [...shelf.list(), ...more.list()],
    put: (events) => {
      try {
        return shelf.put(events);
      } catch {
        return more.put(events);
      }
    },
    set: (b) => (more.list().some((m) => m.key === b.key) ? more.set(b) : or(shelf.set, more.set)(b)),
    drop: (key) => {
      shelf.drop(key);
      more.drop(key);
    },
    aside: () => [...shelf.aside(), ...more.aside()],
    setAside: or(shelf.setAside, more.setAside),
    takeUp: (event) => {
      shelf.takeUp(event);
      more.takeUp(event);
    },
  };
}

/** What is told along with what somebody pressed. */
const along = ["begun", "lettered", "parted"];

/** How many things that somebody pressed are among events. */
export const pressesOf = (events: DoneEvent[]): number => {
  const pressed = events.filter((e) => !along.includes(e.kind)).length;
  return pressed || (events.length > 0 ? 1 : 0);
};

/** The batches that the server does not have yet. */
export const waitingOf = (shelf: Shelf): Batch[] => shelf.list().filter((b) => b.last === undefined);

/** The events of a batch that a refusal points at, each with what is wrong. One for any other reason, such as a page of another version, points at none. */
function pointedAt(e: unknown, events: DoneEvent[]): Map<DoneEvent, string> {
  const wrong = new Map<DoneEvent, string>();
  if (!(e instanceof Refusal) || e.status !== 422 || e.otherVersion) return wrong;
  for (const [place, what] of Object.entries(e.places)) {
    const at = /^\/events\/(\d+)(\/|$)/.exec(place);
    const event = at && events[Number(at[1])];
    if (event) wrong.set(event, wrong.has(event) ? `${wrong.get(event)}; ${what}` : what);
  }
  return wrong;
}

/**
 * Sends what waits on a shelf, in its order. What the server has is kept there until `planned`; an event that it cannot take is set
 * aside with its reason, and the others go on. Gives why the rest still waits; nothing where all is with the server.
 */
export async function sendWaiting(
  shelf: Shelf,
  send: (events: DoneEvent[]) => Promise<EventsAnswer>,
  told: (last?: number) => void = () => undefined,
): Promise<Error | undefined> {
  for (const batch of waitingOf(shelf)) {
    for (let { events } = batch; ; ) {
      try {
        const { last } = await send(events);
        shelf.set({ key: batch.key, events, last });
        told(last);
        break;
      } catch (e) {
        const wrong = pointedAt(e, events);
        if (wrong.size === 0) return e as Error;
        for (const [event, why] of wrong) shelf.setAside({ event, why });
        events = events.filter((x) => !wrong.has(x));
        if (events.length > 0) shelf.set({ key: batch.key, events });
        else shelf.drop(batch.key);
        told();
        if (events.length === 0) break;
      }
    }
  }
  return undefined;
}

/** Waits a little until the server has what was done to a project on this device; whether it has. */
export async function hasAll(project: string, patience = 3000): Promise<boolean> {
  const shelf = shelfOf(project);
  for (const end = Date.now() + patience; waitingOf(shelf).length > 0; await new Promise((go) => setTimeout(go, 50)))
    if (Date.now() > end) return false;
  return true;
}
