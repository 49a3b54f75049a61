import { QueryClient } from "@tanstack/react-query";
import { afterEach, describe, expect, it, vi } from "vitest";
import type { Edit, Plan, Project, Shop } from "../api/client";
import { OpenProject } from "./open-project";
import type { Now } from "./follow";
import { type Server, serverOf } from "./server";

// the client takes the page's fetch when it is loaded; outside a browser an address has to be whole
const net = vi.hoisted(() => {
  const Whole = globalThis.Request;
  globalThis.Request = class extends Whole {
    constructor(at: RequestInfo | URL, init?: RequestInit) {
      super(typeof at === "string" && at.startsWith("/") ? `http://127.0.0.1${at}` : at, init);
    }
  };
  const net = { answer: undefined as ((r: Request) => Promise<Response>) | undefined };
  globalThis.fetch = async (input, init) => {
    const r = new Request(input, init);
    if (!net.answer) throw new TypeError("nobody answers");
    return net.answer(r);
  };
  return net;
});

const shop: Shop = { measurements: [], stock: [], tools: [], rack: [], prices: { prices: [], taxRate: 0 } };
const project = (name: string): Project => ({ name, units: "in", style: "inches", tool: "saw", copies: 1 });

/** What the server says of how new what it has is. */
const now = (n: Partial<Now>): Now => ({ shop: 1, version: "v", run: "r", ...n });

type Answer = Awaited<ReturnType<Server["edit"]>>;

/** A server that answers gestures when it is told to, and everything else at once. */
function bench() {
  const edits: { project: Project; edit: Edit; answer: (name: string, more?: Partial<Answer>) => Promise<void> }[] = [];
  const saved: string[] = [];
  const heard: ((n: Now) => void)[] = [];

  const at = { name: "a", revision: 1 };
  const server: Server = {
    project: async () => ({ doc: project(at.name), revision: at.revision }),
    shop: async () => ({ doc: shop, revision: 1 }),
    saveProject: async (revision, p) => {
      saved.push(p.name);
      return revision + 1;
    },
    saveShop: async (revision) => revision + 1,
    edit: (p, _, edit) =>
      new Promise<Answer>((done) => {
        edits.push({
          project: p,
          edit,
          answer: async (name, more) => {
            done({ project: { ...p, name }, done: { label: `to ${name}` }, ...more } as Answer);
            await vi.waitFor(() => undefined);
            await new Promise((go) => setTimeout(go, 0));
          },
        });
      }),
    plan: async () => ({
      plan: { frames: [] } as unknown as Plan,
      drawings: [],
      repeats: [],
      beside: [],
      alone: [],
      shopKey: "",
      events: 0,
    }),
    say: async () => ({ events: [], last: 0 }),
    effect: async () => ({ changed: [], kept: 0, looked: 0, more: 0 }),
    putBack: async () => undefined,
    follow: (f) => {
      heard.push(f);
      return () => undefined;
    },
    close: () => undefined,
  };
  const open = new OpenProject(new QueryClient(), "x", server);
  const name = () => open.documents.current()?.project.name;
  const history = () => open.store.getState().history;
  return { open, edits, saved, server, name, history, heard, at };
}

const pull = (by: number) => ({ bay: { axis: 0, plane: "p", pull: by } });

describe("a pull", () => {
  const hand = { pulls: "hand" };

  it("is one step, however many answers came", async () => {
    const b = bench();
    await b.open.open();
    b.open.gestures.pull(pull(1), hand);
    b.open.gestures.pull(pull(2), hand);
    b.open.gestures.pull(pull(3), hand);
    await b.edits[0]?.answer("b");
    expect(b.edits).toHaveLength(2); // the second was replaced by the third before it was asked
    expect(b.edits[1]?.project.name).toBe("a"); // from the same beginning
    await b.edits[1]?.answer("c");
    b.open.gestures.drop();
    expect(b.name()).toBe("c");
    expect(b.history()?.past).toHaveLength(1);
    b.open.documents.undo();
    expect(b.name()).toBe("a");
  });

  it("does not bring back what was undone while it went on", async () => {
    const b = bench();
    await b.open.open();
    b.open.gestures.pull(pull(1), hand);
    await b.edits[0]?.answer("b");
    b.open.gestures.pull(pull(2), hand);
    b.open.documents.undo();
    await b.edits[1]?.answer("c"); // the answer to what was under way
    expect(b.name()).toBe("a");
    b.open.gestures.pull(pull(3), hand); // the hand has not let go yet
    expect(b.edits).toHaveLength(2);
    b.open.gestures.drop();
    b.open.gestures.pull(pull(4), { pulls: "another hand" });
    expect(b.edits).toHaveLength(3);
  });

  it("whose last answer comes after the hand let go still counts", async () => {
    const b = bench();
    await b.open.open();
    b.open.gestures.pull(pull(1), hand);
    b.open.gestures.drop();
    await b.edits[0]?.answer("b");
    expect(b.name()).toBe("b");
    expect(b.history()?.past[0]?.on).toBeUndefined(); // settled: the next pull is a step of its own
  });
});

