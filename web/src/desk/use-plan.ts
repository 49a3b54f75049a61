import { startTransition, useEffect, useRef, useState, useSyncExternalStore } from "react";
import { type Plan, type PlanAnswer, type Project, Refusal, type Repeat, type Shop } from "../api/client";
import type { Desk } from "./history";
import type { DeskOf } from "./use-desk";

export interface Planned {
  plan?: Plan;
  /** The counts that are left of a starter whose frame is the builder's own. */
  repeats?: Repeat[];
  /** The desk that the plan is of. */
  of?: Desk;
  /** What is wrong, by the place's path in the request. */
  places: Record<string, string>;
  /** The plan shown is of an earlier, readable state. */
  old: boolean;
  failure?: string;
}

/** The latest plan, for what shows it before everything else does. */
export interface Latest {
  get: () => Planned;
  subscribe: (heard: () => void) => () => void;
}

export const useLatest = (l: Latest): Planned => useSyncExternalStore(l.subscribe, l.get);

/** Holds what was planned last; those who listen hear of it at once, the page itself draws it when there is time. */
function makeLatest() {
  let now: Planned = { places: {}, old: false };
  const all = new Set<() => void>();
  return {
    get: () => now,
    set: (next: Planned) => {
      now = next;
      for (const heard of all) heard();
    },
    subscribe: (heard: () => void) => {
      all.add(heard);
      return () => all.delete(heard);
    },
  };
}

const texts = new WeakMap<Shop, string>();
function textOf(shop: Shop): string {
  let t = texts.get(shop);
  if (t === undefined) {
    t = JSON.stringify(shop);
    texts.set(shop, t);
  }
  return t;
}

/** What a plan depends on; a tick on a list or another way to write lengths plans nothing new. */
const planInput = ({ marks: _m, style: _s, name: _n, ...rest }: Project) => JSON.stringify(rest);

/** What the server calls shops that were sent to it: sending one takes it longer than planning a small frame. */
const keys = new WeakMap<Shop, string>();

export async function planOf(d: Desk, o: { draw?: boolean; draft?: boolean; signal?: AbortSignal } = {}): Promise<PlanAnswer> {
  const key = keys.get(d.shop);
  const r = await fetch("/api/plan", {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: `{"project":${JSON.stringify(d.project)},${key ? `"shopKey":"${key}"` : `"shop":${textOf(d.shop)}`}${o.draw ? ',"draw":true' : ""}${o.draft ? ',"draft":true' : ""}}`,
    signal: o.signal,
  });
  const answer = await r.json().catch(() => ({}));
  if (!r.ok) {
    const refusal = new Refusal(r.status, answer);
    if (!key || !refusal.places["body.shopKey"]) throw refusal;
    keys.delete(d.shop); // it was forgotten
    return planOf(d, o);
  }
  const known = (answer as PlanAnswer).shopKey;
  if (known) keys.set(d.shop, known);
  return answer as PlanAnswer;
}

const again = 3000; // ms after a failure
const rest = 250; // ms without a change before a better purchase is looked for

/**
 * Plans the desk each time it changes. One request is under way at a time, and
 * what came in meanwhile is asked next, so that a hand on a ruler sees every
 * answer that there was time for and always the last.
 */
export function usePlan(desk: Desk, onChange: DeskOf["onChange"]): Planned & { latest: Latest } {
  const [planned, draw] = useState<Planned>({ places: {}, old: false });
  const [latest] = useState(makeLatest);
  // the tape, which listens, says the new figures first; the sheet and the frame follow
  const setPlanned = useRef((next: (was: Planned) => Planned) => {
    const p = next(latest.get());
    latest.set(p);
    startTransition(() => draw(p));
  }).current;
  const loop = useRef({ busy: false, gone: false, want: undefined as Desk | undefined, done: undefined as Desk | undefined, better: undefined as AbortController | undefined });
  const plan = useRef((desk: Desk) => {
    const l = loop.current;
    if (l.want !== desk) l.better?.abort(); // a change matters more than a better purchase
    l.want = desk;
    if (l.busy) return;
    // a large job shows a first purchase at once; the best one, with its proof, follows
    const improve = async (d: Desk) => {
      l.better?.abort();
      const better = new AbortController();
      l.better = better;
      await new Promise((go) => setTimeout(go, rest));
      if (l.want !== d || l.gone || better.signal.aborted) return;
      const a = await planOf(d, { signal: better.signal }).catch(() => undefined); // aborted, or asked again with the next change
      if (a && l.want === d && !l.gone) setPlanned(() => ({ plan: a.plan, repeats: a.repeats, of: d, places: {}, old: false }));
    };
    const run = async () => {
      l.busy = true;
      while (l.want && l.want !== l.done && !l.gone) {
        const d: Desk = l.want;
        if (l.done && l.done.shop === d.shop && planInput(l.done.project) === planInput(d.project)) {
          l.done = d;
          setPlanned((p) => {
            if (p.plan?.improving) void improve(d);
            return p.of ? { ...p, of: d } : p;
          });
          continue;
        }
        try {
          const a = await planOf(d, { draft: true });
          l.done = d;
          setPlanned(() => ({ plan: a.plan, repeats: a.repeats, of: d, places: {}, old: false }));
          if (a.plan.improving) void improve(d);
        } catch (e) {
          if (e instanceof Refusal && e.status < 500) {
            l.done = d;
            const places = Object.keys(e.places).length > 0 ? e.places : { "": e.message };
            setPlanned((p) => ({ ...p, places, old: true, failure: undefined }));
            continue;
          }
          setPlanned((p) => ({ ...p, failure: "The server does not answer. What you typed is kept here; it is tried again." }));
          await new Promise((go) => setTimeout(go, again));
        }
      }
      l.busy = false;
    };
    void run();
  }).current;
  // asked before the page is drawn with the change, and in any case once it is
  useEffect(() => onChange(plan), [onChange, plan]);
  useEffect(() => plan(desk), [desk, plan]);
  useEffect(() => {
    loop.current.gone = false;
    return () => {
      loop.current.gone = true;
    };
  }, []);
  return { ...planned, latest };
}
