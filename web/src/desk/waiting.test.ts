import { describe, expect, it } from "vitest";
import { type Project, Refusal, type Shop } from "../api/client";
import type { Keeper, Kept } from "./kept";
import { type Stores, storeChanges } from "./waiting";

const shop = (tax: number, scrap?: number): Shop => ({
  measurements: [],
  stock: [],
  tools: [],
  rack: [],
  scrap,
  prices: { prices: [], taxRate: tax },
});
const project = (name: string): Project => ({ name, units: "in", style: "inches", tool: "saw", copies: 1 });

function bench(mine: Kept["mine"]) {
  const all = new Map<string, Kept>([
    ["x", { at: 1, project: { doc: project("was"), revision: 3 }, shop: { doc: shop(0), revision: 5 }, mine }],
  ]);
  const keeper: Keeper = {
    get: async (id) => all.get(id),
    set: async (id, k) => void all.set(id, k),
    del: async (id) => void all.delete(id),
    ids: async () => [...all.keys()],
  };
  const server = { project: { name: "was", revision: 3 }, shop: { doc: shop(0), revision: 5 }, lose: false };
  const stores: Stores = {
    project: async (_id, revision, p) => {
      if (revision !== server.project.revision) throw new Refusal(409, { title: "stale", status: 409 });
      server.project = { name: p.name, revision: revision + 1 };
      return revision + 1;
    },
    shop: async () => server.shop,
    saveShop: async (revision, doc) => {
      if (revision !== server.shop.revision) throw new Refusal(409, { title: "stale", status: 409 });
      server.shop = { doc, revision: revision + 1 };
      return revision + 1;
    },
  };
  return { all, keeper, server, stores, go: () => storeChanges("x", keeper, stores) };
}

describe("what was changed while the server was away", () => {
  it("goes out by itself, once", async () => {
    const b = bench({ project: project("mine"), shop: shop(0.1) });
    await b.go();
    expect(b.server.project.name).toBe("mine");
    expect(b.server.shop.doc.prices.taxRate).toBe(0.1);
    expect(b.all.get("x")?.mine).toBeUndefined();
    expect(b.all.get("x")?.project).toEqual({ doc: project("mine"), revision: 4 });
    await b.go();
    expect(b.server.project.revision).toBe(4);
  });

  it("leaves what others changed in the shop", async () => {
    const b = bench({ shop: shop(0.1) });
    b.server.shop = { doc: shop(0, 7), revision: 9 };
    await b.go();
    expect(b.server.shop).toEqual({ doc: shop(0.1, 7), revision: 10 });
  });

  it("waits for the page where another window saved the project, and is not lost", async () => {
    const b = bench({ project: project("mine"), shop: shop(0.1) });
    b.server.project = { name: "theirs", revision: 4 };
    await expect(b.go()).rejects.toThrow(Refusal);
    expect(b.server.project.name).toBe("theirs");
    expect(b.server.shop.doc.prices.taxRate).toBe(0.1); // the price is out
    expect(b.all.get("x")?.mine).toEqual({ project: project("mine"), shop: undefined });
  });
});
