import { expect, test } from "vitest";
import type { Joint } from "../../api/client";
import { said, taken, withWay } from "./ways";

test("a direction takes the place of the one that was typed", () => {
  expect(withWay("", "up")).toBe("up ");
  expect(withWay("right 46 clear", "up")).toBe("up 46 clear");
  expect(withWay("right up@30 12 cut", "left")).toBe("left 12 cut");
  expect(withWay("r 4 ft", "near")).toBe("near 4 ft");
});

test("a way is taken where a pipe leaves", () => {
  const j = {
    ports: [
      { dir: [0, 0, 1], fill: "pipe" },
      { dir: [1, 0, 0], fill: "open" },
    ],
  } as unknown as Joint;
  expect(taken(j, [0, 0, 1])).toBe(true);
  expect(taken(j, [1, 0, 0])).toBe(false);
  expect(taken(j, [0, 0, -1])).toBe(false);
});

test("directions in words", () => {
  expect(said([0, 0, 1])).toBe("up");
  expect(said([0.7, 0, 0.7])).toBe("right and up");
  expect(said([0, -1, 0])).toBe("near");
});
