import type { CutStick, DoneEvent, Line, Lot, PipeTotal, Plan, Shop, StickPiece } from "../api/client";
import { type Spec, specKey, specOf } from "../lib/spec";
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

const origins: Record<string, string> = {
  shop: "shop",
  bought: "shop",
  home: "home",
  rack: "rack",
  offcut: "offcut",
  piece: "piece",
  part: "part",
};

/**
 * What something is cut from, as the record names it. One that is not there yet gets its id with the first of its pieces, which
 * may be on its way still.
 */
function sourceOf(of: PipeTotal, s: CutStick, out: DoneEvent[]) {
  const mine = new Set(s.pieces.map(pieceId));
  const begun = out.find((e) => e.kind === "cut" && e.stick?.size === of.size && mine.has(pieceOf(e)))?.stick?.id;
  return { id: s.id || begun || newId(), size: of.size, length: s.length, true: s.true, origin: origins[s.origin] ?? "shop" };
}

/** Where a piece is cut from, and what has to be on record before: that the shop cut the stick into parts, once. */
interface From {
  first: ToDo[];
  cut: Pick<ToDo, "stick" | "part" | "number" | "basis">;
}

function fromOf(of: PipeTotal, s: CutStick, at: number, haul: Plan["haul"], out: DoneEvent[]): From {
  const stick = sourceOf(of, s, out);
  const parts = s.parts ?? [];
  const cut = { stick, number: s.number, basis: of.basis };
  if (parts.length < 2) return { first: [], cut };
  let left = at;
  const part = parts.findIndex((x) => {
    left -= x.pieces;
    return left < 0;
  });
  const known = parts[0]?.id || out.some((e) => e.kind === "parted" && e.stick?.id === stick.id);
  return {
    first: known
      ? []
      : [
          parting(
            stick,
            parts.map((x) => x.length),
            of.basis,
            haul,
          ),
        ],
    cut: { ...cut, part: part + 1 },
  };
}

/** A stick is in parts, as the shop cut it. */
const parting = (stick: NonNullable<ToDo["stick"]>, lengths: number[], basis: string, haul: Plan["haul"]): ToDo => ({
  kind: "parted",
  stick,
  lengths,
  basis,
  ...(haul ? { fee: { each: haul.price ?? 0, free: haul.free } } : {}),
});

const cutOf = (p: StickPiece, from: From, length: number): ToDo[] => [
  ...from.first,
  {
    kind: "cut",
    ...(p.frame ? { frame: p.frame } : {}),
    piece: { pipe: p.pipe, copy: p.copy },
    ...from.cut,
    length,
    kerf: p.kerf,
    letter: p.name,
  },
];

/** A stick is cut: each of its pieces that is not cut yet. */
export function cutting(of: PipeTotal, s: CutStick, plan: Plan, isCut: (p: StickPiece) => boolean, out: DoneEvent[]): ToDo[] {
  const all: ToDo[] = [];
  let stick: ToDo["stick"];
  for (const [at, p] of s.pieces.entries()) {
    if (!p.pipe || isCut(p)) continue;
    const from = fromOf(of, s, at, plan.haul, out);
    stick ??= from.cut.stick; // one that is not there yet has one id
    const begun = all.some((e) => e.kind === "parted");
    const first = begun ? [] : from.first.map((e) => ({ ...e, stick }));
    all.push(...cutOf(p, { first, cut: { ...from.cut, stick } }, p.length));
  }
  return all;
}

/** A piece at its place on a stick. */
export interface OnStick {
  of: PipeTotal;
  stick: CutStick;
  piece: StickPiece;
  /** Its place, counted from 0. */
  at: number;
}

/** One piece of a stick is cut, as long as planned or as it came out; maybe for another copy. */
export const cuttingOne = (x: OnStick, plan: Plan, out: DoneEvent[], length = x.piece.length, copy = x.piece.copy): ToDo[] =>
  cutOf({ ...x.piece, copy }, fromOf(x.of, x.stick, x.at, plan.haul, out), length);

/** What was to be a piece is lost. */
export function spoiling({ of, stick: s, piece: p, at }: OnStick, plan: Plan, out: DoneEvent[]): ToDo[] {
  const { first, cut } = fromOf(of, s, at, plan.haul, out);
  const { number: _n, ...from } = cut;
  return [...first, { kind: "spoilt", ...(p.frame ? { frame: p.frame } : {}), ...from, length: p.length, kerf: p.kerf }];
}

/** A stick, or what is left of one, is in parts of these lengths, or is one and as long as that. */
export const partedInto = (size: string, s: { id: string; length: number; origin: string }, lengths: number[]): ToDo => ({
  kind: "parted",
  stick: { id: s.id, size, length: s.length, origin: origins[s.origin] ?? "shop" },
  lengths,
});

/** It was not done after all. */
export const notDone = (event: string): ToDo => ({ kind: "not-done", event });

