import { expect, test } from "vitest";
import type { DoneEvent, Plan } from "../../api/client";
import { after, stepsOf, tally, usedWhole } from "./steps";

const piece = (pipe: string, name: string, length: number, cut?: string) => ({
  frame: 0,
  pipe,
  copy: 1,
  name,
  length,
  at: length,
  kerf: 1,
  cut,
});
const plan = {
  pipe: [
    {
      size: "3/4",
      sticks: [
        {
          key: "k",
          number: 1,
          length: 100,
          origin: "shop",
          left: 1,
          pieces: [piece("p1", "A", 30, "e1"), piece("p2", "A", 30), piece("p3", "B", 20)],
        },
        { key: "l", number: 2, length: 100, origin: "shop", left: 1, pieces: [piece("p4", "B", 20)] },
      ],
    },
  ],
  cuts: [{ letter: "A", size: "3/4", count: 5, done: 3 }],
  existing: [{ id: "e1", deburred: true }],
} as unknown as Plan;

test("the work goes piece by piece, and tells where the stop stays", () => {
  const steps = stepsOf(plan, [], "cut");
  expect(steps.map((s) => [s.piece.name, s.stick.number, s.done, s.stopStays])).toEqual([
    ["A", 1, true, false],
    ["A", 1, false, true],
    ["B", 1, false, false],
    ["B", 2, false, false],
  ]);
  expect(tally(steps, plan, "cut", "A", "3/4")).toEqual([3, 5]); // those that an earlier plan cut are among them
});

test("only what is cut is deburred and marked, what is on its way with it", () => {
  const cut = { id: "x", kind: "cut", piece: { pipe: "p2", copy: 1 } } as DoneEvent;
  expect(stepsOf(plan, [cut], "deburred").map((s) => [s.event, s.done])).toEqual([
    ["e1", true],
    ["x", false],
  ]);
  const marked = { id: "y", kind: "marked", item: "x" } as DoneEvent;
  expect(stepsOf(plan, [cut, marked], "marked").map((s) => s.done)).toEqual([false, true]);
  const back = { id: "z", kind: "not-done", event: "y" } as DoneEvent;
  expect(stepsOf(plan, [cut, marked, back], "marked").map((s) => s.done)).toEqual([false, false]);
});

test("skipping comes back to what was left behind, and never ends with pieces left", () => {
  const steps = stepsOf(plan, [], "cut");
  expect(after(steps, 1)?.piece.pipe).toBe("p3");
  expect(after(steps, 3)?.piece.pipe).toBe("p2");
  const all = ["p2", "p3", "p4"].map((pipe, i) => ({ id: `x${i}`, kind: "cut", piece: { pipe, copy: 1 } }) as DoneEvent);
  expect(after(stepsOf(plan, all, "cut"), 3)).toBeUndefined();
});

test("a stick that is a piece as it is sold is used whole", () => {
  expect(usedWhole({ length: 120, pieces: [{ length: 120 }] })).toBe(true);
  expect(usedWhole({ length: 120e6, pieces: [{ length: 119e6 }] })).toBe(false);
  expect(usedWhole({ length: 120, pieces: [{ length: 60 }, { length: 60 }] })).toBe(false);
});
