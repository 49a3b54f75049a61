import type { Effect, Project, Shop } from "../api/client";
import { specKey as key } from "../lib/spec";
import { same } from "./merge";

/** A change of the shop that waits to be told whom it is for. */
export interface ShopAsk {
  label: string;
  shop: (s: Shop) => Shop;
  /** The change as this project's own; nothing where it can only be the shop's. */
  own?: (p: Project) => Project;
  /** What it would change in other projects; nothing where the server did not say. */
  effect?: Effect;
}

/** A change of the shop made a project's own: its stick lengths, its prices. */
export function ownOf(before: Shop, after: Shop): ((p: Project) => Project) | undefined {
  const stock = same(before.stock, after.stock) ? undefined : after.stock;
  const was = new Map(before.prices.prices.map((p) => [key(p), p]));
  const prices = after.prices.prices.filter((p) => !same(was.get(key(p)), p));
  if (!stock && prices.length === 0) return undefined;
  return (p) => ({
    ...p,
    sale: {
      ...p.sale,
      ...(stock ? { stock } : {}),
      ...(prices.length > 0
        ? { prices: [...(p.sale?.prices ?? []).filter((x) => !prices.some((y) => key(x) === key(y))), ...prices] }
        : {}),
    },
  });
}

/** Whether all that a change is about is the project's own already. */
export function isOwn(before: Shop, after: Shop, p: Project): boolean {
  const was = new Map(before.prices.prices.map((x) => [key(x), x]));
  const own = new Set((p.sale?.prices ?? []).map(key));
  return (
    (same(before.stock, after.stock) || (p.sale?.stock?.length ?? 0) > 0) &&
    after.prices.prices.every((x) => same(was.get(key(x)), x) || own.has(key(x))) &&
    before.prices.taxRate === after.prices.taxRate
  );
}

/** The shop as a project sees it, with what is on sale for it alone. */
export function shopFor(s: Shop, p: Project): Shop {
  if (!p.sale) return s;
  const { stock, prices } = p.sale;
  const over = new Map((prices ?? []).map((x) => [key(x), x]));
  const had = new Set(s.prices.prices.map(key));
  return {
    ...s,
    stock: stock && stock.length > 0 ? stock : s.stock,
    prices: {
      ...s.prices,
      prices: [...s.prices.prices.map((x) => over.get(key(x)) ?? x), ...(prices ?? []).filter((x) => !had.has(key(x)))],
    },
  };
}
