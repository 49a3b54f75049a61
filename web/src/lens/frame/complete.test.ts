import { expect, test } from "vitest";
import { complete, completed } from "./complete";

const named = {
  joints: ["j1", "j2", "j11"],
  pipes: ["A", "B"],
  parts: ["foot 1"],
  toward: (way: string) => (way === "right" ? ["j11", "j2"] : []),
};

test("a word becomes what it may be", () => {
  expect(complete("rig", named)).toEqual(["right"]);
  expect(complete("j1: rig", named)).toEqual(["right"]);
  expect(complete("foot = ne", named)).toEqual(["near"]);
  expect(complete("right 24 c", named)).toEqual(["cut", "clear", "capped"]);
  expect(complete("right ", named)).toEqual(["touching", "to j11", "to j2"]);
  expect(complete("right to ", named)).toEqual(["j11", "j2"]);
  expect(complete("right to j1", named)).toEqual(["j11"]);
  expect(complete("split A a", named)).toEqual(["at"]);
  expect(complete("tee at j1 spar", named)).toEqual(["spare"]);
  expect(complete("tee at j", named)).toEqual(["j1", "j2", "j11"]);
  expect(complete("", named)).toEqual([]);
  expect(complete("right 24 ", named)).toEqual([]);
});

test("it comes in the place of the word that was begun", () => {
  expect(completed("right 24 c", "cut")).toBe("right 24 cut ");
  expect(completed("right ", "touching")).toBe("right touching ");
});
