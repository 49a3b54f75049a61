import { replaceEqualDeep } from "@tanstack/react-query";
import type { StoreApi } from "zustand/vanilla";
import type { Project, Shop } from "../api/client";
import { type Desk, type Subject, begin, change, mergeShops, redo, settle, undo } from "./history";
import { merge, same } from "./merge";
import type { State } from "./open-project";
import { type SaveState, Saver } from "./saver";
import type { Stored } from "./kept";
import type { Server } from "./server";

/** What another window stored while this one was at work. */
export interface Other {
  project: Project;
  revision: number;
  /** Both versions in one, when no place was changed in both. */
  both?: Project;
  base: Project;
}

const graver = (a: SaveState, b: SaveState): SaveState => {
  const order = ["saved", "waiting", "saving", "failed", "stale"];
  return order.indexOf(b.is) > order.indexOf(a.is) ? b : a;
};

/** The project and the shop with their history, saved as they change. */
export class Documents {
  private readonly projects: Saver<Project>;
  private readonly shops: Saver<Shop>;
  private readonly heard = new Set<(d: Desk) => void>();
  private closed = false;

  constructor(
    private readonly store: StoreApi<State>,
    private readonly server: Server,
    /** A save began, ended or failed. */
    private readonly onSaved: () => void = () => undefined,
  ) {
    this.projects = new Saver(
      (revision, p) => server.saveProject(revision, p),
      () => this.told(),
    );
    this.shops = new Saver(
      (revision, s) => server.saveShop(revision, s),
      () => this.told(),
    );
  }

  /** Puts on the desk what the server has, or had. */
  open(p: Stored<Project>, s: Stored<Shop>) {
    if (this.closed) return;
    this.projects.loaded(p.doc, p.revision);
    this.shops.loaded(s.doc, s.revision);
    this.store.setState({ history: begin({ project: p.doc, shop: s.doc }) });
    this.tell();
  }

  /** What was changed on this device and never reached the server: it is done again on what it was done to, and saved like any change. */
  takeUp(mine: { project?: Project; shop?: Shop }, on: { project: Stored<Project>; shop: Stored<Shop> }) {
    const { shop, project } = mine;
    if (shop) {
      const now = this.current()?.shop ?? on.shop.doc;
      this.editShop("As it was left on this device", () => mergeShops(on.shop.doc, shop, now));
    }
    if (!project || same(project, this.current()?.project)) return;
    // what another window saved since is told when this is saved, with both in sight
    if (on.project.revision < this.projects.revision) this.projects.loaded(on.project.doc, on.project.revision);
    this.edit("As it was left on this device", () => project);
  }

  /** What the server has, as far as is known here, and what was changed here since. */
  kept(): { project: Stored<Project>; shop: Stored<Shop>; mine?: { project?: Project; shop?: Shop } } | undefined {
    const now = this.current();
    const { stored: project } = this.projects;
    const { stored: shop } = this.shops;
    if (!now || !project || !shop) return undefined;
    const mine = {
      ...(same(now.project, project) ? {} : { project: now.project }),
      ...(same(now.shop, shop) ? {} : { shop: now.shop }),
    };
    return {
      project: { doc: project, revision: this.projects.revision },
      shop: { doc: shop, revision: this.shops.revision },
      mine: Object.keys(mine).length > 0 ? mine : undefined,
    };
  }

  /** Nothing that the server is known to have is newer than here. */
  get upToDate(): boolean {
    return this.newest.revision <= this.projects.revision && this.newest.shop <= this.shops.revision;
  }

  /** Another start of the server, or another file of its: whether it has less than was saved from here, as one that was put back has. */
  readonly lookAnew = async () => {
    const { state, stored } = this.projects;
    if (state.is !== "saved" || !stored) return; // the save says what differs
    const p = await this.server.project();
    if (this.closed || this.projects.state.is !== "saved") return;
    const less = p.revision < this.projects.revision || (p.revision === this.projects.revision && !same(p.doc, stored));
    if (less) this.store.setState({ earlier: { doc: p.doc, revision: p.revision } });
    else void this.heardOf(p.revision, this.newest.shop);
  };

  /** Ends that the server was put back: the page takes its state, or saves its own over it. */
  readonly afterEarlier = (which: "theirs" | "mine") => {
    const { earlier } = this.store.getState();
    if (!earlier) return;
    this.store.setState({ earlier: undefined });
    this.newest = { revision: 0, shop: 0 };
    if (which === "mine") {
      this.projects.over(earlier.revision);
      return;
    }
    this.projects.loaded(earlier.doc, earlier.revision);
    this.both("What the server was put back to", (d) => ({ ...d, project: earlier.doc }));
  };

  /** The desk this moment. */
  readonly current = (): Desk | undefined => this.store.getState().history?.now;

  /** Hears of every change before the page is drawn anew; gives what ends it. */
  readonly onChange = (heard: (d: Desk) => void) => {
    this.heard.add(heard);
    return () => void this.heard.delete(heard);
  };

