import { expect, it } from "vitest";
import type { CutStick } from "../../api/client";
import { leftovers } from "./left-over";

const stick = (s: Partial<CutStick>) => ({ left: 40, pieces: [{ pipe: "p" }], ...s }) as CutStick;
const some = (...all: CutStick[]) => leftovers(all, 6, (p) => p.pipe === "p").map((s) => s.left);

it("what is left of a stick goes to the rack once all of it is cut", () => {
  expect(some(stick({ id: "a" }), stick({ id: "b", left: 5 }), stick({ left: 41 }))).toEqual([40]);
  expect(some(stick({ id: "a", racked: true }))).toEqual([]);
  expect(some(stick({ id: "a", pieces: [{ pipe: "q" }] as CutStick["pieces"] }))).toEqual([]);
  expect(some(stick({ id: "a", earlier: true, pieces: [{ pipe: "q" }] as CutStick["pieces"] }))).toEqual([40]);
});

it("not while more is planned from it", () => {
  const rest = stick({ id: "a", left: 2, pieces: [{ pipe: "q" }] as CutStick["pieces"] });
  expect(some(stick({ id: "a", earlier: true, left: 66 }), rest)).toEqual([]);
});
