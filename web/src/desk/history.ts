import type { Project, Shop } from "../api/client";
import { merge } from "./merge";

/** What is on the desk: the project and the shop it is planned with. */
export interface Desk {
  project: Project;
  shop: Shop;
}

/** One thing done, as it is named when it is undone. */
export interface Step {
  label: string;
  /** What it changed; the next change of the same thing soon after joins it. */
  on?: string;
  at: number;
  before: Desk;
  after: Desk;
}

export interface History {
  now: Desk;
  past: Step[];
  future: Step[];
  /** What the desk looked like before the last thing done, undone or redone. */
  since?: Desk;
  last?: string;
}

const depth = 400;
const together = 4000; // ms

export function begin(now: Desk): History {
  return { now, past: [], future: [] };
}

export function change(h: History, label: string, edit: (d: Desk) => Desk, on: string | undefined, at: number): History {
  const after = edit(h.now);
  if (after === h.now) return h;
  const last = h.past.at(-1);
  if (on && last?.on === on && at - last.at < together && h.future.length === 0 && last.after === h.now) {
    const step = { ...last, label, after, at };
    return { ...h, now: after, past: [...h.past.slice(0, -1), step], last: label };
  }
  const step: Step = { label, on, at, before: h.now, after };
  return { now: after, past: [...h.past.slice(1 - depth), step], future: [], since: h.now, last: label };
}

/** The next change begins a step of its own, whatever it is of. */
export function settle(h: History): History {
  const last = h.past.at(-1);
  return last?.on ? { ...h, past: [...h.past.slice(0, -1), { ...last, on: undefined }] } : h;
}

export function undo(h: History): History {
  const step = h.past.at(-1);
  if (!step) return h;
  return { now: move(h.now, step.after, step.before), past: h.past.slice(0, -1), future: [step, ...h.future], since: h.now, last: `Undone: ${step.label}` };
}

export function redo(h: History): History {
  const [step, ...rest] = h.future;
  if (!step) return h;
  return { now: move(h.now, step.before, step.after), past: [...h.past, step], future: rest, since: h.now, last: `Redone: ${step.label}` };
}

/** Takes the desk from one state to another; what the shop got from other windows in between stays. */
function move(now: Desk, from: Desk, to: Desk): Desk {
  if (now === from || (now.project === from.project && now.shop === from.shop)) return to;
  return { project: to.project, shop: mergeShops(from.shop, to.shop, now.shop) };
}

type Price = Shop["prices"]["prices"][number];
const priceKey = (p: Price) => [p.ware, p.kind ?? "", p.size ?? "", p.length ?? 0, p.ounces ?? 0].join("|");
const keyed = (s: Shop) => ({ ...s, prices: { ...s.prices, prices: Object.fromEntries(s.prices.prices.map((p) => [priceKey(p), p])) } });

/** Puts the changes from base to mine onto theirs, price by price. */
export function mergeShops(base: Shop, mine: Shop, theirs: Shop): Shop {
  if (base === mine || mine === theirs) return theirs;
  if (base === theirs) return mine;
  const m = merge(keyed(base), keyed(mine), keyed(theirs)).value;
  return { ...m, prices: { ...m.prices, prices: Object.values(m.prices.prices) } };
}
