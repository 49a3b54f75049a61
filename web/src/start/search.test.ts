import { expect, test } from "vitest";
import type { Starter } from "../api/client";
import { groupsOf, matching } from "./search";

const starter = (id: string, name: string, words: string, about = "", group = "To hold or hang things") =>
  ({ id, name, about, words, for: group, prompts: [], drawing: "" }) as Starter;
const all = [
  starter("table", "Table or shelf frame", "hold a load up off the ground bench rack"),
  starter("cart", "Hand cart", "trolley on wheels push", "A deck on two wheels.", "To move, fold or carry"),
  starter("cwall", "Wall with C feet", "backdrop banner", "Columns for a cloth.", "Walls, screens and nets"),
  starter("tunnel", "Tunnel of sprung hoops", "greenhouse rain cover", "", "Shelter"),
];
const found = (text: string) => matching(all, text).map((s) => s.id);

test("a builder's own words find a starter", () => {
  expect(found("hold a load up off the ground")[0]).toBe("table");
  expect(found("a wall")).toEqual(["cwall"]);
  expect(found("a tunnel")).toEqual(["tunnel"]);
  expect(found("on wheels")).toEqual(["cart"]);
  expect(found("wheel")).toEqual(["cart"]);
  expect(found("castle")).toEqual([]);
  expect(found("  ")).toHaveLength(4);
});

test("they stand by what they are for, the builder's own first", () => {
  const own = starter("own:1", "Mine", "");
  expect(groupsOf([...all, own]).map(([g]) => g)).toEqual([
    "Your own",
    "To hold or hang things",
    "To move, fold or carry",
    "Walls, screens and nets",
    "Shelter",
  ]);
});
