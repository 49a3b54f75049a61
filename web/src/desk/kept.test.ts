import { QueryClient } from "@tanstack/react-query";
import { afterEach, describe, expect, it, vi } from "vitest";
import { type DoneEvent, type Plan, type PlanAnswer, type Project, Refusal, type Shop } from "../api/client";
import { keptSince, touch } from "../lib/touch";
import type { Now } from "./follow";
import type { Keeper, Kept } from "./kept";
import { OpenProject } from "./open-project";
import type { Server } from "./server";

const shop: Shop = { measurements: [], stock: [], tools: [], rack: [], prices: { prices: [], taxRate: 0 } };
const project = (name: string): Project => ({ name, units: "in", style: "inches", tool: "saw", copies: 1 });
const answer = (events: number) =>
  ({
    plan: { frames: [], begun: true, marked: true, cuts: [] } as unknown as Plan,
    drawings: [],
    repeats: [],
    beside: [],
    alone: [],
    shopKey: "",
    events,
  }) as PlanAnswer;

/** A device whose pages are opened one after the other, and a server that can be taken away. */
function device() {
  const all = new Map<string, Kept>();
  const keeper: Keeper = {
    get: async (id) => structuredClone(all.get(id)),
    set: async (id, k) => void all.set(id, structuredClone(k)),
    del: async (id) => void all.delete(id),
    ids: async () => [...all.keys()],
  };
  const at = { name: "a", revision: 1, events: [] as DoneEvent[], away: false, run: "1" };
  vi.stubGlobal("fetch", async () => {
    if (at.away) throw new TypeError("nobody answers");
    return new Response("{}");
  });
  const there = async <T>(what: () => T): Promise<T> => {
    await Promise.resolve();
    if (at.away) throw new TypeError("nobody answers");
    return what();
  };
  const pages: OpenProject[] = [];
  const heard: ((n: Now) => void)[] = [];
  const now = (): Now => ({ revision: at.revision, events: at.events.length, shop: 1, version: "v", run: at.run });
  const open = async () => {
    const server: Server = {
      project: () => there(() => ({ doc: project(at.name), revision: at.revision })),
      shop: () => there(() => ({ doc: shop, revision: 1 })),
      saveProject: (revision, p) =>
        there(() => {
          if (revision !== at.revision)
            throw new Refusal(409, { title: "stale", status: 409, errors: [{ pointer: "/revision", message: "", value: at.revision }] });
          at.name = p.name;
          return ++at.revision;
        }),
      saveShop: (revision) => there(() => revision),
      edit: () => Promise.reject(new Error("none")),
      plan: () => there(() => answer(at.events.length)),
      say: (events) =>
        there(() => {
          at.events.push(...events);
          return { events, last: at.events.length };
        }),
      effect: () => Promise.reject(new Error("none")),
      putBack: async () => undefined,
      follow: (f) => {
        heard.push(f);
        if (!at.away) f(now());
        return () => undefined;
      },
      close: () => undefined,
    };
    const page = new OpenProject(new QueryClient(), "x", server, false, keeper);
    pages.push(page);
    await page.open();
    return page;
  };
  const settled = () => new Promise((go) => setTimeout(go, 700)); // a save waits half a second for the next change
  return { at, all, open, heard, now, settled };
}

const nameOf = (p: OpenProject) => p.documents.current()?.project.name;

afterEach(() => {
  vi.unstubAllGlobals();
  touch.setState({ kept: {}, lost: undefined, accepted: undefined });
});

describe("a page without the network", () => {
  it("has its own saves, and says from when it is", async () => {
    const d = device();
    const first = await d.open();
    first.documents.edit("Name", (p) => ({ ...p, name: "saved" }));
    await d.settled();
    expect(d.at.name).toBe("saved");
    first.close();
    expect(keptSince(touch.getState())).toBeUndefined();
    d.at.away = true;
    const again = await d.open();
    expect(nameOf(again)).toBe("saved");
    expect(again.store.getState().planned.plan).toBeDefined();
    expect(keptSince(touch.getState())).toBeGreaterThan(0);
    // the server is there again, and says what it has
    d.at.away = false;
    for (const f of d.heard) f(d.now());
    await vi.waitFor(() => expect(keptSince(touch.getState())).toBeUndefined(), 5000);
    again.close();
  });

  it("keeps what is changed in it, over windows, until the server has it", async () => {
    const d = device();
    (await d.open()).close();
    d.at.away = true;
    const page = await d.open();
    page.documents.edit("Name", (p) => ({ ...p, name: "in the shed" }));
    await vi.waitFor(() => expect(d.all.get("x")?.mine?.project?.name).toBe("in the shed"));
    page.close(); // the window is gone
    const again = await d.open();
    expect(nameOf(again)).toBe("in the shed");
    again.close();
    d.at.away = false;
    const last = await d.open();
    expect(nameOf(last)).toBe("in the shed");
    await vi.waitFor(() => expect(d.at.name).toBe("in the shed"), 5000);
    await vi.waitFor(() => expect(d.all.get("x")?.mine).toBeUndefined(), 5000);
    last.close();
  });

  it("does not write over what another window saved meanwhile: both are in sight", async () => {
    const d = device();
    (await d.open()).close();
    d.at.away = true;
    const page = await d.open();
    page.documents.edit("Name", (p) => ({ ...p, name: "mine" }));
    await vi.waitFor(() => expect(d.all.get("x")?.mine?.project?.name).toBe("mine"));
    page.close();
    d.at.away = false;
    d.at.name = "theirs";
    d.at.revision = 5;
    const last = await d.open();
    await vi.waitFor(() => expect(last.store.getState().other?.project.name).toBe("theirs"), 5000);
    expect(nameOf(last)).toBe("mine");
    expect(d.at.name).toBe("theirs");
    last.close();
  });

  it("that is open while the server is put back to a backup says so, and gives nothing up", async () => {
    const d = device();
    const page = await d.open();
    page.documents.edit("Name", (p) => ({ ...p, name: "newest" }));
    await d.settled();
    d.at.name = "of the backup";
    d.at.revision = 1;
    d.at.run = "2";
    for (const f of d.heard) f(d.now());
    await vi.waitFor(() => expect(page.store.getState().earlier?.doc.name).toBe("of the backup"), 5000);
    expect(nameOf(page)).toBe("newest");
    page.documents.afterEarlier("mine");
    await vi.waitFor(() => expect(d.at.name).toBe("newest"), 5000);
    page.close();
  });
});
