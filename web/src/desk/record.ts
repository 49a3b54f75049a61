import { type DoneEvent, type EventsAnswer, Refusal } from "../api/client";
import { newId } from "./device";

/** Something that was done, before the server has it. */
export type ToDo = Omit<DoneEvent, "id" | "seq" | "at" | "device">;

/** What was done here and is not in a plan yet. */
export interface Outgoing {
  /** In the order in which it was done. */
  events: DoneEvent[];
  /** The server has all of it, up to this sequence number. */
  last: number;
  /** Why it does not go out. */
  why?: string;
}

export const nothingDone: Outgoing = { events: [], last: 0 };

const retry = 3000; // ms

/** Where events wait, so that neither a reload nor a closed window loses them. */
export interface Shelf {
  list: () => { key: string; events: DoneEvent[] }[];
  put: (events: DoneEvent[]) => string;
  drop: (key: string) => void;
}

/** A shelf that lasts as long as the page, where the browser has no storage to give. */
export function pageShelf(): Shelf {
  const all = new Map<string, DoneEvent[]>();
  return {
    list: () => [...all].map(([key, events]) => ({ key, events })),
    put: (events) => {
      const key = newId();
      all.set(key, events);
      return key;
    },
    drop: (key) => void all.delete(key),
  };
}

const shelves = "sturdyelbow.done.";

/** The projects of which something waits in the browser's storage. */
export const shelvesWithEvents = (): string[] => [
  ...new Set(
    Object.keys(localStorage)
      .filter((k) => k.startsWith(shelves))
      .map((k) => k.slice(shelves.length, k.indexOf(".", shelves.length))),
  ),
];

/** The browser's own storage, for one project. */
export function shelfOf(project: string): Shelf {
  if (typeof localStorage === "undefined") return pageShelf();
  const prefix = `${shelves}${project}.`;
  return {
    list: () =>
      Object.keys(localStorage)
        .filter((k) => k.startsWith(prefix))
        .sort()
        .flatMap((key) => {
          try {
            return [{ key, events: JSON.parse(localStorage.getItem(key) ?? "[]") as DoneEvent[] }];
          } catch {
            return [];
          }
        }),
    put: (events) => {
      const key = prefix + newId();
      localStorage.setItem(key, JSON.stringify(events));
      return key;
    },
    drop: (key) => localStorage.removeItem(key),
  };
}

/** Waits a little until the server has what was done to a project on this device; whether it has. */
export async function hasAll(project: string, patience = 3000): Promise<boolean> {
  const shelf = shelfOf(project);
  for (const end = Date.now() + patience; shelf.list().length > 0; await new Promise((go) => setTimeout(go, 50)))
    if (Date.now() > end) return false;
  return true;
}

/** A shelf that goes on in the page's memory where the other has no more room. */
function roomy(shelf: Shelf): Shelf {
  const more = pageShelf();
  return {
    list: () => [...shelf.list(), ...more.list()],
    put: (events) => {
      try {
        return shelf.put(events);
      } catch {
        return more.put(events);
      }
    },
    drop: (key) => {
      shelf.drop(key);
      more.drop(key);
    },
  };
}

/**
 * What was done, on its way to the server: it is put on the device's own shelf first, goes
 * out in its order, and stays until the server says that it has it. What is sent twice
 * counts once.
 */
export class Recorder {
  private busy = false;
  private closed = false;
  private timer?: ReturnType<typeof setTimeout>;
  private now: Outgoing = nothingDone;

  private readonly shelf: Shelf;

  constructor(
    shelf: Shelf,
    private readonly send: (events: DoneEvent[]) => Promise<EventsAnswer>,
    private readonly tell: (o: Outgoing) => void,
  ) {
    this.shelf = roomy(shelf);
  }

  /** Sends what an earlier window left. */
  open() {
    const left = this.shelf.list().flatMap((b) => b.events);
    if (left.length > 0) this.say({ ...this.now, events: left });
    void this.go();
  }

  /** Something was done. */
  readonly did = (all: ToDo[]) => {
    if (all.length === 0) return;
    const events = all.map((e) => ({ ...e, id: newId() }));
    this.shelf.put(events);
    this.say({ ...this.now, events: [...this.now.events, ...events] });
    void this.go();
  };

  /** A plan has all up to a sequence number in it. */
  planned(seq: number) {
    if (this.now.events.length === 0 || this.shelf.list().length > 0 || seq < this.now.last) return;
    this.say({ events: [], last: this.now.last });
  }

  get unsent(): boolean {
    return this.shelf.list().length > 0;
  }

  close() {
    this.closed = true;
    clearTimeout(this.timer);
  }

  private async go() {
    if (this.busy) return;
    this.busy = true;
    clearTimeout(this.timer);
    for (const batch of this.shelf.list()) {
      try {
        const a = await this.send(batch.events);
        this.shelf.drop(batch.key);
        this.say({ ...this.now, last: Math.max(this.now.last, a.last), why: undefined });
      } catch (e) {
        this.busy = false;
        if (e instanceof Refusal && e.status === 422) {
          // it makes no sense to the server, and never will: it is said, and goes no further
          this.shelf.drop(batch.key);
          const gone = new Set(batch.events.map((x) => x.id));
          this.say({
            ...this.now,
            events: this.now.events.filter((x) => !gone.has(x.id)),
            why: `${e.message}: ${Object.values(e.places)[0] ?? ""}`,
          });
          void this.go();
          return;
        }
        const why = e instanceof Refusal && e.status !== 404 ? e.message : undefined;
        const gone = e instanceof Refusal && e.status === 404;
        this.say({ ...this.now, why: gone ? "The project was deleted" : (why ?? "The server does not answer") });
        if (!this.closed) this.timer = setTimeout(() => void this.go(), retry);
        return;
      }
    }
    this.busy = false;
    if (this.unsent) void this.go(); // done meanwhile
  }

  private say(o: Outgoing) {
    this.now = o;
    this.tell(o);
  }
}
