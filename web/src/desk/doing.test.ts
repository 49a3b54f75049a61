import { expect, test } from "vitest";
import type { DoneEvent, Line, StickPiece } from "../api/client";
import { lotsOf, takingBack, withOutgoing } from "./doing";

const tee = { ware: "fitting", kind: "tee", size: "3/4" };
const bought = { id: "a", kind: "bought", ware: tee, count: 3 } as DoneEvent;
const line = { ...tee, count: 8 } as Line;

test("what is on its way counts beside what the plan has, and once where the plan has it already", () => {
  expect(withOutgoing([bought]).got(line)).toBe(3);
  expect(withOutgoing([bought]).got({ ...line, got: 2, lots: [{ event: "z", count: 2 }] })).toBe(5);
  expect(
    withOutgoing([bought]).got({
      ...line,
      got: 5,
      lots: [
        { event: "z", count: 2 },
        { event: "a", count: 3 },
      ],
    }),
  ).toBe(5);
  expect(withOutgoing([bought, { id: "b", kind: "not-done", event: "a" } as DoneEvent]).got(line)).toBe(0);
});

test("what was at home is told apart, and each goes back as it came", () => {
  const lots = [
    { event: "h", count: 4, home: true },
    { event: "a", count: 3 },
  ];
  const some = { ...line, got: 7, lots };
  expect(withOutgoing([]).home(some)).toBe(4);
  expect(takingBack(lots, 1)).toEqual([{ kind: "not-done", event: "a", count: 1 }]);
  expect(takingBack(lots, 9)).toEqual([{ kind: "not-done", event: "a" }]);
  expect(takingBack(lots, 1, true)).toEqual([{ kind: "not-done", event: "h", count: 1 }]);
  const out = [
    { id: "x", kind: "not-done", event: "a", count: 1 },
    { id: "b", kind: "bought", ware: tee, count: 2 },
  ] as DoneEvent[];
  expect(withOutgoing(out).got(some)).toBe(8);
  expect(lotsOf(some, out).map((l) => l.count)).toEqual([4, 2, 2]);
});

test("of sticks those go back that nothing is cut from", () => {
  const lots = [{ event: "a", count: 3, items: ["a.2", "a.3"] }];
  expect(takingBack(lots, 5)).toEqual([
    { kind: "not-done", event: "a", item: "a.2" },
    { kind: "not-done", event: "a", item: "a.3" },
  ]);
  expect(takingBack(lots, 1)).toEqual([{ kind: "not-done", event: "a", item: "a.3" }]);
});

test("a piece is cut by what is on its way, until that is taken back", () => {
  const piece = { pipe: "p", copy: 1 } as StickPiece;
  const cut = { id: "c", kind: "cut", piece: { pipe: "p", copy: 1 } } as DoneEvent;
  expect(withOutgoing([cut]).saying(piece)).toEqual(["c"]);
  expect(withOutgoing([cut]).saying({ ...piece, cut: "c" })).toEqual(["c"]);
  expect(withOutgoing([cut, { id: "d", kind: "not-done", event: "c" } as DoneEvent]).isCut({ ...piece, cut: "c" })).toBe(false);
});
