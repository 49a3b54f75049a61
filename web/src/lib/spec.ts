/** Which thing it is that is bought: what a price is for. */
export interface Spec {
  ware: string;
  kind?: string;
  size?: string;
  length?: number;
  diameter?: number;
  ounces?: number;
}

/** One text for one thing, whichever of its members are left out. */
export const specKey = (s: Spec): string => [s.ware, s.kind, s.size, s.length, s.diameter, s.ounces].map((v) => v || "").join("|");

/** Prices, or anything that is of a thing, by the thing: one may have several. */
export function byThing<T extends Spec>(all: T[]): Map<string, T[]> {
  const by = new Map<string, T[]>();
  for (const p of all) by.set(specKey(p), [...(by.get(specKey(p)) ?? []), p]);
  return by;
}

/** The members of anything that say which thing it is. */
export const specOf = ({ ware, kind, size, length, diameter, ounces }: Spec): Spec => ({ ware, kind, size, length, diameter, ounces });