describe("another window", () => {
  it("is followed, and its change is a step that undo takes back", async () => {
    const b = bench();
    await b.open.open();
    b.at.name = "theirs";
    b.at.revision = 2;
    b.heard[0]?.(now({ revision: 2, shop: 1 }));
    await vi.waitFor(() => expect(b.name()).toBe("theirs"));
    expect(b.saved).toEqual([]); // what came is not saved back
    expect(b.open.store.getState().save.is).toBe("saved");
    b.open.documents.undo();
    expect(b.name()).toBe("a");
  });

  it("waits while something here is still to be saved", async () => {
    const b = bench();
    await b.open.open();
    b.open.documents.edit("Name", (p) => ({ ...p, name: "mine" }));
    b.at.name = "theirs";
    b.at.revision = 2;
    b.heard[0]?.(now({ revision: 2, shop: 1 }));
    await new Promise((go) => setTimeout(go, 0));
    expect(b.name()).toBe("mine");
  });

  it("that deletes the project is told", async () => {
    const b = bench();
    await b.open.open();
    b.heard[0]?.(now({ shop: 1, gone: true }));
    expect(b.open.store.getState().gone).toBe(true);
    await b.open.putBack();
    expect(b.open.store.getState().gone).toBe(false);
  });
});

describe("gestures", () => {
  it("are made one after the other, each on what the one before left", async () => {
    const b = bench();
    await b.open.open();
    void b.open.gestures.run({ begin: {} });
    void b.open.gestures.run({ begin: {} });
    await vi.waitFor(() => expect(b.edits).toHaveLength(1));
    await b.edits[0]?.answer("b");
    await vi.waitFor(() => expect(b.edits).toHaveLength(2));
    expect(b.edits[1]?.project.name).toBe("b");
  });

  it("are made anew on what was typed meanwhile", async () => {
    const b = bench();
    await b.open.open();
    void b.open.gestures.run({ begin: {} });
    await vi.waitFor(() => expect(b.edits).toHaveLength(1));
    b.open.documents.edit("How many", (p) => ({ ...p, copies: 3 }));
    await b.edits[0]?.answer("b");
    await vi.waitFor(() => expect(b.edits).toHaveLength(2));
    expect(b.edits[1]?.project.copies).toBe(3);
    expect(b.name()).toBe("a");
  });

  it.each([
    ["ask again what was answered, when the answer is undone", false],
    ["do not ask it over what is being typed", true],
  ])("%s", async (_, typing) => {
    const b = bench();
    await b.open.open();
    const question = { title: "What gives way?", what: "two sizes", options: [{ id: "one", label: "the one" }] };
    void b.open.gestures.run({ begin: {} });
    await vi.waitFor(() => expect(b.edits).toHaveLength(1));
    await b.edits[0]?.answer("a", { question } as Partial<Answer>);
    b.open.store.getState().asks?.choose({ id: "one", label: "the one", more: ["two"] });
    await vi.waitFor(() => expect(b.edits).toHaveLength(2));
    expect(b.edits[1]?.edit.answers).toEqual(["one", "two"]);
    await b.edits[1]?.answer("b");
    expect(b.name()).toBe("b");
    vi.stubGlobal("document", { activeElement: { matches: () => typing } });
    b.open.documents.undo();
    vi.unstubAllGlobals();
    expect(b.name()).toBe("a");
    await new Promise((go) => setTimeout(go, 20));
    expect(b.edits).toHaveLength(typing ? 2 : 3);
  });
});

describe("saving", () => {
  afterEach(() => {
    vi.useRealTimers();
    net.answer = undefined;
  });

  const problem = (status: number, body: object) =>
    new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/problem+json" } });
  const json = (body: object) => new Response(JSON.stringify(body), { headers: { "Content-Type": "application/json" } });

  // a stale save asks for the newer version; when that fails, it is asked again until it comes
  it("goes on after another window's version could not be read at first", async () => {
    vi.useFakeTimers({ toFake: ["setTimeout", "clearTimeout", "Date"] });
    const pass = async (ms: number) => {
      // the answers' bodies are read between the timers
      for (let t = 0; t < ms; t += 100) {
        await vi.advanceTimersByTimeAsync(100);
        for (let n = 0; n < 20; n++) await Promise.resolve();
      }
    };
    let stored = { name: "a", revision: 1 };
    let silent = 0;
    const asked: string[] = [];
    net.answer = async (r) => {
      const path = new URL(r.url).pathname;
      asked.push(`${r.method} ${path}`);
      if (path === "/api/shop") return json({ shop, revision: 1 });
      if (path === "/api/plan") return json({ plan: { frames: [] }, drawings: [] });
      if (r.method === "GET") {
        if (silent-- > 0) throw new TypeError("the server does not answer");
        return json({ project: project(stored.name), revision: stored.revision });
      }
      const body = (await r.json()) as { revision: number; project: Project };
      if (body.revision !== stored.revision)
        return problem(409, { title: "stale", errors: [{ pointer: "/revision", message: "stale", value: stored.revision }] });
      stored = { name: body.project.name, revision: stored.revision + 1 };
      return json({ revision: stored.revision });
    };
    const client = new QueryClient();
    const server = { ...serverOf(client, "x"), follow: () => () => undefined };
    const open = new OpenProject(client, "x", server);
    const opening = open.open();
    await pass(300);
    await opening;
    stored = { name: "theirs", revision: 2 };
    silent = 3;
    open.documents.edit("Name", (p) => ({ ...p, name: "mine" }));
    await pass(700);
    expect(open.store.getState().save.is).toBe("stale");
    expect(open.store.getState().other).toBeUndefined();
    await pass(20_000);
    expect(open.store.getState().other?.project.name).toBe("theirs");
    open.documents.keep("mine");
    await pass(2000);
    expect(stored.name).toBe("mine");
    expect(open.store.getState().save.is).toBe("saved");
    open.documents.edit("Name", (p) => ({ ...p, name: "mine again" }));
    await pass(2000);
    expect(stored.name).toBe("mine again");
  });
});
