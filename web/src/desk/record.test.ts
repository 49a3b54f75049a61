import { describe, expect, it, vi } from "vitest";
import { type DoneEvent, type EventsAnswer, Refusal } from "../api/client";
import { type Outgoing, Recorder, nothingDone, pageShelf } from "./record";

/** A recorder whose server does as it is told. */
function bench(shelf = pageShelf()) {
  const stored: DoneEvent[] = [];
  let now: Outgoing = nothingDone;
  const server = { refuse: undefined as Error | undefined, lose: false, sent: 0 };
  const recorder = new Recorder(
    shelf,
    async (events): Promise<EventsAnswer> => {
      server.sent++;
      await Promise.resolve();
      if (server.refuse) throw server.refuse;
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
    expect(b.now().events).toHaveLength(3);
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

  it("that makes no sense to the server is said, and keeps nothing else back", async () => {
    const b = bench();
    b.server.refuse = new Refusal(422, {
      title: "This cannot have happened so",
      status: 422,
      errors: [{ pointer: "/events/0/piece", message: "missing" }],
    });
    b.recorder.did([{ kind: "cut" }]);
    await vi.waitFor(() => expect(b.now().why).toContain("missing"));
    expect(b.now().events).toHaveLength(0);
    b.server.refuse = undefined;
    b.recorder.did([{ kind: "unmatched", text: "b" }]);
    await vi.waitFor(() => expect(texts(b.stored)).toEqual(["b"]));
  });
});
