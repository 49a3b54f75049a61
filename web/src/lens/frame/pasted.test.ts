import { describe, expect, it } from "vitest";
import { readPasted } from "./pasted";

const names = [
  { name: "A", pipes: ["p1", "p3"] },
  { name: "AB", pipes: ["p9"] },
  { name: "rail 1", pipes: ["rail 1"] },
  { name: "rail 1 bay 2", pipes: ["rail 1 bay 2"] },
  { name: "p1", pipes: ["p1"] },
];

describe("a pasted list", () => {
  it("names letters and pipes, with what people put between", () => {
    expect(readPasted("A 23 1/2\np1: 12\n rail 1 bay 2 = 4 ft \na,7", names).cuts).toEqual([
      ["p1", "23 1/2"],
      ["p3", "23 1/2"],
      ["p1", "12"],
      ["rail 1 bay 2", "4 ft"],
      ["p1", "7"],
      ["p3", "7"],
    ]);
  });

  it("takes the longest name that fits", () => {
    expect(readPasted("rail 1 bay 2 48\nAB 9\nrail 1 6", names).cuts).toEqual([
      ["rail 1 bay 2", "48"],
      ["p9", "9"],
      ["rail 1", "6"],
    ]);
  });

  it("keeps what names no piece, as it was written", () => {
    const { cuts, rest } = readPasted("  q9 12\n\nA\nApple 4\nA 5", names);
    expect(rest).toEqual(["  q9 12", "A", "Apple 4"]);
    expect(cuts).toEqual([
      ["p1", "5"],
      ["p3", "5"],
    ]);
  });

  it("reads no length itself: nonsense goes to the server as it is", () => {
    expect(readPasted("A long", names).cuts[0]).toEqual(["p1", "long"]);
  });
});
