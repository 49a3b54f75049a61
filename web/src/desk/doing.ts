import type { CutStick, DoneEvent, Line, PipeTotal, Plan, Shop, StickPiece } from "../api/client";
import { specKey, specOf } from "../lib/spec";
import { newId } from "./device";
import type { ToDo } from "./record";

/** What has to be on record before anything is done: the shop's figures that the work is begun with, and the letters as they are shown. */
export function beginning(plan: Plan, shop: Shop): ToDo[] {
  const out: ToDo[] = [];
  if (!plan.begun) out.push({ kind: "begun", figures: figuresOf(shop) });
  if (!plan.marked && plan.cuts.length > 0) out.push(lettered(plan));
  return out;
}

/** The shop's figures of the moment. */
export const figuresOf = (s: Shop) => ({ measurements: s.measurements, seats: s.seats, stock: s.stock, tools: s.tools, haul: s.haul });

/** The letters as they are shown, to be fixed. */
export const lettered = (plan: Plan): ToDo => ({
  kind: "lettered",
  letters: plan.cuts
    .filter((c) => !c.fixed)
    .map((c) => ({ letter: c.letter, size: c.size, cut: c.cut, class: c.class, path: c.path, waits: c.waits })),
});

const origins: Record<string, string> = { shop: "shop", bought: "shop", home: "home", rack: "rack", offcut: "offcut", piece: "piece" };

/** A stick is cut: each of its pieces that is not cut yet. */
export function cutting(of: PipeTotal, s: CutStick, isCut: (p: StickPiece) => boolean): ToDo[] {
  const stick = { id: s.id || newId(), size: of.size, length: s.length, true: s.true, origin: origins[s.origin] ?? "shop" };
  return s.pieces
    .filter((p) => p.pipe && !isCut(p))
    .map((p) => ({
      kind: "cut",
      piece: { pipe: p.pipe, copy: p.copy },
      stick,
      length: p.length,
      kerf: p.kerf,
      letter: p.name,
      basis: of.basis,
    }));
}

/** It was not done after all. */
export const notDone = (event: string): ToDo => ({ kind: "not-done", event });

/** So many of a line of the list are in the cart. */
export function buying(plan: Plan, l: Line, count: number): ToDo {
  const { ware, size } = l;
  return {
    kind: "bought",
    ware: specOf(l),
    count,
    ...(l.priced ? { each: l.each } : {}),
    basis: ware === "pipe" ? plan.pipe.find((t) => t.size === size)?.basis : undefined,
  };
}

/** A piece's name, for good: its pipe and which copy. */
export const pieceId = (p: Pick<StickPiece, "pipe" | "copy">) => `${p.pipe}#${p.copy}`;

interface WithOutgoing {
  isCut: (p: StickPiece) => boolean;
  /** The events that say so, of a piece that is cut. */
  saying: (p: StickPiece) => string[];
  got: (l: Line) => number;
}

/** What is done of a plan, with what is on its way. */
export function withOutgoing(out: DoneEvent[]): WithOutgoing {
  const cut = new Map<string, string>(); // by the event that says so: the piece
  const uncut = new Set<string>();
  for (const e of out) {
    if (e.kind === "cut" && e.piece) cut.set(e.id, pieceId(e.piece));
    if (e.kind === "not-done" && e.event && !e.count && !e.item) {
      uncut.add(e.event);
      cut.delete(e.event);
    }
  }
  const saying = (p: StickPiece) => [
    ...(p.cut && !uncut.has(p.cut) ? [p.cut] : []),
    ...[...cut].flatMap(([event, piece]) => (event !== p.cut && piece === pieceId(p) ? [event] : [])),
  ];
  const same = (l: Line, e: DoneEvent) => e.ware !== undefined && specKey(e.ware) === specKey(l);
  const got = (l: Line) => {
    const back = l.events?.some((e) => uncut.has(e));
    const more = out
      .filter((e) => e.kind === "bought" && same(l, e) && !uncut.has(e.id) && !l.events?.includes(e.id))
      .reduce((n, e) => n + (e.count ?? 0), 0);
    return Math.min(l.count, (back ? 0 : (l.got ?? 0)) + more);
  };
  return { isCut: (p) => saying(p).length > 0, saying, got };
}
