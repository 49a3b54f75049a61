import type { Effect, Price, Project, Shop } from "../api/client";
import { byThing, specKey as key } from "../lib/spec";
import { same } from "./merge";

/** Whom a change of the shop is for: every project, or the one that is open. */
export type Whom = "all" | "own";

/** A change of the shop that waits to be told whom it is for. */
export interface ShopAsk {
  label: string;
  shop: (s: Shop) => Shop;
  /** The change as this project's own; nothing where it can only be the shop's. */
  own?: (p: Project) => Project;
  /** What it would change in other projects; nothing where the server did not say. */
  effect?: Effect;
}

/** The prices of every thing whose prices are not what they were. */
function changed(before: Shop, after: Shop): Map<string, Price[]> {
  const was = byThing(before.prices.prices);
  return new Map([...byThing(after.prices.prices)].filter(([k, now]) => !same(was.get(k), now)));
}

/** A change of the shop made a project's own: its stick lengths, its prices, how its sticks are carried. */
export function ownOf(before: Shop, after: Shop, of?: Project): ((p: Project) => Project) | undefined {
  const stock = same(before.stock, after.stock) ? undefined : after.stock;
  const now = changed(before, after);
  const haul = !same(before.haul, after.haul) && after.haul; // that anything is carried is the shop's to say
  const taxed = of?.sale?.taxRate !== undefined && before.prices.taxRate !== after.prices.taxRate; // else it is the shop's to say
  if (!stock && !haul && !taxed && now.size === 0) return undefined;
  return (p) => ({
    ...p,
    sale: {
      ...p.sale,
      ...(stock ? { stock } : {}),
      ...(haul ? { haul } : {}),
      ...(taxed ? { taxRate: after.prices.taxRate } : {}),
      ...(now.size > 0 ? { prices: [...(p.sale?.prices ?? []).filter((x) => !now.has(key(x))), ...[...now.values()].flat()] } : {}),
    },
  });
}

/** Whether all that a change is about is the project's own already. */
export function isOwn(before: Shop, after: Shop, p: Project): boolean {
  const own = byThing(p.sale?.prices ?? []);
  return (
    (same(before.stock, after.stock) || (p.sale?.stock?.length ?? 0) > 0) &&
    (same(before.haul, after.haul) || p.sale?.haul !== undefined) &&
    [...changed(before, after).keys()].every((k) => own.has(k)) &&
    (before.prices.taxRate === after.prices.taxRate || p.sale?.taxRate !== undefined)
  );
}

/** The shop as a project sees it, with what is on sale for it alone. */
export function shopFor(s: Shop, p: Project): Shop {
  if (!p.sale) return s;
  const { stock } = p.sale;
  const over = byThing(p.sale.prices ?? []);
  const had = byThing(s.prices.prices);
  return {
    ...s,
    stock: stock && stock.length > 0 ? stock : s.stock,
    ...(p.sale.haul ? { haul: p.sale.haul } : {}),
    prices: {
      ...s.prices,
      taxRate: p.sale.taxRate ?? s.prices.taxRate,
      prices: [...[...had].flatMap(([k, all]) => over.get(k) ?? all), ...[...over].flatMap(([k, all]) => (had.has(k) ? [] : all))],
    },
  };
}
