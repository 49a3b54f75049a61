import { describe, expect, it } from "vitest";
import { withMore } from "./page";

describe("lines that are pasted", () => {
  it("are drawn after those that are drawn, and lose none that waits", () => {
    const page = { lines: [{ text: "right 24" }, { text: "left to j9" }], drawn: 1, pen: {} };
    expect(withMore(page, "up 5 cut\r\n  near 6 \n\n").map((l) => l.text)).toEqual(["right 24", "up 5 cut", "near 6", "left to j9"]);
    expect(withMore(undefined, "up 5").map((l) => l.text)).toEqual(["up 5"]);
  });
});
