import { createStore, del, get, keys, set } from "idb-keyval";
import type { PlanAnswer, Project, Shop } from "../api/client";

/** A document as the server has it. */
export interface Stored<T> {
  doc: T;
  revision: number;
}

/** What a device keeps of a project, or of several that are bought together, so that its page opens without the network as it was left. */
export interface Kept {
  /** When the server said so last, in milliseconds since 1970. */
  at: number;
  project: Stored<Project>;
  shop: Stored<Shop>;
  /** What was changed here and the server does not have. */
  mine?: { project?: Project; shop?: Shop };
  /** The newest plan. */
  answer?: PlanAnswer;
}

/** Where it is kept. */
export interface Keeper {
  get: (id: string) => Promise<Kept | undefined>;
  set: (id: string, k: Kept) => Promise<void>;
  del: (id: string) => Promise<void>;
  ids: () => Promise<string[]>;
}

const nothing: Keeper = {
  get: async () => undefined,
  set: async () => undefined,
  del: async () => undefined,
  ids: async () => [],
};

let made: Keeper | undefined;

/** The browser's own database; nothing is kept where it has none, or gives no room. */
export function deviceKeeper(): Keeper {
  if (made) return made;
  if (typeof indexedDB === "undefined") return nothing;
  const store = createStore("sturdyelbow", "projects");
  made = {
    get: (id) => get<Kept>(id, store).catch(() => undefined),
    set: (id, k) => set(id, k, store).catch(() => undefined),
    del: (id) => del(id, store).catch(() => undefined),
    ids: () => keys<string>(store).catch(() => []),
  };
  return made;
}

/** Keeps the newest of what it is given, one write after the other. */
export class KeepsNewest {
  /** Whether there is a place that keeps anything. */
  static get can(): boolean {
    return typeof indexedDB !== "undefined";
  }

  private next?: Kept;
  private busy = false;

  constructor(
    private readonly id: string,
    private readonly at: Keeper,
  ) {}

  keep(k: Kept) {
    this.next = k;
    if (!this.busy) void this.go();
  }

  /** What is to be kept is not kept yet. */
  get pending(): boolean {
    return this.busy;
  }

  private async go() {
    this.busy = true;
    while (this.next) {
      const k = this.next;
      this.next = undefined;
      await this.at.set(this.id, k);
    }
    this.busy = false;
  }
}
