import { describe, expect, it } from "vitest";
import type { Project, Shop } from "../api/client";
import { type Desk, begin, change, mergeShops, redo, settle, undo } from "./history";

const price = (kind: string, amount: number) => ({ ware: "fitting", kind, size: "3/4", amount });
const shop = (...prices: ReturnType<typeof price>[]): Shop => ({
  measurements: [],
  stock: [],
  tools: [],
  rack: [],
  prices: { prices, taxRate: 0 },
});
const project = (copies: number): Project => ({ name: "x", units: "in", style: "inches", tool: "saw", copies });
const start: Desk = { project: project(1), shop: shop(price("tee", 100), price("cap", 50)) };
const copies = (n: number) => (d: Desk) => ({ ...d, project: { ...d.project, copies: n } });

describe("the history of a desk", () => {
  it("goes back and forth through every step", () => {
    let h = begin(start);
    for (let n = 2; n <= 11; n++) h = change(h, `${n} of it`, copies(n), undefined, n);
    for (let n = 10; n >= 1; n--) {
      h = undo(h);
      expect(h.now.project.copies).toBe(n);
    }
    expect(undo(h)).toBe(h);
    for (let n = 2; n <= 11; n++) {
      h = redo(h);
      expect(h.now.project.copies).toBe(n);
    }
    expect(redo(h)).toBe(h);
  });

  it("joins what changes one thing in one go, and no more", () => {
    let h = begin(start);
    h = change(h, "a", copies(2), "copies", 0);
    h = change(h, "b", copies(23), "copies", 300);
    expect(h.past).toHaveLength(1);
    expect(h.past[0]?.label).toBe("b");
    expect(h.since).toBe(start);
    h = change(h, "later", copies(4), "copies", 60_000);
    expect(h.past).toHaveLength(2);
    h = change(settle(h), "after leaving the field", copies(5), "copies", 60_001);
    expect(h.past).toHaveLength(3);
    h = change(h, "another thing", copies(6), "other", 60_002);
    expect(h.past).toHaveLength(4);
    expect(undo(undo(undo(undo(h)))).now).toEqual(start);
  });

  it("joins all of a pull, however long it rests, and nothing of another", () => {
    const on = { pulls: "width" };
    let h = change(begin(start), "pulled", copies(2), on, 0);
    h = change(h, "pulled on", copies(3), on, 60_000);
    expect(h.past).toHaveLength(1);
    expect(undo(h).now).toEqual(start);
    h = change(h, "pulled again", copies(4), { pulls: "width" }, 60_001);
    expect(h.past).toHaveLength(2);
    h = change(settle(h), "let go", copies(5), on, 60_002);
    expect(h.past).toHaveLength(3);
  });

  it("is not a step when nothing changed", () => {
    const h = begin(start);
    expect(change(h, "nothing", (d) => d, undefined, 0)).toBe(h);
  });

  it("forgets the way forward when something else is done", () => {
    let h = change(begin(start), "2", copies(2), undefined, 0);
    h = change(undo(h), "3", copies(3), undefined, 1);
    expect(h.future).toHaveLength(0);
    expect(redo(h).now.project.copies).toBe(3);
  });

  it("undoes a price without undoing what another window put in the shop meanwhile", () => {
    let h = change(begin(start), "cap", (d) => ({ ...d, shop: shop(price("tee", 100), price("cap", 75)) }), undefined, 0);
    // the other window's tee arrives
    h = { ...h, now: { ...h.now, shop: shop(price("tee", 120), price("cap", 75)) } };
    h = undo(h);
    expect(h.now.shop.prices.prices.map((p) => [p.kind, p.amount])).toEqual([
      ["tee", 120],
      ["cap", 50],
    ]);
  });
});

it("shops are put together price by price", () => {
  const base = shop(price("tee", 100), price("cap", 50));
  const mine = { ...base, prices: { ...base.prices, prices: [price("tee", 90), price("cap", 50), price("cross", 200)] } };
  const theirs = { ...base, prices: { taxRate: 0.1, prices: [price("tee", 100), price("cap", 60)] } };
  const m = mergeShops(base, mine, theirs);
  expect(m.prices.taxRate).toBe(0.1);
  expect(Object.fromEntries(m.prices.prices.map((p) => [p.kind, p.amount]))).toEqual({ tee: 90, cap: 60, cross: 200 });
});
