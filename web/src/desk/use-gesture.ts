import { useCallback, useMemo, useRef, useState } from "react";
import { type Done, type Edit, type Project, Refusal, api, ask } from "../api/client";
import type { DeskOf } from "./use-desk";

/** What kind of gesture it is. */
export type Kind = Exclude<keyof Edit, "unit" | "$schema">;

export interface Gesture {
  /** Makes a gesture on the frame as it is when its turn comes; what is picked stays picked with keep. Nothing is given back when it is refused. */
  run: (edit: Edit, o?: { keep?: boolean }) => Promise<Done | undefined>;
  /** A gesture that goes on: each replaces the one before it, from the same beginning, as one step. */
  pull: (edit: Edit, on: string) => void;
  /** Ends what goes on. */
  drop: () => void;
  /** Why the last one was refused. */
  refused?: { kind: Kind; what: string };
  busy: boolean;
}

const kindOf = (e: Edit) => Object.keys(e).find((k) => k !== "unit") as Kind;

const tries = 4;

/** Gestures on the frame: the server makes them, one after the other, and each is a step that can be undone. */
export function useGesture(desk: DeskOf, onDone: (d: Done, keep: boolean) => void): Gesture {
  const [refused, setRefused] = useState<Gesture["refused"]>();
  const [waiting, setWaiting] = useState(0);
  const tail = useRef<Promise<unknown>>(Promise.resolve());
  const told = useRef(onDone);
  told.current = onDone;
  const { current, edit: change, settle } = desk;

  const make = useCallback(
    async (project: Project, edit: Edit) => {
      const shop = current()?.shop;
      return ask(api.POST("/api/edit", { body: { project, shop, edit } }));
    },
    [current],
  );

  const refuse = useCallback((edit: Edit, e: unknown) => {
    const what = e instanceof Refusal ? (Object.values(e.places)[0] ?? e.message) : "The server does not answer. Nothing was changed.";
    setRefused({ kind: kindOf(edit), what: what.charAt(0).toUpperCase() + what.slice(1) });
  }, []);

  const run = useCallback(
    (edit: Edit, o?: { keep?: boolean }) => {
      const turn = async () => {
        for (let n = 0; n < tries; n++) {
          const project = current()?.project;
          if (!project) return undefined;
          try {
            const a = await make(project, edit);
            if (current()?.project !== project) continue; // something else was changed meanwhile: it is made on that
            settle();
            change(a.done.label, () => a.project);
            setRefused(undefined);
            told.current(a.done, o?.keep ?? false);
            return a.done;
          } catch (e) {
            refuse(edit, e);
            return undefined;
          }
        }
        return undefined;
      };
      setWaiting((n) => n + 1);
      const mine = tail.current.then(turn).finally(() => setWaiting((n) => n - 1));
      tail.current = mine;
      return mine;
    },
    [current, change, settle, make, refuse],
  );

  const going = useRef<{ base: Project; on: string; want?: Edit; busy: boolean }>(undefined);
  const pull = useCallback(
    (edit: Edit, on: string) => {
      const project = current()?.project;
      if (!project) return;
      if (going.current?.on !== on) going.current = { base: project, on, busy: false };
      const g = going.current;
      g.want = edit;
      if (g.busy) return;
      g.busy = true;
      const go = async () => {
        while (g.want) {
          const want = g.want;
          g.want = undefined;
          try {
            const a = await make(g.base, want);
            change(a.done.label, () => a.project, g.on);
            setRefused(undefined);
          } catch (e) {
            refuse(want, e);
          }
        }
        g.busy = false;
      };
      void go();
    },
    [current, change, make, refuse],
  );
  const drop = useCallback(() => {
    going.current = undefined;
    setTimeout(settle, 300);
  }, [settle]);

  return useMemo(() => ({ run, pull, drop, refused, busy: waiting > 0 }), [run, pull, drop, refused, waiting]);
}
