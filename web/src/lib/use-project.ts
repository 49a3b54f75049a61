import { useCallback, useEffect, useRef, useState } from "react";
import { type Project, Refusal, api, ask } from "../api/client";

export type SaveState =
  | { is: "saved" }
  | { is: "saving" }
  | { is: "waiting" }
  | { is: "failed"; why: string }
  | { is: "stale"; newer: number };

const pause = 500; // ms after the last change before it is saved

export interface Bench {
  project?: Project;
  save: SaveState;
  loading?: Error;
  change: (edit: (p: Project) => Project) => void;
  undo: () => void;
  redo: () => void;
  canUndo: boolean;
  canRedo: boolean;
  keepMine: () => void;
  takeTheirs: () => void;
}

interface History {
  past: Project[];
  now?: Project;
  future: Project[];
}

/** Loads a project, keeps its history, and saves it as it changes. */
export function useProject(id: string): Bench {
  const [h, setH] = useState<History>({ past: [], future: [] });
  const [save, setSave] = useState<SaveState>({ is: "saved" });
  const [loading, setLoading] = useState<Error>();
  const revision = useRef(0);
  const stored = useRef<Project>(undefined);
  const busy = useRef(false);

  const load = useCallback(async (mine?: Project) => {
    try {
      const p = await ask(api.GET("/api/projects/{id}", { params: { path: { id } } }));
      revision.current = p.revision;
      stored.current = p.project;
      setH({ past: mine ? [mine] : [], now: p.project, future: [] }); // undo brings mine back
      setSave({ is: "saved" });
      setLoading(undefined);
    } catch (e) {
      setLoading(e as Error);
    }
  }, [id]);
  useEffect(() => {
    void load();
  }, [load]);

  const put = useCallback(
    async (p: Project) => {
      busy.current = true;
      setSave({ is: "saving" });
      try {
        const r = await ask(
          api.PUT("/api/projects/{id}", { params: { path: { id } }, body: { revision: revision.current, project: p } }),
        );
        revision.current = r.revision;
        stored.current = p;
        setSave({ is: "saved" });
      } catch (e) {
        if (e instanceof Refusal && e.status === 409) setSave({ is: "stale", newer: Number(e.value("body.revision")) });
        else setSave({ is: "failed", why: e instanceof Refusal ? e.message : "the server does not answer" });
      } finally {
        busy.current = false;
      }
    },
    [id],
  );

  useEffect(() => {
    if (!h.now || h.now === stored.current || busy.current || save.is === "stale") return;
    const again = save.is === "failed" ? 4000 : pause;
    if (save.is === "saved") setSave({ is: "waiting" });
    const now = h.now;
    const t = setTimeout(() => void put(now), again);
    return () => clearTimeout(t);
  }, [h.now, put, save.is]);

  // leaving with something unsaved: the browser asks first
  useEffect(() => {
    const ask = (e: BeforeUnloadEvent) => {
      if (save.is !== "saved") e.preventDefault();
    };
    addEventListener("beforeunload", ask);
    return () => removeEventListener("beforeunload", ask);
  }, [save.is]);

  const change = useCallback((edit: (p: Project) => Project) => {
    setH((h) => (h.now ? { past: [...h.past.slice(-199), h.now], now: edit(h.now), future: [] } : h));
  }, []);
  const undo = useCallback(() => {
    setH((h) => {
      const last = h.past.at(-1);
      return last && h.now ? { past: h.past.slice(0, -1), now: last, future: [h.now, ...h.future] } : h;
    });
  }, []);
  const redo = useCallback(() => {
    setH((h) => {
      const [next, ...rest] = h.future;
      return next && h.now ? { past: [...h.past, h.now], now: next, future: rest } : h;
    });
  }, []);
  const keepMine = useCallback(() => {
    if (save.is !== "stale" || !h.now) return;
    revision.current = save.newer;
    void put(h.now);
  }, [save, h.now, put]);

  return {
    project: h.now,
    save,
    loading,
    change,
    undo,
    redo,
    canUndo: h.past.length > 0,
    canRedo: h.future.length > 0,
    keepMine,
    takeTheirs: () => void load(h.now),
  };
}
