import { type Price, type Asked, Refusal, api, ask } from "../api/client";
import type { Shop } from "../api/client";
import { Unanswered } from "../lib/touch";
import { type Spec, specKey, specOf } from "../lib/spec";

/** A price that was typed, as the server read it. */
export interface Typed extends Asked {
  typed: string;
}

/** Several prices of one thing are parted by a semicolon: .98; 10 for 6.98. */
const parts = (text: string) =>
  text
    .split(";")
    .map((t) => t.trim())
    .filter(Boolean);

/** Why a text is no price, in the words of the server. */
export class NoPrice extends Error {}

/** Reads prices as people write them. What cannot be read is thrown, with its reason; [Unanswered] where the server did not say. */
export async function readPrices(text: string): Promise<Typed[]> {
  const texts = parts(text);
  if (texts.length === 0) return [];
  try {
    const read = await ask(api.POST("/api/prices/read", { body: { texts } }));
    return read.map((r, i) => ({ ...r, typed: texts[i] ?? "" }));
  } catch (e) {
    if (e instanceof Refusal && e.status === 422 && !e.otherVersion) throw new NoPrice(Object.values(e.places)[0] ?? e.message);
    if (e instanceof Refusal) throw e;
    throw new Unanswered();
  }
}

export const pricesOf = (s: Shop, k: Spec): Price[] => s.prices.prices.filter((p) => specKey(p) === specKey(k));

/** The day, as the device has it: 2026-11-29. */
export const today = () => new Date().toLocaleDateString("sv-SE");

/** Puts prices of a thing in the book in the place of those it had; they are the builder's own from then on. */
export function withPrices(s: Shop, k: Spec, read: Typed[], source = "own", date = today()): Shop {
  const mine: Price[] = read.map((r) => ({ ...specOf(k), ...r, source, date }));
  const at = s.prices.prices.findIndex((p) => specKey(p) === specKey(k));
  const others = s.prices.prices.filter((p) => specKey(p) !== specKey(k));
  const prices = at < 0 ? [...others, ...mine] : [...others.slice(0, at), ...mine, ...others.slice(at)];
  return { ...s, prices: { ...s.prices, prices } };
}

/** What to begin with when a price is changed: as it was typed, else the amount. */
export const startOf = (all: Price[]): string =>
  all
    .map(
      (p) =>
        p.typed ||
        `${(p.pack ?? 1) > 1 ? `${p.pack} for ` : ""}${p.from ? `${(p.from / 100).toFixed(2)}-` : ""}${(p.amount / 100).toFixed(2)}`,
    )
    .join("; ");

/** Reads 8.25 or 8.25 % as a percentage. */
export const readPercent = (t: string) => {
  if (!/^\d{0,2}([.,]\d{1,4})?\s*%?$/.test(t.trim()) || !/\d/.test(t)) throw new NoPrice("Write the percentage, like 8.25");
  return Number.parseFloat(t.trim().replace(",", "."));
};
