import { type DoneEvent, type EventsAnswer, Refusal } from "../api/client";
import { newId } from "./device";
import { type Aside, type Shelf, pressesOf, roomy, sendWaiting, waitingOf } from "./shelf";

/** Something that was done, before the server has it. */
export type ToDo = Omit<DoneEvent, "id" | "seq" | "at" | "device"> & {
  /** Its own, where another that goes with it speaks of it. */
  id?: string;
};

/** What was done here and is not in a plan yet. */
export interface Outgoing {
  /** In the order in which it was done. */
  events: DoneEvent[];
  /** How many things that somebody pressed the server does not have yet. */
  waiting: number;
  /** What the server cannot take, with its reasons. */
  aside: Aside[];
  /** The server has all of it, up to this sequence number. */
  last: number;
  /** Why it does not go out. */
  why?: string;
}

export const nothingDone: Outgoing = { events: [], waiting: 0, aside: [], last: 0 };

const retry = 3000; // ms

/**
 * What was done, on its way to the server: it is put on the device's own shelf first, goes
 * out in its order, and stays until a plan has it. What is sent twice counts once.
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

  /** Sends what an earlier window left; what the server had already shows until a plan has it. */
  open() {
    this.look();
    void this.go();
  }

  /** Something was done; gives the ids by which it can be taken back. */
  readonly did = (all: ToDo[]): string[] => {
    if (all.length === 0) return [];
    const events = all.map((e) => ({ ...e, id: e.id ?? newId() }));
    this.shelf.put(events);
    this.look();
    void this.go();
    return events.map((e) => e.id);
  };

  /** A plan has all up to a sequence number in it. */
  planned(seq: number) {
    const had = this.shelf.list().filter((b) => b.last !== undefined && b.last <= seq);
    if (had.length === 0) return;
    for (const b of had) this.shelf.drop(b.key);
    this.look();
  }

  /** What was set aside is sent once more: what stood in its way may be seen to. */
  readonly again = (event: string) => {
    const a = this.shelf.aside().find((x) => x.event.id === event);
    if (!a) return;
    this.shelf.put([a.event]);
    this.shelf.takeUp(event);
    this.look();
    void this.go();
  };

  /** What was set aside is let go: it did not happen so. */
  readonly letGo = (event: string) => {
    this.shelf.takeUp(event);
    this.look();
  };

  get unsent(): boolean {
    return waitingOf(this.shelf).length > 0;
  }

  close() {
    this.closed = true;
    clearTimeout(this.timer);
  }

  private async go() {
    if (this.busy) return;
    this.busy = true;
    clearTimeout(this.timer);
    const e = await sendWaiting(this.shelf, this.send, (last) => this.look({ last: Math.max(this.now.last, last ?? 0), why: undefined }));
    this.busy = false;
    if (e) {
      const gone = e instanceof Refusal && e.status === 404;
      const said = e instanceof Refusal ? [e.message, Object.values(e.places)[0]].filter(Boolean).join(": ") : "";
      this.look({ why: gone ? "The project was deleted" : said || "The server does not answer" });
      if (!this.closed) this.timer = setTimeout(() => void this.go(), retry);
    } else if (this.unsent) void this.go(); // done meanwhile
  }

  /** Tells what is on the shelf now. */
  private look(more: Partial<Outgoing> = {}) {
    const all = this.shelf.list();
    this.now = {
      ...this.now,
      ...more,
      events: all.flatMap((b) => b.events),
      waiting: all.reduce((n, b) => n + (b.last === undefined ? pressesOf(b.events) : 0), 0),
      aside: this.shelf.aside(),
    };
    this.tell(this.now);
  }
}
