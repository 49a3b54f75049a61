import type { Plan } from "../api/client";
import { type Style, feet, money, plural, text, isShown } from "../lib/format";

/** What one cell of the tape says changed, and whether that costs more. */
export interface Change {
  words: string;
  more: boolean;
}

export type Cell = "outside" | "pipe" | "sticks" | "fittings" | "joints" | "cost" | "findings";

const signed = (n: number, words: string) => `${n > 0 ? "+" : "−"}${words}`;

/** What the last change did to the job in one line. */
export function changes(before: Plan, after: Plan, style: Style): Partial<Record<Cell, Change>> {
  const out: Partial<Record<Cell, Change>> = {};
  const count = (cell: Cell, a: number, b: number, words: (n: number) => string) => {
    if (a !== b) out[cell] = { words: signed(b - a, words(Math.abs(b - a))), more: b > a };
  };
  const [f, g] = [before.frames[0], after.frames[0]];
  const outside = [0, 1, 2].flatMap((i) => {
    const d = (g?.overall[i]?.size ?? 0) - (f?.overall[i]?.size ?? 0);
    return isShown(d, style, 32) ? [`${signed(d, text(Math.abs(d), style, 32))} ${["wide", "deep", "high"][i]}`] : [];
  });
  if (outside.length > 0) out.outside = { words: outside.join(", "), more: false };
  if (feet(before.totals.net) !== feet(after.totals.net)) count("pipe", before.totals.net, after.totals.net, (n) => `${feet(n)} ft`);
  count("sticks", before.totals.sticks, after.totals.sticks, (n) => plural(n, "stick"));
  count("fittings", before.totals.fittings, after.totals.fittings, (n) => plural(n, "fitting"));
  const joints = [
    ...(before.totals.cemented !== after.totals.cemented
      ? [signed(after.totals.cemented - before.totals.cemented, `${Math.abs(after.totals.cemented - before.totals.cemented)} cemented`)]
      : []),
    ...(before.totals.dry !== after.totals.dry
      ? [signed(after.totals.dry - before.totals.dry, `${Math.abs(after.totals.dry - before.totals.dry)} dry`)]
      : []),
  ];
  if (joints.length > 0) out.joints = { words: joints.join(", "), more: false };
  count("cost", before.bill.total, after.bill.total, (n) => money(n));
  count("findings", before.findings.length, after.findings.length, (n) => plural(n, "finding"));
  return out;
}
