import { createStore } from "zustand/vanilla";
import type { Shop } from "../api/client";
import { type Spec, specKey, specOf } from "../lib/spec";
import { Unanswered } from "../lib/touch";
import { NoPrice, type Typed, readPrices, today, withPrices } from "./read";
import { changeStored } from "./save";

/** A price that was typed while the server, which reads prices, did not answer. */
export interface WaitingPrice {
  of: Spec;
  /** What its field is called. */
  label: string;
  text: string;
  /** The day on which it was typed. */
  date: string;
  /** Why the server takes it for no price. */
  why?: string;
}

type All = Record<string, WaitingPrice>; // by the thing

const stored = "sturdyelbow.prices";

/** What is stored; nothing where the browser stores nothing. */
function onDevice(): All | undefined {
  try {
    return JSON.parse(localStorage.getItem(stored) ?? "{}") as All;
  } catch {
    return undefined;
  }
}

/** The prices that wait on this device. */
export const waitingPrices = createStore<{ all: All }>(() => ({ all: onDevice() ?? {} }));

// another window of this device typed or sent one
if (typeof addEventListener === "function")
  addEventListener("storage", (e) => {
    if (e.key === stored && room) waitingPrices.setState({ all: onDevice() ?? {} });
  });

let room = true; // where there is none it waits as long as the page is open

function write(change: (all: All) => All) {
  const all = change((room ? onDevice() : undefined) ?? waitingPrices.getState().all);
  waitingPrices.setState({ all });
  try {
    if (Object.keys(all).length > 0) localStorage.setItem(stored, JSON.stringify(all));
    else localStorage.removeItem(stored);
    room = true;
  } catch {
    room = false;
  }
}

/** Keeps a price of a thing until the server reads it, in the place of one that waits. */
export const keepPrice = (of: Spec, label: string, text: string) =>
  write((all) => ({ ...all, [specKey(of)]: { of: specOf(of), label, text, date: today() } }));

/** Lets go of what waits of a thing; of a text alone, where one is given. */
export const dropPrice = (of: Spec, text?: string) =>
  write(({ ...all }) => {
    const key = specKey(of);
    if (text === undefined || all[key]?.text === text) delete all[key];
    return all;
  });

/** The server, for prices. */
export interface PriceServer {
  read: (text: string) => Promise<Typed[]>;
  /** Changes the shop as it is stored; gives nothing where nobody answers. */
  change: (by: (s: Shop) => Shop) => Promise<unknown>;
}

let sending = false;

/** Has what waits read, and puts it in the book. What is no price stays, with its reason, and keeps nothing else back; what the server does not answer is sent again later. */
export async function sendPrices(to: PriceServer = { read: readPrices, change: changeStored }): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    const ready: [WaitingPrice, Typed[]][] = [];
    for (const w of Object.values(waitingPrices.getState().all)) {
      if (w.why) continue;
      try {
        ready.push([w, await to.read(w.text)]);
      } catch (e) {
        if (e instanceof Unanswered) return;
        if (!(e instanceof NoPrice)) throw e;
        write((all) => (all[specKey(w.of)]?.text === w.text ? { ...all, [specKey(w.of)]: { ...w, why: e.message } } : all));
      }
    }
    if (ready.length === 0) return;
    const done = await to.change((s) => ready.reduce((s, [w, read]) => withPrices(s, w.of, read, "own", w.date), s));
    if (done) for (const [w] of ready) dropPrice(w.of, w.text);
  } catch {
    // it is refused for another reason, which is not of these prices: it is sent again
  } finally {
    sending = false;
  }
}
