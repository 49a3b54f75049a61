import { expect, test } from "vitest";
import type { DrawnStick } from "./alike";
import { carriedAs, runsOf } from "./runs";

const stick = (names: string, parts?: number[]) =>
  ({
    pieces: [...names].map((name) => ({ name, length: name.charCodeAt(0) })),
    parts: parts?.map((pieces) => ({ length: 1, pieces })),
  }) as unknown as DrawnStick;

test("equal pieces that follow each other are one run, within a part that the shop cut", () => {
  expect(runsOf(stick("AABBBA")).map((r) => `${r.name}${r.pieces.length}@${r.first}`)).toEqual(["A2@0", "B3@2", "A1@5"]);
  expect(runsOf(stick("AAAA", [2, 2])).map((r) => [r.pieces.length, r.part])).toEqual([
    [2, false],
    [2, true],
  ]);
  expect(runsOf(stick(""))).toEqual([]);
});

test("a stick that the shop cuts is carried as its parts, each with its pieces and what it leaves", () => {
  const s = stick("AABB", [2, 2, 0]);
  expect(carriedAs(s, runsOf(s)).map((c) => c.runs.map((r) => `${r.name}${r.pieces.length}`))).toEqual([["A2"], ["B2"], []]);
  const whole = { ...stick("AAB"), length: 9, left: 2 };
  expect(carriedAs(whole, runsOf(whole))).toEqual([{ length: 9, left: 2, runs: runsOf(whole) }]);
});
