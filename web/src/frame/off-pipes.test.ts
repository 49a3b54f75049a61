import { expect, test } from "vitest";
import type { PlanFrame } from "../api/client";
import { offPipes, pipesOf } from "./off-pipes";

const frame = {
  pipes: [
    {
      shown: [
        [0, 0, 0],
        [100, 0, 0],
      ],
    },
  ],
} as unknown as PlanFrame;
const far = pipesOf(frame, (s) => ({ x: s[0] ?? 0, y: s[2] ?? 0 }));

test("how far a point is from the nearest pipe", () => {
  expect(far({ x: 50, y: 20 })).toBe(20);
  expect(far({ x: 130, y: 40 })).toBe(50);
});

test("a handle takes the first of its places that is off all pipes", () => {
  const places = [
    { x: 50, y: 4 },
    { x: 50, y: 30 },
    { x: 50, y: 60 },
  ];
  expect(offPipes(places, far, 18)[0]).toEqual({ x: 50, y: 30 });
  expect(offPipes(places.slice(0, 1), far, 18)[0]).toEqual({ x: 50, y: 4 });
});