  readonly edit = (label: string, f: (p: Project) => Project, on?: Subject) =>
    this.both(
      label,
      (d) => {
        const project = f(d.project);
        return project === d.project ? d : { ...d, project };
      },
      on,
    );
  readonly editShop = (label: string, f: (s: Shop) => Shop, on?: Subject) => this.both(label, (d) => ({ ...d, shop: f(d.shop) }), on);
  readonly settle = () => this.update(settle);
  readonly undo = () => this.update(undo);
  readonly redo = () => this.update(redo);

  /** Ends a clash of two windows. */
  readonly keep = (which: "mine" | "theirs" | "both") => {
    const { other } = this.store.getState();
    if (!other) return;
    this.store.setState({ other: undefined });
    if (which === "mine") {
      this.projects.over(other.revision);
      return;
    }
    this.projects.loaded(other.project, other.revision);
    const project = which === "both" && other.both ? other.both : other.project;
    this.both(which === "both" ? "Both windows' changes" : "The other window's version", (d) => ({ ...d, project }));
  };

  /** What the server has is so new; what is newer than here is fetched, unless something here is still to be saved: then the save says what differs. */
  readonly heardOf = (revision: number, shop: number) => {
    this.newest = { revision: Math.max(revision, this.newest.revision), shop: Math.max(shop, this.newest.shop) };
    void this.catchUp();
  };
  private newest = { revision: 0, shop: 0 };
  private catching = false;

  private async catchUp() {
    if (this.catching || this.closed || !this.current()) return;
    this.catching = true;
    try {
      if (this.newest.revision > this.projects.revision && this.projects.state.is === "saved") {
        const p = await this.server.project();
        if (!this.closed && this.projects.state.is === "saved" && p.revision > this.projects.revision) {
          this.projects.loaded(p.doc, p.revision);
          this.both("Changed in another window", (d) => ({ ...d, project: replaceEqualDeep(d.project, p.doc) as Project }));
          this.projects.loaded(this.current()?.project ?? p.doc, p.revision);
        }
      }
      if (this.newest.shop > this.shops.revision && this.shops.state.is === "saved") await this.joinShops();
    } catch {
      // it is tried again with the next thing heard
    } finally {
      this.catching = false;
    }
  }

  /** The window is going: what is waiting is saved at once. */
  readonly flush = () => {
    this.projects.flush();
    this.shops.flush();
  };

  get unsaved(): boolean {
    return graver(this.projects.state, this.shops.state).is !== "saved";
  }

  close() {
    this.flush();
    this.closed = true;
  }

  private both(label: string, edit: (d: Desk) => Desk, on?: Subject) {
    this.update((h) => change(h, label, edit, on, Date.now()));
  }

  private update(next: (h: NonNullable<State["history"]>) => NonNullable<State["history"]>) {
    const { history } = this.store.getState();
    if (!history) return;
    const after = next(history);
    if (after === history) return;
    this.store.setState({ history: after });
    if (after.now === history.now) return;
    this.tell();
    this.projects.want(after.now.project);
    this.shops.want(after.now.shop);
  }

  private tell() {
    const now = this.current();
    if (now) for (const heard of this.heard) heard(now);
  }

  /** A saver's state changed. */
  private told() {
    this.store.setState({ save: graver(this.projects.state, this.shops.state) });
    this.onSaved();
    if (this.shops.state.is === "stale") void this.joinShops();
    if (this.projects.state.is === "stale") void this.compare();
    if (this.newest.revision > this.projects.revision || this.newest.shop > this.shops.revision) void this.catchUp();
  }

  private joining = false;
  /** Two windows changed the shop: prices are put together one by one. */
  private async joinShops() {
    if (this.joining || this.closed) return;
    this.joining = true;
    try {
      const s = await this.server.shop();
      if (this.closed) return;
      const base = this.shops.stored ?? s.doc;
      const both = mergeShops(base, this.current()?.shop ?? base, s.doc);
      this.joining = false;
      this.shops.loaded(s.doc, s.revision);
      this.update((h) => ({ ...h, now: { ...h.now, shop: both } }));
      this.shops.want(both);
    } catch {
      // refused or closed: the shop stays unsaved, and says so
    } finally {
      this.joining = false;
    }
  }

  private comparing = false;
  /** Two windows changed the project: the person decides, with both in sight. */
  private async compare() {
    if (this.comparing || this.closed || this.store.getState().other) return;
    this.comparing = true;
    try {
      const p = await this.server.project();
      const mine = this.current()?.project;
      if (this.closed || !mine) return;
      const base = this.projects.stored ?? p.doc;
      if (this.projects.sent && same(p.doc, this.projects.sent)) {
        // it is this window's own, whose answer was lost on the way
        this.projects.loaded(p.doc, p.revision);
        this.projects.want(mine);
        return;
      }
      const m = merge(base, mine, p.doc);
      this.store.setState({ other: { project: p.doc, revision: p.revision, base, both: m.clashes.length === 0 ? m.value : undefined } });
    } catch {
      // deleted, or closed: it stays unsaved, and says so
    } finally {
      this.comparing = false;
    }
  }
}