/** So many of a line of the list are in the cart, or were at home all along. Sticks that the shop cuts come home in the parts that the plan has. */
export function buying(plan: Plan, l: Line, count: number, out: DoneEvent[], home = false): ToDo[] {
  const { ware, size } = l;
  if (home) return [{ kind: "had", ware: specOf(l), count }];
  const of = ware === "pipe" ? plan.pipe.find((t) => t.size === size) : undefined;
  const id = newId();
  const all: ToDo[] = [
    { id, kind: "bought", ware: specOf(l), count, ...(l.priced ? { each: l.each } : {}), ...(of ? { basis: of.basis } : {}) },
  ];
  // what is on its way already took the first of them
  const coming = lotsOf(l, out).reduce((n, x) => n + x.count, 0) - (l.lots ?? []).reduce((n, x) => n + x.count, 0);
  const parts = of?.need.find((n) => n.length === l.length)?.parts?.slice(Math.max(0, coming)) ?? [];
  parts.slice(0, count).forEach((lengths, n) => {
    const stick = { id: `${id}.${n + 1}`, size: size ?? "", length: l.length ?? 0, origin: "shop" };
    all.push(parting(stick, lengths, of?.basis ?? "", plan.haul));
  });
  return all;
}

/** What the record tells of a line, with what is on its way: each event, and how many of the thing it still is about. */
export function lotsOf(l: Pick<Line, "lots"> & Spec, out: DoneEvent[]): Lot[] {
  const lots = (l.lots ?? []).map((x) => ({ ...x, items: x.items ? [...x.items] : undefined }));
  for (const e of out) {
    if ((e.kind === "bought" || e.kind === "had") && e.ware && specKey(e.ware) === specKey(l) && !lots.some((x) => x.event === e.id))
      lots.push({ event: e.id, count: e.count ?? 0, home: e.kind === "had", items: undefined });
    const lot = e.kind === "not-done" ? lots.find((x) => x.event === e.event) : undefined;
    if (!lot) continue;
    if (e.item) {
      if (lot.items?.includes(e.item) === false) continue; // the plan knows of it already
      lot.items = lot.items?.filter((i) => i !== e.item);
      lot.count--;
    } else lot.count = e.count ? Math.max(0, lot.count - e.count) : 0;
  }
  return lots.filter((x) => x.count > 0);
}

/** What takes so many of a line back, those that were told last first. */
export function takingBack(lots: Lot[], count: number, home = false): ToDo[] {
  const all: ToDo[] = [];
  for (const lot of [...lots].reverse()) {
    if (Boolean(lot.home) !== home || count <= 0) continue;
    if (lot.items) {
      // of sticks those go back that nothing is cut from
      for (const item of lot.items.slice(-count)) {
        all.push({ kind: "not-done", event: lot.event, item });
        count--;
      }
      continue;
    }
    const n = Math.min(count, lot.count);
    all.push(n === lot.count ? notDone(lot.event) : { kind: "not-done", event: lot.event, count: n });
    count -= n;
  }
  return all;
}

/** A piece's name, for good: its pipe and which copy; of several projects, which of them too. */
export const pieceId = (p: Pick<StickPiece, "pipe" | "copy"> & { frame?: number }) => `${p.frame || ""} ${p.pipe}#${p.copy}`;

/** The piece that an event is about. */
const pieceOf = (e: DoneEvent) => (e.piece ? pieceId({ ...e.piece, frame: e.frame }) : "");

interface WithOutgoing {
  isCut: (p: StickPiece) => boolean;
  /** The events that say so, of a piece that is cut. */
  saying: (p: StickPiece) => string[];
  /** How many of a line are there, those that were at home among them. */
  got: (l: Line) => number;
  home: (l: Line) => number;
}

/** What is done of a plan, with what is on its way. */
export function withOutgoing(out: DoneEvent[]): WithOutgoing {
  const cut = new Map<string, string>(); // by the event that says so: the piece
  const uncut = new Set<string>();
  for (const e of out) {
    if (e.kind === "cut" && e.piece) cut.set(e.id, pieceOf(e));
    if (e.kind === "not-done" && e.event && !e.count && !e.item) {
      uncut.add(e.event);
      cut.delete(e.event);
    }
  }
  const saying = (p: StickPiece) => [
    ...(p.cut && !uncut.has(p.cut) ? [p.cut] : []),
    ...[...cut].flatMap(([event, piece]) => (event !== p.cut && piece === pieceId(p) ? [event] : [])),
  ];
  const sum = (lots: Lot[]) => lots.reduce((n, x) => n + x.count, 0);
  const got = (l: Line) => Math.max(0, Math.min(l.count, (l.got ?? 0) + sum(lotsOf(l, out)) - sum(l.lots ?? [])));
  const home = (l: Line) => sum(lotsOf(l, out).filter((x) => x.home));
  return { isCut: (p) => saying(p).length > 0, saying, got, home };
}
