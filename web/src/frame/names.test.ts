import { expect, it } from "vitest";
import type { PlanFrame } from "../api/client";
import { kept, named, namesOf, withIds } from "./names";

const frame = {
  pipes: [
    { pipe: "p1", letter: "A", where: "top" },
    { pipe: "p2", letter: "B", where: "left" },
    { pipe: "p3", letter: "B", where: "right" },
    { pipe: "p4", letter: "C", where: "" },
  ],
  joints: [
    { id: "posts#1/foot", name: "j1", where: "lower left corner" },
    { id: "j12", name: "j12", where: "" },
  ],
} as unknown as PlanFrame;

it("things go by their letter or short name, and their place", () => {
  const n = namesOf(frame);
  expect([n.full("p2"), n.short("p2"), n.full("p4"), n.full("posts#1/foot"), n.short("posts#1/foot"), n.full("gone")]).toEqual([
    "B, left",
    "B",
    "C",
    "j1, lower left corner",
    "j1",
    "gone",
  ]);
});

it("what a text mentions is named, and nothing else", () => {
  const n = namesOf(frame);
  expect(named("24 cut of ⟨p2⟩ from ⟨posts#1/foot⟩ to ⟨p4⟩ is 24 p2", n)).toBe(
    "24 cut of B (left) from j1 (lower left corner) to C is 24 p2",
  );
  expect(named("⟨gone⟩ goes ⟨", n)).toBe("gone goes ⟨");
});

it("a text that is kept follows the letters, and names what has gone as it was called", () => {
  const text = kept("24 cut of ⟨p2⟩ gave way to 23 cut of ⟨p9⟩", namesOf(frame));
  const later = { ...frame, pipes: frame.pipes.map((p) => ({ ...p, letter: "Z" })) } as unknown as PlanFrame;
  expect(named(text, namesOf(later))).toBe("24 cut of Z (left) gave way to 23 cut of the new one");
  const gone = { ...frame, pipes: [{ pipe: "p9", letter: "C", where: "right" }] } as unknown as PlanFrame;
  expect(named(text, namesOf(gone))).toBe("24 cut of B (left) gave way to 23 cut of C (right)");
});

it("a name is understood wherever one is typed", () => {
  const typed = (t: string) => withIds(frame, t);
  expect(typed("A at 12")).toEqual({ text: "p1 at 12" });
  expect(typed("a")).toEqual({ text: "p1" });
  expect(typed("B, right at 3 from j12")).toEqual({ text: "p3 at 3 from j12" });
  expect(typed("B (right) at 3 from j1 (lower left corner), on the left")).toEqual({ text: "p3 at 3 from posts#1/foot, on the left" });
  expect(typed("B, left at 3 from the face of j1, lower left corner")).toEqual({ text: "p2 at 3 from the face of posts#1/foot" });
  expect(typed("B at 3")).toMatchObject({ several: expect.stringContaining("2 pieces are called B") });
  expect(typed("j1")).toEqual({ text: "posts#1/foot" });
  expect(typed("j12 on the left")).toEqual({ text: "j12 on the left" });
  expect(typed("p2 at 4")).toEqual({ text: "p2 at 4" });
  expect(typed("nothing like it")).toEqual({ text: "nothing like it" });
  expect(typed("")).toEqual({ text: "" });
});
