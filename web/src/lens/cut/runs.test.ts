import { expect, test } from "vitest";
import type { DrawnStick } from "./alike";
import { runsOf } from "./runs";

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
