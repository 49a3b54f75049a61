import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { type Done, type Edit, type Project, type Question, Refusal, api, ask } from "../api/client";
import { unitOf } from "../lens/size/targets";
import type { Style } from "../lib/format";
import type { DeskOf } from "./use-desk";

/** What kind of gesture it is. */
export type Kind = Exclude<keyof Edit, "unit" | "answers" | "$schema">;

export interface Gesture {
  /** Makes a gesture on the frame as it is when its turn comes; what is picked stays picked with keep, and at is the id of the field that asks, which shows a refusal itself. Nothing is given back when it is refused. */
  run: (edit: Edit, o?: { keep?: boolean; at?: string }) => Promise<Done | undefined>;
  /** A gesture that goes on: each replaces the one before it, from the same beginning, as one step. */
  pull: (edit: Edit, on: string) => void;
  /** Ends what goes on. */
  drop: () => void;
  /** Why the last one was refused. */
  refused?: { kind: Kind; what: string; at?: string };
  /** What the last one waits for: an option chosen, or nothing to let it be. */
  asks?: { question: Question; choose: (option: string | undefined) => void };
  /** What the last one did besides what was asked for, and what may be wanted next. */
  last?: Done;
  busy: boolean;
}

/** What was done, with what it gave up, as the tape and the history tell it. */
export const toldOf = (d: Done) => [d.label, ...(d.gave ?? []).map((g) => `${g.was}${g.now ? ` → ${g.now}` : ""}, ${g.words}`)].join("; ");

const kindOf = (e: Edit) => Object.keys(e).find((k) => k !== "unit" && k !== "answers") as Kind;

const tries = 4;

/** Gestures on the frame: the server makes them, one after the other, and each is a step that can be undone. */
export function useGesture(desk: DeskOf, onDone: (d: Done, keep: boolean) => void): Gesture {
  const [refused, setRefused] = useState<Gesture["refused"]>();
  const [waiting, setWaiting] = useState(0);
  const [asks, setAsks] = useState<Gesture["asks"]>();
  const [last, setLast] = useState<Done>();
  const tail = useRef<Promise<unknown>>(Promise.resolve());
  const told = useRef(onDone);
  told.current = onDone;
  const { current, edit: change, settle } = desk;

  const make = useCallback(
    async (project: Project, edit: Edit) => {
      const shop = current()?.shop;
      // a bare number is in the unit that lengths are shown in when it is typed
      return ask(api.POST("/api/edit", { body: { project, shop, edit: { unit: unitOf((project.style || "inches") as Style), ...edit } } }));
    },
    [current],
  );

  const refuse = useCallback((edit: Edit, e: unknown, at?: string) => {
    const what = e instanceof Refusal ? (Object.values(e.places)[0] ?? e.message) : "The server does not answer. Nothing was changed.";
    setRefused({ kind: kindOf(edit), at, what: what.charAt(0).toUpperCase() + what.slice(1) });
  }, []);

  // what was answered, so that undoing it asks again
  const answered = useRef<{ before: Project; after: Project; edit: Edit; keep: boolean }>(undefined);

  const run = useCallback(
    (asked: Edit, o?: { keep?: boolean; at?: string }) => {
      const turn = async () => {
        let edit = asked;
        for (let n = 0; n < tries + (edit.answers?.length ?? 0); n++) {
          const project = current()?.project;
          if (!project) return undefined;
          try {
            const a = await make(project, edit);
            if (current()?.project !== project) continue; // something else was changed meanwhile: it is made on that
            if (a.question) {
              const question = a.question;
              const option = await new Promise<string | undefined>((choose) => setAsks({ question, choose }));
              setAsks(undefined);
              if (option === undefined) return undefined;
              edit = { ...edit, answers: [...(edit.answers ?? []), option] };
              continue;
            }
            settle();
            change(toldOf(a.done), () => a.project);
            answered.current = edit.answers?.length ? { before: project, after: a.project, edit: asked, keep: o?.keep ?? false } : undefined;
            setRefused(undefined);
            setLast(a.done);
            told.current(a.done, o?.keep ?? false);
            return a.done;
          } catch (e) {
            refuse(edit, e, o?.at);
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
            if (a.question) setRefused({ kind: kindOf(want), what: `${a.question.what.replace(/\.$/, "")}: type it in its field, and choose` });
            else {
              change(a.done.label, () => a.project, g.on);
              setRefused(undefined);
              setLast(a.done);
            }
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

  // undo brings the question back
  const now = desk.history?.now.project;
  const before = useRef(now);
  useEffect(() => {
    const was = before.current;
    before.current = now;
    const a = answered.current;
    if (!a || was !== a.after || now !== a.before) return;
    answered.current = undefined;
    void run(a.edit, { keep: a.keep });
  }, [now, run]);

  return useMemo(() => ({ run, pull, drop, refused, asks, last, busy: waiting > 0 }), [run, pull, drop, refused, asks, last, waiting]);
}
