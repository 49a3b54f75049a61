import { expect, test } from "vitest";
import type { DoneEvent, Plan } from "../../api/client";
import { stepsOf, tally } from "./steps";

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
          length: 100,
          origin: "shop",
          left: 1,
          pieces: [piece("p1", "A", 30, "e1"), piece("p2", "A", 30), piece("p3", "B", 20)],
        },
        { key: "l", length: 100, origin: "shop", left: 1, pieces: [piece("p4", "B", 20)] },
      ],
    },
  ],
  existing: [{ id: "e1", deburred: true }],
} as unknown as Plan;

test("the work goes piece by piece, and tells where the stop stays", () => {
  const steps = stepsOf(plan, [], "cut");
  expect(steps.map((s) => [s.piece.name, s.number, s.done, s.stopStays])).toEqual([
    ["A", 1, true, false],
    ["A", 1, false, true],
    ["B", 1, false, false],
    ["B", 2, false, false],
  ]);
  expect(tally(steps, "A", "3/4")).toEqual([1, 2]);
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
