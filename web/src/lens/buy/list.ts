import type { Line, Plan, PlanFrame } from "../../api/client";
import { type Style, text } from "../../lib/format";
import { specKey } from "../../lib/spec";
import { byLength, isCatalogKind, kindWords, sizeWords } from "../../lib/words";

/** One line of the list: what the bill says of it, and a number to find it on the frame by. */
export interface Ware {
  key: string;
  line: Line;
  number: number;
}

export interface Aisle {
  name: string;
  wares: Ware[];
}

const aisleOf: Record<string, string> = {
  pipe: "Pipe",
  service: "Pipe",
  fitting: "Fittings",
  cement: "Cement",
  primer: "Cement",
  hardware: "Bolts, wheels, ties",
};

/** The aisles in the order of a walk through the shop: long things first, then what is small; what is on no shelf comes last. */
const walk = ["Pipe", "Fittings", "Cement", "Bolts, wheels, ties", "Sold by the length", "Parts of your own"];

/** Which aisle a line is in: fittings that the catalog has not are the builder's own. */
function aisleNamed(l: Line): string | undefined {
  if (l.ware === "hardware" && byLength.includes(l.kind ?? "")) return "Sold by the length";
  if (l.ware === "fitting" && !isCatalogKind(l.kind ?? "")) return "Parts of your own";
  return aisleOf[l.ware];
}

/** The bill in the order of a walk through the shop. */
export function aislesOf(plan: Plan): Aisle[] {
  const aisles: Aisle[] = walk.map((name) => ({ name, wares: [] }));
  let number = 0;
  for (const line of plan.bill.lines) {
    const name = aisleNamed(line);
    const aisle = aisles.find((a) => a.name === name);
    aisle?.wares.push({ key: `${specKey(line)} ${line.unit}`, line, number: line.ware === "fitting" ? ++number : 0 });
  }
  return aisles.filter((a) => a.wares.length > 0);
}

/** Which number of the list each joint's fitting has. */
export function numbersOf(plan: Plan, frame: PlanFrame): Map<string, number> {
  const by = new Map<string, number>();
  for (const a of aislesOf(plan)) for (const w of a.wares) if (w.number) by.set(`${w.line.kind} ${w.line.size}`, w.number);
  const out = new Map<string, number>();
  for (const j of frame.joints) {
    const n = by.get(`${j.kind} ${j.size}`);
    if (n) out.set(j.id, n);
  }
  return out;
}

/** What it is called at the shelf. */
export function nameOf(l: Pick<Line, "ware" | "kind" | "size" | "length" | "diameter" | "label"> & { unit?: string }): string {
  const size = sizeWords(l.size ?? "");
  if (l.ware === "pipe" && l.unit !== "piece") return `${size} pipe, ${text(l.length ?? 0, "feet-inches", 64)} stick`;
  if (l.ware === "fitting") return `${size} ${kindWords(l.kind ?? "")}`;
  if (l.ware === "hardware" && byLength.includes(l.kind ?? ""))
    return `${lengthName(l, "inches")}, ${text(l.length ?? 0, "feet-inches", 64)}`;
  return l.label;
}

/** What something that is sold by the length is called, whatever its length. */
export const lengthName = (a: { kind?: string; diameter?: number }, style: Style) =>
  `${a.diameter ? `${text(a.diameter, style, 64)} ` : ""}${a.kind ?? ""}`;
