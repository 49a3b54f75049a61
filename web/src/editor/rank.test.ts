import { expect, it } from "vitest";
import { rank } from "./rank";

it("the very name comes first, and one letter is a piece's", () => {
  const all: [string, string[]?][] = [
    ['Make Bar height 4 13/16"', ["pipe D would be too short"]],
    ["Pipe D", ["show letter piece"]],
    ["Pipe DA", ["show letter piece"]],
    ["Build sheet, to print"],
    ["Lengths in decimal inches", ["units metric imperial"]],
  ];
  const best = (typed: string) =>
    all
      .map(([n, also]) => ({ n, r: rank(n, typed, also) }))
      .sort((a, b) => b.r - a.r)
      .filter((x) => x.r > 0)
      .map((x) => x.n);
  expect(best("Pipe D")[0]).toBe("Pipe D");
  expect(best("sheet")).toEqual(["Build sheet, to print"]);
  expect(best("d")).toEqual(["Pipe D", "Pipe DA", "Lengths in decimal inches"]);
  expect(best("metric")).toEqual(["Lengths in decimal inches"]);
  expect(best("xyz")).toEqual([]);
});
