import { useCallback, useEffect, useMemo, useReducer, useRef, useState } from "react";
import { type Project, type Shop, api, ask } from "../api/client";
import { type Desk, type History, begin, change, mergeShops, redo, settle, undo } from "./history";
import { merge } from "./merge";
import { type SaveState, Saver } from "./saver";

/** What another window stored while this one was at work. */
export interface Other {
  project: Project;
  revision: number;
  /** Both versions in one, when no place was changed in both. */
  both?: Project;
  base: Project;
}

export interface DeskOf {
  history?: History;
  save: SaveState;
  loading?: Error;
  other?: Other;
  edit: (label: string, edit: (p: Project) => Project, on?: string) => void;
  editShop: (label: string, edit: (s: Shop) => Shop, on?: string) => void;
  /** The desk this moment. */
  current: () => Desk | undefined;
  /** Hears of every change before the page is drawn anew; gives what ends it. */
  onChange: (heard: (d: Desk) => void) => () => void;
  settle: () => void;
  undo: () => void;
  redo: () => void;
  /** Ends a clash of two windows. */
  keep: (which: "mine" | "theirs" | "both") => void;
}

const graver = (a: SaveState, b: SaveState): SaveState => {
  const order = ["saved", "waiting", "saving", "failed", "stale"];
  return order.indexOf(b.is) > order.indexOf(a.is) ? b : a;
};

/** A project and the shop, with their history, saved as they change. */
export function useDesk(id: string): DeskOf {
  const [history, setHistory] = useState<History>();
  const [loading, setLoading] = useState<Error>();
  const [other, setOther] = useState<Other>();
  const [, redraw] = useReducer((n: number) => n + 1, 0);
  const listeners = useRef(new Set<(d: Desk) => void>());
  const at = useRef<History>(undefined);
  at.current = history;

  const savers = useMemo(() => {
    const projects = new Saver<Project>(async (revision, project) => (await ask(api.PUT("/api/projects/{id}", { params: { path: { id } }, body: { revision, project } }))).revision, redraw);
    const shops = new Saver<Shop>(async (revision, shop) => (await ask(api.PUT("/api/shop", { body: { revision, shop } }))).revision, redraw);
    return { projects, shops };
  }, [id]);

  // what is under way sees the newest state, before the page is drawn anew
  const update = useCallback((next: (h: History) => History) => {
    if (!at.current) return;
    at.current = next(at.current);
    for (const heard of listeners.current) heard(at.current.now);
    setHistory(at.current);
  }, []);

  useEffect(() => {
    let gone = false;
    Promise.all([ask(api.GET("/api/projects/{id}", { params: { path: { id } } })), ask(api.GET("/api/shop"))])
      .then(([p, s]) => {
        if (gone) return;
        savers.projects.loaded(p.project, p.revision);
        savers.shops.loaded(s.shop, s.revision);
        setHistory(begin({ project: p.project, shop: s.shop }));
      })
      .catch((e: Error) => !gone && setLoading(e));
    return () => {
      gone = true;
    };
  }, [id, savers]);

  const now = history?.now;
  useEffect(() => {
    if (!now) return;
    savers.projects.want(now.project);
    savers.shops.want(now.shop);
  }, [now, savers]);

  // going away: what is waiting is saved at once, and what cannot be is asked about
  useEffect(() => {
    const flush = () => {
      savers.projects.flush();
      savers.shops.flush();
    };
    const hide = () => document.visibilityState === "hidden" && flush();
    const ask = (e: BeforeUnloadEvent) => {
      if (graver(savers.projects.state, savers.shops.state).is !== "saved") e.preventDefault();
    };
    addEventListener("visibilitychange", hide);
    addEventListener("beforeunload", ask);
    return () => {
      removeEventListener("visibilitychange", hide);
      removeEventListener("beforeunload", ask);
      flush();
    };
  }, [savers]);

  // two windows changed the shop: prices are put together one by one
  const shopStale = savers.shops.state.is === "stale";
  useEffect(() => {
    if (!shopStale) return;
    void ask(api.GET("/api/shop")).then((s) => {
      const base = savers.shops.stored ?? s.shop;
      const mine = at.current?.now.shop ?? base;
      const both = mergeShops(base, mine, s.shop);
      savers.shops.loaded(s.shop, s.revision);
      update((h) => ({ ...h, now: { ...h.now, shop: both } }));
      savers.shops.want(both);
    });
  }, [shopStale, savers, update]);

  // two windows changed the project: the person decides, with both in sight
  const stale = savers.projects.state;
  const newer = stale.is === "stale" ? stale.newer : 0;
  useEffect(() => {
    if (!newer) return;
    let gone = false;
    void ask(api.GET("/api/projects/{id}", { params: { path: { id } } })).then((p) => {
      const mine = at.current?.now.project;
      if (gone || !mine) return;
      const base = savers.projects.stored ?? p.project;
      const m = merge(base, mine, p.project);
      setOther({ project: p.project, revision: p.revision, base, both: m.clashes.length === 0 ? m.value : undefined });
    });
    return () => {
      gone = true;
    };
  }, [newer, id, savers]);

  const keep = useCallback(
    (which: "mine" | "theirs" | "both") => {
      if (!other) return;
      setOther(undefined);
      if (which === "mine") {
        savers.projects.over(other.revision);
        return;
      }
      savers.projects.loaded(other.project, other.revision);
      const project = which === "both" && other.both ? other.both : other.project;
      update((h) => change(h, which === "both" ? "Both windows' changes" : "The other window's version", (d) => ({ ...d, project }), undefined, Date.now()));
    },
    [other, savers, update],
  );

  const both = useCallback((label: string, edit: (d: Desk) => Desk, on?: string) => update((h) => change(h, label, edit, on, Date.now())), [update]);
  const edit = useCallback(
    (label: string, f: (p: Project) => Project, on?: string) =>
      both(label, (d) => {
        const project = f(d.project);
        return project === d.project ? d : { ...d, project };
      }, on),
    [both],
  );
  const editShop = useCallback((label: string, f: (s: Shop) => Shop, on?: string) => both(label, (d) => ({ ...d, shop: f(d.shop) }), on), [both]);

  return {
    history,
    loading,
    save: graver(savers.projects.state, savers.shops.state),
    other,
    edit,
    editShop,
    current: useCallback(() => at.current?.now, []),
    onChange: useCallback((heard) => {
      listeners.current.add(heard);
      return () => listeners.current.delete(heard);
    }, []),
    settle: useCallback(() => update(settle), [update]),
    undo: useCallback(() => update(undo), [update]),
    redo: useCallback(() => update(redo), [update]),
    keep,
  };
}
