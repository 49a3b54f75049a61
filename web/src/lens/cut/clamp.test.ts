import { expect, test } from "vitest";
import type { DoneEvent, Plan } from "../../api/client";
import { type Clamp, clamped } from "./clamp";
import { nowOf, stepsOf } from "./steps";

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

/** A plan with a stick of these pieces, and what is there. */
const planOf = (pieces: ReturnType<typeof piece>[], id?: string, existing: unknown[] = []) =>
  ({
    pipe: [{ size: "3/4", basis: "b", need: [], sticks: [{ key: "k", id, number: 4, length: 120, origin: "shop", left: 1, pieces }] }],
    existing,
    cuts: [],
  }) as unknown as Plan;

const clampOf = (p: Plan): Clamp => {
  const of = p.pipe[0] as Clamp["of"];
  return { of, stick: of.sticks[0] as Clamp["stick"] };
};

const cut = (pipe: string) => ({ id: `cut ${pipe}`, kind: "cut", piece: { pipe, copy: 1 }, stick: { id: "s", size: "3/4" } }) as DoneEvent;

test("a stick of the same plan is the plan's, with the id that it has by now", () => {
  const was = planOf([piece("p1", "A", 40), piece("p2", "B", 30)]);
  const now = planOf([piece("p1", "A", 40, "cut p1"), piece("p2", "B", 30)], "s");
  expect(clamped(now, [], clampOf(was)).clamp?.stick.id).toBe("s");
  expect(clamped(now, [], clampOf(was)).held).toBeUndefined();
});

test("when the plan is another, it stays as it was, and what is otherwise is told", () => {
  const was = planOf([piece("p1", "A", 40), piece("p2", "B", 30), piece("p3", "B", 30)]);
  const there = [{ id: "cut p1", pipe: "p1", copy: 1, frame: 0, stick: "s", length: 40 }];
  const now = planOf([piece("p2", "C", 28), piece("p9", "D", 10)], undefined, there);
  const { held } = clamped(now, [], clampOf(was));
  expect(held?.clamp.stick.id).toBe("s"); // where its first piece is from
  expect(held?.clamp.stick.number).toBe(4);
  expect(held?.otherwise.map((o) => [o.piece.pipe, o.now])).toEqual([
    ["p2", 28],
    ["p3", undefined],
  ]);
  const steps = stepsOf(now, [], "cut", held);
  expect(steps.map((s) => [s.piece.pipe, s.piece.length, s.done])).toEqual([
    ["p1", 40, true],
    ["p2", 30, false],
    ["p3", 30, false],
    ["p9", 10, false], // no piece is there twice
  ]);
});

test("what goes on as it is asks nothing, and once all is cut the new plan comes", () => {
  const was = planOf([piece("p1", "A", 40), piece("p2", "B", 30)]);
  const now = planOf([piece("p9", "D", 10), piece("p1", "A", 40), piece("p2", "B", 30)]);
  expect(clamped(now, [], clampOf(was)).held?.otherwise).toEqual([]);
  expect(clamped(now, [cut("p1")], clampOf(was)).held?.clamp.stick.pieces).toHaveLength(2);
  expect(clamped(now, [cut("p1"), cut("p2")], clampOf(was)).held).toBeUndefined();
});

test("a piece that came out otherwise on another device is not cut", () => {
  const was = planOf([piece("p1", "A", 40), piece("p2", "B", 30)]);
  const short = [{ id: "cut p1", pipe: "p1", copy: 1, frame: 0, stick: "s", length: 23 }];
  const { held } = clamped(planOf([piece("p1", "A", 40)], "s", short), [], clampOf(was));
  expect(held?.isCut(piece("p1", "A", 40) as never)).toBe(false);
});

test("what is in the clamp stays on the card when the plan has the same stick behind others", () => {
  const was = planOf([piece("p1", "H", 48)]);
  const now = planOf([piece("p1", "H", 48)]);
  const [live] = (now.pipe[0] as Clamp["of"]).sticks;
  const bought = (planOf([piece("p2", "G", 54)], "s").pipe[0] as Clamp["of"]).sticks;
  (now.pipe[0] as Clamp["of"]).sticks = [live as Clamp["stick"], ...bought]; // what was bought meanwhile is cut first
  const { clamp, held } = clamped(now, [], clampOf(was));
  expect(held).toBeUndefined();
  const steps = stepsOf(now, [], "cut");
  expect(steps[0]?.piece.name).toBe("G");
  expect(steps[nowOf(steps, undefined, undefined, clamp)]?.piece.name).toBe("H");
  expect(steps[nowOf(steps, undefined, "s", clamp)]?.piece.name).toBe("G"); // what the builder says is in the hand
  expect(steps[nowOf(steps, undefined, undefined, undefined)]?.piece.name).toBe("G");
});
