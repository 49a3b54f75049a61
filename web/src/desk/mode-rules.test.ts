import { describe, expect, it } from "vitest";
import type { Project } from "../api/client";
import { type Mode, type Scope, flipped, hold } from "./mode-rules";

const p = (...modeRules: [Scope, Mode][]): Project => ({
  name: "",
  units: "in",
  style: "inches",
  tool: "saw",
  copies: 1,
  work: { bought: [] },
  modeRules: modeRules.map(([s, mode]) => ({ ...s, mode })),
});
const after = (from: Project, scope: Scope, mode: Mode) => hold(from, scope, mode).modeRules;

describe("a setting of joints", () => {
  it("goes to the end, over the one it replaces", () => {
    expect(after(p([{ joint: "a" }, "slip"], [{ joint: "b" }, "slip"]), { joint: "a" }, "cemented")).toEqual([
      { joint: "b", mode: "slip" },
      { joint: "a", mode: "cemented" },
    ]);
  });

  it("takes away the narrower ones that it covers", () => {
    const from = p(
      [{ joint: "foot/hub", pipe: "leg" }, "slip"],
      [{ joint: "foot/hub" }, "slip"],
      [{ use: "foot/left" }, "slip"],
      [{ joint: "top" }, "slip"],
      [{ kind: "tee" }, "slip"],
    );
    expect(after(from, { joint: "foot/hub" }, "pinned")).toHaveLength(4);
    expect(after(from, { use: "foot" }, "pinned")).toEqual([
      { joint: "top", mode: "slip" },
      { kind: "tee", mode: "slip" },
      { use: "foot", mode: "pinned" },
    ]);
    expect(after(from, {}, "cemented")).toEqual([{ mode: "cemented" }]);
  });

  it("leaves alone what it only may cover", () => {
    // whether the joint is a tee is for the plan to know; the last one counts anyway
    expect(after(p([{ joint: "a" }, "slip"]), { kind: "tee" }, "cemented")).toHaveLength(2);
    expect(after(p([{ joint: "footing/hub" }, "slip"]), { use: "foot" }, "cemented")).toHaveLength(2);
  });
});

it("a press turns what is all cemented dry, and anything else cemented", () => {
  expect(flipped({ cemented: 3, dry: 0 })).toBe("slip");
  expect(flipped({ cemented: 2, dry: 1 })).toBe("cemented");
  expect(flipped({ cemented: 0, dry: 3 })).toBe("cemented");
});
