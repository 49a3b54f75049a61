import { expect, it } from "vitest";
import type { Line, Plan } from "../../api/client";
import { aislesOf, lengthName, nameOf } from "./list";

const line = (l: Partial<Line>) => ({ unit: "each", label: "", count: 1, ...l }) as Line;

it("walks through the shop: what is sold by the length, and parts of one's own, stand apart", () => {
  const lines = [
    line({ ware: "pipe", size: "1", length: 3_048_000_000 }),
    line({ ware: "fitting", kind: "tee", size: "1" }),
    line({ ware: "fitting", kind: "hips", size: "1" }),
    line({ ware: "hardware", kind: "rope", length: 7_620_000_000 }),
    line({ ware: "hardware", kind: "bolt" }),
  ];
  const aisles = aislesOf({ bill: { lines } } as unknown as Plan);
  expect(aisles.map((a) => [a.name, ...a.wares.map((w) => w.line.kind ?? "pipe")])).toEqual([
    ["Pipe", "pipe"],
    ["Fittings", "tee"],
    ["Bolts, wheels, ties", "bolt"],
    ["Sold by the length", "rope"],
    ["Parts of your own", "hips"],
  ]);
  expect(aisles.flatMap((a) => a.wares.map((w) => w.number))).toEqual([0, 1, 0, 0, 2]);
});

it("names what is sold by the length with its thickness", () => {
  const rope = { ware: "hardware", kind: "rope", diameter: 6_350_000, length: 7_620_000_000, label: "" } as Line;
  expect(lengthName(rope, "inches")).toBe("1⁄4″ rope");
  expect(nameOf(rope)).toBe("1⁄4″ rope, 25′");
});
