import type { StoreApi } from "zustand/vanilla";
import { type BoughtOne, type Plan, type Project, Refusal, type Repeat } from "../api/client";
import type { Desk } from "./history";
import type { State } from "./open-project";
import type { Server } from "./server";

export interface Planned {
  plan?: Plan;
  /** The counts that are left of a starter whose frame is the builder's own. */
  repeats?: Repeat[];
  /** The lines of what was typed and set beside those that the frame is drawn with. */
  beside?: string[];
  /** The desk that the plan is of. */
  of?: Desk;
  /** The last event of the record that is in it. */
  events?: number;
  /** What each of several projects comes to by itself. */
  alone?: BoughtOne[];
  /** The server's drawing of it, where one was asked for. */
  drawing?: string;
  /** What is wrong, by the place's path in the request. */
  places: Record<string, string>;
  /** The plan shown is of an earlier, readable state. */
  old: boolean;
  failure?: string;
}

/** What a plan depends on; another name or way to write lengths plans nothing new. */
const planInput = ({ style: _s, name: _n, ...rest }: Project) => JSON.stringify(rest);

/** Nothing is wrong. It is one object, so that nobody who looks at it is drawn anew. */
export const nothing: Record<string, string> = {};

const again = 3000; // ms after a failure
const rest = 250; // ms without a change before a better purchase is looked for

/**
 * Plans the desk each time it changes. One request is under way at a time, and what came
 * in meanwhile is asked next, so that a hand on a ruler sees every answer that there was
 * time for and always the last.
 */
export class Planner {
  private busy = false;
  private closed = false;
  private want?: Desk;
  private done?: Desk;
  private better?: AbortController;
  /** Whether the page shows the server's drawing, which then comes with each plan. */
  private drawn = true;

  constructor(
    private readonly store: StoreApi<State>,
    private readonly server: Server,
  ) {}

  /** A plan that came with the page. */
  begin(planned: Planned) {
    this.done = planned.of;
    this.store.setState({ planned });
    if (planned.plan?.improving && planned.of) void this.improve(planned.of);
  }

  readonly plan = (desk: Desk) => {
    if (this.want !== desk) this.better?.abort(); // a change matters more than a better purchase
    this.want = desk;
    if (!this.busy) void this.run();
  };

  /** Something was done: what is planned is planned with it. */
  readonly refresh = () => {
    if (!this.want) return;
    this.done = undefined;
    this.better?.abort();
    if (!this.busy) void this.run();
    else this.asked = true;
  };
  private asked = false;

  /** The page shows the drawing, or no longer does. */
  readonly draw = (on: boolean) => {
    if (this.drawn === on) return;
    this.drawn = on;
    const { planned } = this.store.getState();
    if (!on || planned.drawing || !this.want) return;
    this.done = undefined;
    if (!this.busy) void this.run();
  };

  /** Tries now what failed. */
  readonly again = () => {
    this.wake?.();
  };
  private wake?: () => void;

  close() {
    this.closed = true;
    this.wake?.();
    this.better?.abort();
  }

  private set(next: (was: Planned) => Planned) {
    this.store.setState((s) => ({ planned: next(s.planned) }));
  }

  /** A large job shows a first purchase at once; the best one, with its proof, follows. */
  private async improve(d: Desk) {
    this.better?.abort();
    const better = new AbortController();
    this.better = better;
    await new Promise((go) => setTimeout(go, rest));
    const stale = () => (this.want !== undefined && this.want !== d) || this.closed || better.signal.aborted;
    if (stale()) return;
    const a = await this.server.plan(d, { signal: better.signal }).catch(() => undefined); // aborted, or asked again with the next change
    if (a && !stale())
      this.set((p) => ({
        plan: a.plan,
        repeats: a.repeats,
        beside: a.beside,
        drawing: p.drawing,
        of: d,
        events: a.events,
        alone: a.alone,
        places: nothing,
        old: false,
      }));
  }

  private async run() {
    this.busy = true;
    while (this.want && this.want !== this.done && !this.closed) {
      const d: Desk = this.want;
      if (this.done && this.done.shop === d.shop && planInput(this.done.project) === planInput(d.project)) {
        this.done = d;
        this.set((p) => {
          if (p.plan?.improving) void this.improve(d);
          return p.of ? { ...p, of: d } : p;
        });
        continue;
      }
      try {
        const a = await this.server.plan(d, { draft: true, draw: this.drawn });
        if (this.closed) break;
        this.done = this.asked ? undefined : d;
        this.asked = false;
        this.set(() => ({
          plan: a.plan,
          repeats: a.repeats,
          beside: a.beside,
          drawing: a.drawings[0],
          of: d,
          events: a.events,
          alone: a.alone,
          places: nothing,
          old: false,
        }));
        if (a.plan.improving) void this.improve(d);
      } catch (e) {
        if (this.closed) break;
        if (e instanceof Refusal && e.status < 500) {
          this.done = d;
          const places = Object.keys(e.places).length > 0 ? e.places : { "": e.message };
          this.set((p) => ({ ...p, places, old: true, failure: undefined }));
          continue;
        }
        this.set((p) => ({ ...p, failure: "The server does not answer. What you typed is kept here; it is tried again." }));
        await new Promise<void>((go) => {
          this.wake = go;
          setTimeout(go, again);
        });
        this.wake = undefined;
      }
    }
    this.busy = false;
  }
}
