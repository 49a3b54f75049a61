import { expect, it } from "vitest";
import type { Plan } from "../api/client";
import { changes } from "./changes";

const IN = 25_400_000;
const plan = (
  o: Partial<{ wide: number; net: number; sticks: number; cemented: number; dry: number; cost: number; findings: number }>,
): Plan =>
  ({
    frames: [{ overall: [{ size: (o.wide ?? 48) * IN }, { size: 24 * IN }, { size: 36 * IN }] }],
    totals: { net: (o.net ?? 30) * 12 * IN, sticks: o.sticks ?? 4, fittings: 14, cemented: o.cemented ?? 24, dry: o.dry ?? 0 },
    bill: { total: o.cost ?? 5000 },
    findings: Array.from({ length: o.findings ?? 0 }),
  }) as unknown as Plan;

it("the tape says what went up and what went down, in the cell's own words", () => {
  const d = changes(plan({}), plan({ wide: 49.5, net: 31, sticks: 5, cemented: 18, dry: 6, cost: 4690, findings: 1 }), "inches");
  expect(Object.fromEntries(Object.entries(d).map(([k, v]) => [k, v.words]))).toEqual({
    outside: "+1 1⁄2″ wide",
    pipe: "+1 ft",
    sticks: "+1 stick",
    joints: "−6 cemented, +6 dry",
    cost: "−$3.10",
    findings: "+1 finding",
  });
  expect(d.cost?.more).toBe(false);
});

it("and nothing where nothing changed, or less than is shown", () => {
  expect(changes(plan({}), plan({}), "inches")).toEqual({});
  expect(changes(plan({}), plan({ wide: 48.001, net: 30.001 }), "inches")).toEqual({});
});
