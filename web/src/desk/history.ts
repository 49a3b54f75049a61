import { replaceEqualDeep } from "@tanstack/react-query";
import { type Operation, applyPatch, compare } from "fast-json-patch";
import type { Project, Shop } from "../api/client";
import { byThing } from "../lib/spec";
import { merge } from "./merge";

/** What is on the desk: the project and the shop it is planned with. */
export interface Desk {
  project: Project;
  shop: Shop;
}

/** What a change is of. Another change of the thing of that name joins it if it comes soon after; one of the same pull always does. */
export type Subject = string | Held;

/** A pull, from the press that began it: while it is held it is one step, however long it rests. */
export interface Held {
  pulls: string;
}

/** One thing done, as it is named when it is undone. */
export interface Step {
  label: string;
  on?: Subject;
  at: number;
  /** The ways between the projects before and after it, as JSON patches (RFC 6902). */
  back: Operation[];
  forth: Operation[];
  /** The shop before and after, where it changed: other windows write into it too. */
  shop?: [before: Shop, after: Shop];
}

export interface History {
  now: Desk;
  past: Step[];
  future: Step[];
  /** What the desk looked like before the last thing done, undone or redone. */
  since?: Desk;
  /** What the last thing done left: where the desk is another by now, another window wrote into the shop. */
  left?: Desk;
  last?: string;
  /** The last thing done was to take a step back. */
  undone?: boolean;
}

const depth = 400;
const together = 4000; // ms

export function begin(now: Desk): History {
  return { now, past: [], future: [] };
}

export function change(h: History, label: string, edit: (d: Desk) => Desk, on: Subject | undefined, at: number): History {
  const after = edit(h.now);
  if (after === h.now) return h;
  const last = h.past.at(-1);
  const joins = on && last?.on === on && (typeof on !== "string" || at - last.at < together);
  if (joins && h.future.length === 0 && h.since && h.left === h.now) {
    const step = stepOf(label, on, at, h.since, after);
    return { ...h, now: after, past: [...h.past.slice(0, -1), step], left: after, last: label };
  }
  return {
    now: after,
    past: [...h.past.slice(1 - depth), stepOf(label, on, at, h.now, after)],
    future: [],
    since: h.now,
    left: after,
    last: label,
  };
}

function stepOf(label: string, on: Subject | undefined, at: number, before: Desk, after: Desk): Step {
  const same = before.project === after.project;
  return {
    label,
    on,
    at,
    back: same ? [] : compare(after.project, before.project),
    forth: same ? [] : compare(before.project, after.project),
    shop: before.shop === after.shop ? undefined : [before.shop, after.shop],
  };
}

/** The next change begins a step of its own, whatever it is of. */
export function settle(h: History): History {
  const last = h.past.at(-1);
  return last?.on ? { ...h, past: [...h.past.slice(0, -1), { ...last, on: undefined }] } : h;
}

export function undo(h: History): History {
  const step = h.past.at(-1);
  if (!step) return h;
  const now = {
    project: patched(h.now.project, step.back),
    shop: step.shop ? mergeShops(step.shop[1], step.shop[0], h.now.shop) : h.now.shop,
  };
  return {
    now,
    past: h.past.slice(0, -1),
    future: [step, ...h.future],
    since: h.now,
    left: now,
    last: `Undone: ${step.label}`,
    undone: true,
  };
}

export function redo(h: History): History {
  const [step, ...rest] = h.future;
  if (!step) return h;
  const now = {
    project: patched(h.now.project, step.forth),
    shop: step.shop ? mergeShops(step.shop[0], step.shop[1], h.now.shop) : h.now.shop,
  };
  return { now, past: [...h.past, step], future: rest, since: h.now, left: now, last: `Redone: ${step.label}` };
}

/** A project with a patch applied; what the patch leaves alone stays the same object. */
function patched(p: Project, by: Operation[]): Project {
  if (by.length === 0) return p;
  return replaceEqualDeep(p, applyPatch(structuredClone(p), structuredClone(by)).newDocument) as Project;
}

const keyed = (s: Shop) => ({ ...s, prices: { ...s.prices, prices: Object.fromEntries(byThing(s.prices.prices)) } });

/** Puts the changes from base to mine onto theirs, price by price. */
export function mergeShops(base: Shop, mine: Shop, theirs: Shop): Shop {
  if (base === mine || mine === theirs) return theirs;
  if (base === theirs) return mine;
  const m = merge(keyed(base), keyed(mine), keyed(theirs)).value;
  return { ...m, prices: { ...m.prices, prices: Object.values(m.prices.prices).flat() } };
}
