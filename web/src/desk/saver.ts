import { Refusal } from "../api/client";

export type SaveState =
  | { is: "saved" }
  | { is: "waiting" }
  | { is: "saving" }
  | { is: "failed"; why: string }
  | { is: "stale"; newer: number };

const pause = 500; // ms after the last change before it is saved
const retry = 4000;

const underWay = new Set<Promise<void>>();

/** Waits until what was being saved is saved, or has failed: a page that is opened now is to show it. */
export async function savesDone() {
  while (underWay.size > 0) await Promise.all(underWay);
}

/** Keeps one stored document saved as it changes, one save at a time. */
export class Saver<T> {
  state: SaveState = { is: "saved" };
  /** What the store has, as far as this window knows. */
  stored?: T;
  revision = 0;
  /** What was sent last, whether its answer came or not. */
  sent?: T;
  private wanted?: T;
  private busy = false;
  /** The window is going: what came while a save was under way follows at once. */
  private hurried = false;
  private timer?: ReturnType<typeof setTimeout>;

  constructor(
    private readonly put: (revision: number, doc: T) => Promise<number>,
    private readonly tell: () => void,
  ) {}

  loaded(doc: T, revision: number) {
    clearTimeout(this.timer);
    this.stored = doc;
    this.wanted = doc;
    this.revision = revision;
    this.say({ is: "saved" });
  }

  want(doc: T) {
    if (doc === this.wanted) return;
    this.wanted = doc;
    if (this.busy || this.state.is === "stale" || this.stored === undefined) return;
    this.later(pause);
  }

  /** Saves now what is waiting: the window is about to go. */
  flush() {
    if (this.state.is === "stale" || this.wanted === this.stored) return;
    if (this.busy) {
      this.hurried = true;
      return;
    }
    clearTimeout(this.timer);
    this.start();
  }

  /** Saves over a newer revision that the person has seen. */
  over(revision: number) {
    this.revision = revision;
    clearTimeout(this.timer);
    this.start();
  }

  private start() {
    const done = this.save().finally(() => underWay.delete(done));
    underWay.add(done);
  }

  private later(ms: number) {
    clearTimeout(this.timer);
    if (this.wanted === this.stored) {
      this.say({ is: "saved" });
      return;
    }
    if (this.state.is === "saved") this.say({ is: "waiting" });
    this.timer = setTimeout(() => this.start(), ms);
  }

  private async save() {
    const doc = this.wanted;
    if (doc === undefined) return;
    this.busy = true;
    this.say({ is: "saving" });
    try {
      this.sent = doc;
      this.revision = await this.put(this.revision, doc);
      this.stored = doc;
      this.busy = false;
      if (this.hurried && this.wanted !== this.stored) {
        this.hurried = false;
        await this.save();
        return;
      }
      this.later(pause);
    } catch (e) {
      this.busy = false;
      if (e instanceof Refusal && e.status === 409) {
        this.say({ is: "stale", newer: Number(e.value("/revision")) });
        return;
      }
      this.say({ is: "failed", why: e instanceof Refusal ? e.message : "the server does not answer" });
      this.later(retry);
    }
  }

  private say(s: SaveState) {
    this.state = s;
    this.tell();
  }
}
