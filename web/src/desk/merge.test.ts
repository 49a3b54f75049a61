import { describe, expect, it } from "vitest";
import { merge, same } from "./merge";

const base = { name: "Jump", copies: 1, answers: { width: { text: "48" }, foot: { text: "24" } }, modeRules: [{ mode: "slip" }] };

describe("three versions made one", () => {
  it("takes what only one of them changed", () => {
    const mine = { ...base, answers: { ...base.answers, width: { text: "60" } } };
    const theirs = { ...base, copies: 3, answers: { ...base.answers, foot: { text: "30" } } };
    expect(merge(base, mine, theirs)).toEqual({
      value: { ...base, copies: 3, answers: { width: { text: "60" }, foot: { text: "30" } } },
      clashes: [],
    });
  });

  it("names what both changed and keeps mine", () => {
    const mine = { ...base, answers: { ...base.answers, width: { text: "60" } } };
    const theirs = { ...base, answers: { ...base.answers, width: { text: "36" } } };
    expect(merge(base, mine, theirs)).toEqual({ value: mine, clashes: ["/answers/width/text"] });
  });

  it("is no clash when both made the same change", () => {
    const both = { ...base, copies: 2 };
    expect(merge(base, both, { ...both })).toEqual({ value: both, clashes: [] });
  });

  it("keeps what one added and lets go what one removed", () => {
    const { foot: _, ...withoutFoot } = base.answers;
    const mine = { ...base, answers: { ...base.answers, bar: { text: "20" } } };
    const theirs = { ...base, answers: withoutFoot };
    const m = merge<unknown>(base, mine, theirs);
    expect(m).toEqual({ value: { ...base, answers: { width: { text: "48" }, bar: { text: "20" } } }, clashes: [] });
  });

  it("treats a list as one thing", () => {
    const m = merge(base, { ...base, modeRules: [{ mode: "cemented" }] }, { ...base, modeRules: [{ mode: "eased" }] });
    expect(m.clashes).toEqual(["/modeRules"]);
  });
});

it("same compares by value, whatever the order of members", () => {
  expect(same({ a: 1, b: [1, { c: 2 }] }, { b: [1, { c: 2 }], a: 1 })).toBe(true);
  expect(same({ a: 1 }, { a: 1, b: undefined })).toBe(true);
  expect(same([1, 2], [2, 1])).toBe(false);
  expect(same({ a: null }, { a: {} })).toBe(false);
});
