import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { Refusal } from "../api/client";
import { Saver, savesDone } from "./saver";

const stale = new Refusal(409, { title: "stale", status: 409, errors: [{ pointer: "/revision", message: "stale", value: 9 }] });

const ends: (() => void)[] = [];

/** A store that answers when it is told to. */
function store() {
  const waiting: { revision: number; doc: string; done: (r: number) => void; fail: (e: Error) => void }[] = [];
  const put = (revision: number, doc: string) =>
    new Promise<number>((done, fail) => {
      waiting.push({ revision, doc, done, fail });
      ends.push(() => done(revision + 1));
    });
  return { waiting, put };
}

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(async () => {
  while (ends.length > 0) {
    ends.pop()?.();
    await vi.advanceTimersByTimeAsync(0);
  }
  vi.useRealTimers();
});

describe("what is changed is saved", () => {
  it("after a pause, once, with the last state", async () => {
    const { waiting, put } = store();
    const s = new Saver<string>(put, () => undefined);
    s.loaded("a", 1);
    s.want("b");
    await vi.advanceTimersByTimeAsync(300);
    s.want("c");
    expect(s.state.is).toBe("waiting");
    await vi.advanceTimersByTimeAsync(600);
    expect(waiting.map((w) => [w.revision, w.doc])).toEqual([[1, "c"]]);
    waiting[0]?.done(2);
    await vi.advanceTimersByTimeAsync(0);
    expect(s.state.is).toBe("saved");
    expect(s.revision).toBe(2);
  });

  it("never two at a time: what came meanwhile is saved after", async () => {
    const { waiting, put } = store();
    const s = new Saver<string>(put, () => undefined);
    s.loaded("a", 1);
    s.want("b");
    await vi.advanceTimersByTimeAsync(600);
    s.want("c");
    await vi.advanceTimersByTimeAsync(5000);
    expect(waiting).toHaveLength(1);
    waiting[0]?.done(2);
    await vi.advanceTimersByTimeAsync(600);
    expect(waiting.map((w) => [w.revision, w.doc])).toEqual([
      [1, "b"],
      [2, "c"],
    ]);
  });

  it("is tried again when the server does not answer", async () => {
    const { waiting, put } = store();
    const s = new Saver<string>(put, () => undefined);
    s.loaded("a", 1);
    s.want("b");
    await vi.advanceTimersByTimeAsync(600);
    waiting[0]?.fail(new Error("gone"));
    await vi.advanceTimersByTimeAsync(100);
    expect(s.state).toEqual({ is: "failed", why: "the server does not answer" });
    await vi.advanceTimersByTimeAsync(4100);
    waiting[1]?.done(2);
    await vi.advanceTimersByTimeAsync(0);
    expect(s.state.is).toBe("saved");
  });

  it("stops when it is stale, until someone decides", async () => {
    const { waiting, put } = store();
    const s = new Saver<string>(put, () => undefined);
    s.loaded("a", 1);
    s.want("b");
    await vi.advanceTimersByTimeAsync(600);
    waiting[0]?.fail(stale);
    await vi.advanceTimersByTimeAsync(100);
    expect(s.state).toEqual({ is: "stale", newer: 9 });
    s.want("c");
    s.flush();
    await vi.advanceTimersByTimeAsync(60_000);
    expect(waiting).toHaveLength(1);
    s.over(9);
    expect(waiting[1]).toMatchObject({ revision: 9, doc: "c" });
  });

  it("goes at once when the window is about to go", async () => {
    const { waiting, put } = store();
    const s = new Saver<string>(put, () => undefined);
    s.loaded("a", 1);
    s.flush();
    expect(waiting).toHaveLength(0);
    s.want("b");
    s.flush();
    expect(waiting).toHaveLength(1);
  });

  it("goes at once after the one under way, and the next page can wait for both", async () => {
    const { waiting, put } = store();
    const s = new Saver<string>(put, () => undefined);
    s.loaded("a", 1);
    s.want("b");
    s.flush();
    s.want("c");
    s.flush();
    let ready = false;
    void savesDone().then(() => {
      ready = true;
    });
    await vi.advanceTimersByTimeAsync(0);
    expect([waiting.length, ready]).toEqual([1, false]);
    waiting[0]?.done(2);
    await vi.advanceTimersByTimeAsync(0);
    expect(waiting.map((w) => [w.revision, w.doc])).toEqual([
      [1, "b"],
      [2, "c"],
    ]);
    expect(ready).toBe(false);
    waiting[1]?.done(3);
    await vi.advanceTimersByTimeAsync(0);
    expect([ready, s.state.is]).toEqual([true, "saved"]);
  });
});
