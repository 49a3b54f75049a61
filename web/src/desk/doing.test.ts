import { expect, test } from "vitest";
import type { DoneEvent, Line, StickPiece } from "../api/client";
import { withOutgoing } from "./doing";

const tee = { ware: "fitting", kind: "tee", size: "3/4" };
const bought = { id: "a", kind: "bought", ware: tee, count: 3 } as DoneEvent;
const line = { ...tee, count: 8 } as Line;

test("what is on its way counts beside what the plan has, and once where the plan has it already", () => {
  expect(withOutgoing([bought]).got(line)).toBe(3);
  expect(withOutgoing([bought]).got({ ...line, got: 2, events: ["z"] })).toBe(5);
  expect(withOutgoing([bought]).got({ ...line, got: 5, events: ["z", "a"] })).toBe(5);
  expect(withOutgoing([bought, { id: "b", kind: "not-done", event: "a" } as DoneEvent]).got(line)).toBe(0);
});

test("a piece is cut by what is on its way, until that is taken back", () => {
  const piece = { pipe: "p", copy: 1 } as StickPiece;
  const cut = { id: "c", kind: "cut", piece: { pipe: "p", copy: 1 } } as DoneEvent;
  expect(withOutgoing([cut]).saying(piece)).toEqual(["c"]);
  expect(withOutgoing([cut]).saying({ ...piece, cut: "c" })).toEqual(["c"]);
  expect(withOutgoing([cut, { id: "d", kind: "not-done", event: "c" } as DoneEvent]).isCut({ ...piece, cut: "c" })).toBe(false);
});
