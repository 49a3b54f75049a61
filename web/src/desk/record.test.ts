import { describe, expect, it, vi } from "vitest";
import { type DoneEvent, type EventsAnswer, Refusal } from "../api/client";
import { type Outgoing, Recorder, nothingDone } from "./record";
import { pageShelf } from "./shelf";

/** A recorder whose server does as it is told. */
function bench(shelf = pageShelf()) {
  const stored: DoneEvent[] = [];
  let now: Outgoing = nothingDone;
  const server = {
    refuse: undefined as Error | undefined,
    /** What is wrong with an event. */
    cannot: (_e: DoneEvent): string | undefined => undefined,
    lose: false,
    sent: 0,
  };
  const recorder = new Recorder(
    shelf,
    async (events): Promise<EventsAnswer> => {
      server.sent++;
      await Promise.resolve();
      if (server.refuse) throw server.refuse;
      const errors = events.flatMap((e, i) =>
        server.cannot(e) ? [{ pointer: `/events/${i}/text`, message: server.cannot(e) ?? "" }] : [],
      );
      if (errors.length > 0) throw new Refusal(422, { title: "This cannot have happened so", status: 422, errors });
      for (const e of events) if (!stored.some((s) => s.id === e.id)) stored.push({ ...e, seq: stored.length + 1 });
      if (server.lose) {
        server.lose = false;
        throw new TypeError("the answer was lost");
      }
      return { events, last: stored.length };
    },
    (o) => {
      now = o;
    },
  );
  return { recorder, shelf, server, stored, now: () => now };
}

const texts = (all: DoneEvent[]) => all.map((e) => e.text);

describe("what was done", () => {
  it("goes out in its order, and shows until a plan has it", async () => {
    const b = bench();
    b.recorder.did([{ kind: "unmatched", text: "a" }]);
    b.recorder.did([
      { kind: "unmatched", text: "b" },
      { kind: "unmatched", text: "c" },
    ]);
    expect(texts(b.now().events)).toEqual(["a", "b", "c"]); // at once
    b.recorder.planned(0);
    await vi.waitFor(() => expect(b.recorder.unsent).toBe(false));
    expect(texts(b.stored)).toEqual(["a", "b", "c"]);
    expect(b.now().last).toBe(3);
    b.recorder.planned(2); // a plan from before the last of them
    expect(texts(b.now().events)).toEqual(["b", "c"]); // what it has is shown by it
    b.recorder.planned(3);
    expect(b.now().events).toHaveLength(0);
  });

  it("waits while there is no server, outlives the window, and counts once when an answer was lost", async () => {
    vi.useFakeTimers();
    const b = bench();
    b.server.refuse = new TypeError("no server");
    b.recorder.did([{ kind: "unmatched", text: "a" }]);
    await vi.advanceTimersByTimeAsync(10);
    expect(b.now().why).toContain("does not answer");
    expect(b.recorder.unsent).toBe(true);
    b.recorder.close();
    const again = bench(b.shelf); // the page is opened anew
    again.server.lose = true;
    again.recorder.open();
    expect(texts(again.now().events)).toEqual(["a"]);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(texts(again.stored)).toEqual(["a"]);
    expect(again.recorder.unsent).toBe(false);
    expect(again.now().why).toBeUndefined();
    expect(again.server.sent).toBe(2);
    vi.useRealTimers();
  });

  it("says why a full disk keeps it back, and goes on when there is room", async () => {
    vi.useFakeTimers();
    const b = bench();
    b.server.refuse = new Refusal(507, { title: "Not kept: the disk is full", status: 507 });
    b.recorder.did([{ kind: "unmatched", text: "a" }]);
    await vi.advanceTimersByTimeAsync(10);
    expect(b.now().why).toBe("Not kept: the disk is full");
    b.server.refuse = undefined;
    await vi.advanceTimersByTimeAsync(5000);
    expect(texts(b.stored)).toEqual(["a"]);
    vi.useRealTimers();
  });

  it("is lost by no refusal: only what is pointed at is set aside, the rest goes on", async () => {
    const b = bench();
    b.server.cannot = (e) => (e.text === "b" ? "missing" : undefined);
    b.recorder.did([
      { kind: "unmatched", text: "a" },
      { kind: "unmatched", text: "b" },
      { kind: "unmatched", text: "c" },
    ]);
    await vi.waitFor(() => expect(texts(b.stored)).toEqual(["a", "c"]));
    expect(b.now().aside.map((x) => [x.event.text, x.why])).toEqual([["b", "missing"]]);
    expect(b.now().waiting).toBe(0);
    expect(b.now().why).toBeUndefined();
    b.recorder.close();
    const later = bench(b.shelf); // it is still there for another window
    later.recorder.open();
    expect(texts(later.now().aside.map((x) => x.event))).toEqual(["b"]);
    const id = later.now().aside[0]?.event.id ?? "";
    later.recorder.again(id);
    await vi.waitFor(() => expect(texts(later.stored)).toEqual(["b"]));
    expect(later.stored[0]?.id).toBe(id); // and counts once
    expect(later.now().aside).toEqual([]);
  });

  it("waits where the refusal points at none of it", async () => {
    vi.useFakeTimers();
    for (const [problem, said] of [
      [
        { errors: [{ pointer: "/project/together/of", message: "Wide one: no size" }], title: "Not every project can be planned" },
        "Wide one: no size",
      ],
      [
        { errors: [{ pointer: "/events/0/thing", message: "unexpected property" }], title: "Reload it", type: "other-version" },
        "Reload it",
      ],
      [{ title: "Unprocessable" }, "Unprocessable"],
    ] as const) {
      const b = bench();
      b.server.refuse = new Refusal(422, { status: 422, ...problem, errors: "errors" in problem ? [...problem.errors] : undefined });
      b.recorder.did([{ kind: "unmatched", text: "a" }]);
      await vi.advanceTimersByTimeAsync(10_000);
      expect(b.now().why).toContain(said);
      expect(b.now().waiting).toBe(1);
      expect(b.now().aside).toEqual([]);
      b.server.refuse = undefined;
      await vi.advanceTimersByTimeAsync(10_000);
      expect(texts(b.stored)).toEqual(["a"]);
    }
    vi.useRealTimers();
  });

  it("shows after a reload until a plan has it, also where the server had it before", async () => {
    const b = bench();
    b.recorder.did([{ kind: "unmatched", text: "a" }]);
    await vi.waitFor(() => expect(b.recorder.unsent).toBe(false));
    b.recorder.close();
    const again = bench(b.shelf);
    again.server.refuse = new TypeError("no server");
    again.recorder.open(); // the plan that is shown was kept from before
    expect(texts(again.now().events)).toEqual(["a"]);
    expect(again.now().waiting).toBe(0);
    again.recorder.planned(b.stored.length);
    expect(again.now().events).toEqual([]);
  });

  it("is let go where somebody says that it was not so", async () => {
    const b = bench();
    b.server.cannot = () => "too long";
    b.recorder.did([{ kind: "cut" }]);
    await vi.waitFor(() => expect(b.now().aside).toHaveLength(1));
    b.recorder.letGo(b.now().aside[0]?.event.id ?? "");
    expect(b.now().aside).toEqual([]);
    expect(b.shelf.aside()).toEqual([]);
  });
});
