import { describe, expect, it } from "vitest";
import type { Project } from "../api/client";
import { type Mode, type Scope, flipped, hold } from "./mode-rules";

const p = (...modeRules: [Scope, Mode][]): Project => ({
  name: "",
  units: "in",
  style: "inches",
  tool: "saw",
  copies: 1,
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

  it("leaves alone what is of another scope: the last one counts, as the plan has it", () => {
    expect(after(p([{ joint: "a" }, "slip"]), {}, "cemented")).toEqual([{ joint: "a", mode: "slip" }, { mode: "cemented" }]);
    expect(after(p([{ joint: "a", pipe: "p" }, "slip"]), { joint: "a" }, "cemented")).toHaveLength(2);
  });
});

it("a press turns what is all cemented dry, and anything else cemented", () => {
  expect(flipped({ cemented: 3, dry: 0 })).toBe("slip");
  expect(flipped({ cemented: 2, dry: 1 })).toBe("cemented");
  expect(flipped({ cemented: 0, dry: 3 })).toBe("cemented");
});
