import { describe, expect, it } from "vitest";
import type { DoneEvent } from "../../api/client";
import { actWords, actsOf } from "./words";

const inch = 25_400_000;
const cut = (id: string, letter: string, inches: number, stick = "s"): DoneEvent => ({
  id,
  kind: "cut",
  letter,
  length: inches * inch,
  piece: { pipe: "p1", copy: 1 },
  stick: { id: stick, size: "3/4", length: 120 * inch, origin: "shop" },
  device: "Phone AB",
  at: 1,
});
const back = (id: string, event: string): DoneEvent => ({ id, kind: "not-done", event });

describe("the log", () => {
  it("tells what was cut from one stick as one act, the latest act first", () => {
    const acts = actsOf([cut("1", "A", 40), cut("2", "A", 40), cut("3", "B", 30.5), cut("4", "A", 40, "t")]);
    expect(acts.map((a) => actWords(a, "inches", () => "upper left"))).toEqual([
      "cut A upper left to 40″",
      "cut a 10′ stick into 3 pieces: 2 × A 40″, B 30 1⁄2″",
    ]);
  });

  it("strikes out what was taken back, unless that was taken back too", () => {
    const events = [cut("1", "A", 40), back("2", "1")];
    expect(actsOf(events).map((a) => a.back)).toEqual([true]);
    expect(actsOf([...events, back("3", "2")]).map((a) => a.back)).toEqual([false]);
  });

  it("tells a part of a stick that was taken back apart from the rest", () => {
    const acts = actsOf([cut("1", "A", 40), cut("2", "A", 40), back("3", "2")]);
    expect(acts.map((a) => [a.events.length, a.back])).toEqual([
      [1, true],
      [1, false],
    ]);
  });

  it("says what was taken back to the shop", () => {
    const bought: DoneEvent = { id: "1", kind: "bought", count: 8, ware: { ware: "fitting", kind: "tee", size: "3/4" } };
    const acts = actsOf([bought, { id: "2", kind: "not-done", event: "1", count: 3 }]);
    expect(acts.map((a) => actWords(a, "inches", () => ""))).toEqual(["3 taken back to the shop", "8 × 3/4 in tee in the cart"]);
  });
});
