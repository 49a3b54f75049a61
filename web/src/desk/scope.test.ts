import { describe, expect, it } from "vitest";
import type { Project, Shop } from "../api/client";
import { isOwn, ownOf, shopFor } from "./scope";

const tee = (amount: number) => ({ ware: "fitting", kind: "tee", size: "3/4", amount });
const shop = (amount: number, ...feet: number[]) =>
  ({
    stock: feet.map((f) => ({ length: f })),
    prices: { prices: [tee(amount), { ware: "primer", ounces: 8, amount: 500 }], taxRate: 0 },
  }) as unknown as Shop;
const project = { name: "x" } as Project;

describe("a change of the shop", () => {
  it("becomes a project's own, and only what changed does", () => {
    const own = ownOf(shop(100, 10, 5), shop(250, 10, 5));
    expect(own?.(project).sale).toEqual({ prices: [tee(250)] });
    const both = ownOf(shop(100, 10, 5), shop(100, 20))?.(own?.(project) as Project);
    expect(both?.sale).toEqual({ prices: [tee(250)], stock: [{ length: 20 }] });
    expect(shopFor(shop(100, 10, 5), both as Project)).toEqual(shop(250, 20));
    expect(ownOf(shop(100, 10), { ...shop(100, 10), prices: { ...shop(100, 10).prices, taxRate: 0.1 } })).toBeUndefined(); // tax is the shop's
  });

  it("of how sticks are carried can be a project's own, but not that anything is carried", () => {
    const haul = { limit: 60 };
    const p = ownOf(shop(100, 10), { ...shop(100, 10), haul })?.(project) as Project;
    expect(p.sale).toEqual({ haul });
    expect(shopFor(shop(100, 10), p).haul).toEqual(haul);
    expect(isOwn({ ...shop(100, 10), haul }, { ...shop(100, 10), haul: { limit: 48 } }, p)).toBe(true);
    expect(isOwn(shop(100, 10), { ...shop(100, 10), haul }, project)).toBe(false);
    expect(ownOf({ ...shop(100, 10), haul }, shop(100, 10))).toBeUndefined();
  });

  it("of what is a project's own already asks nothing", () => {
    const p = ownOf(shop(100, 10), shop(250, 10))?.(project) as Project;
    expect(isOwn(shop(250, 10), shop(300, 10), p)).toBe(true);
    expect(isOwn(shop(250, 10), shop(250, 20), p)).toBe(false);
    expect(isOwn(shop(100, 10), shop(300, 10), project)).toBe(false);
  });
});
