import type { Shop } from "../../api/client";
import { type Spec, specKey, specOf } from "../../lib/spec";

export const priceOf = (s: Shop, k: Spec) => s.prices.prices.find((p) => specKey(p) === specKey(k));

/** Puts a price in the book, or over the one that was there; it is the builder's own from then on. */
export function withPrice(s: Shop, k: Spec, amount: number): Shop {
  const mine = { ...specOf(k), amount, source: "own" };
  const at = s.prices.prices.findIndex((p) => specKey(p) === specKey(k));
  const prices = at < 0 ? [...s.prices.prices, mine] : s.prices.prices.map((p, i) => (i === at ? mine : p));
  return { ...s, prices: { ...s.prices, prices } };
}

/** Reads 4.98 or $4.98 as cents; undefined when it is no amount. */
export function readMoney(t: string): number | undefined {
  const m = /^\$?\s*(\d{1,5})(?:[.,](\d{1,2}))?$/.exec(t.trim());
  return m ? Number(m[1]) * 100 + Number((m[2] ?? "").padEnd(2, "0")) : undefined;
}

/** Reads 8.25 or 8.25 % as a percentage. */
export const readPercent = (t: string) => (/^\d{1,2}(\.\d{1,4})?\s*%?$/.test(t.trim()) ? Number.parseFloat(t) : undefined);
