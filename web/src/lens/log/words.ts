import type { DoneEvent } from "../../api/client";
import { type Style, plural, text } from "../../lib/format";
import { kindWords, sizeWords } from "../../lib/words";

/** What one event says, in words. */
export function wordsOf(e: DoneEvent, style: Style, where: (pipe: string) => string): string {
  const long = (nm = 0) => text(nm, style, 64);
  const piece = () => `${e.letter ? `${e.letter} ` : ""}${e.piece ? where(e.piece.pipe) : "a piece"}${copyWords(e)}`.trim();
  switch (e.kind) {
    case "begun":
      return `the work goes by the shop's figures: ${e.figures?.stock.map((s) => text(s.length, "feet-inches", 64)).join(", ") || "no"} sticks`;
    case "lettered":
      return `letters fixed: ${e.letters?.map((l) => `${l.letter} ${long(l.cut)}`).join(", ")}`;
    case "bought":
      return `${e.count} × ${wareWords(e)} in the cart${sharedWords(e)}`;
    case "had":
      return `${e.count} × ${wareWords(e)} at home already${sharedWords(e)}`;
    case "cut":
      return `cut ${piece()} to ${long(e.length)}${e.stick?.origin === "piece" ? ", trimmed" : ""}`;
    case "parted":
      return `${(e.lengths?.length ?? 0) > 1 ? "a stick is in parts of" : "a stick measures"} ${(e.lengths ?? []).map(long).join(", ")}`;
    case "both-cut":
      return "a piece is there twice";
    case "elsewhere":
      return `cut ${long(e.length)} for ${e.text || "another project"}`;
    case "deburred":
      return "a piece deburred";
    case "marked":
      return "how deep it goes marked on a piece";
    case "spoilt":
      return e.length ? `spoilt ${long(e.length)} of a stick` : "a piece spoilt";
    case "dry-fitted":
      return `dry-fitted ${piece()}`;
    case "driven":
      return `driven in ${piece()}`;
    case "cemented":
      return `cemented ${piece()}`;
    case "measured":
      return `measured ${piece()}: ${long(e.length)}`;
    case "racked":
      return "put on the rack";
    case "unmatched":
      return `ticked before this version: ${e.text}`;
    case "not-done":
      return "not done after all";
    default:
      return e.kind;
  }
}

/** Of what was bought for several jobs: how much all of it is. */
const sharedWords = (e: DoneEvent) => (e.shared?.of ? `, of ${e.shared.count} for ${e.shared.jobs} jobs` : "");

const copyWords = (e: DoneEvent) => (e.piece && e.piece.copy > 1 ? `, number ${e.piece.copy}` : "");

function wareWords(e: DoneEvent): string {
  const w = e.ware;
  if (!w) return "something";
  const size = sizeWords(w.size ?? "");
  if (w.ware === "pipe") return `${size} pipe, ${text(w.length ?? 0, "feet-inches", 64)} stick`;
  if (w.ware === "fitting") return `${size} ${kindWords(w.kind ?? "")}`;
  return [w.kind ?? w.ware, w.ounces ? `${w.ounces} fl oz` : ""].filter(Boolean).join(", ");
}

/** Whether an event takes back all of another, and not a part of what was bought. */
export const isWhole = (e: { kind: string; count?: number; item?: string; shared?: unknown }) =>
  e.kind === "not-done" && !e.count && !e.item && !e.shared;

/** Events that were said together: those of one device, kind and stick or moment. */
export interface Act {
  key: string;
  device: string;
  at: number;
  events: DoneEvent[];
  /** Every one was taken back since. */
  back: boolean;
}

/** What was done, the latest first; what was done with one press is one act. */
export function actsOf(events: DoneEvent[]): Act[] {
  const off = new Set<string>();
  for (const e of [...events].reverse()) if (isWhole(e) && !off.has(e.id) && e.event) off.add(e.event);
  const out: Act[] = [];
  for (const e of events) {
    if (isWhole(e)) continue; // it shows at what it takes back
    const last = out.at(-1);
    const first = last?.events[0];
    if (
      last &&
      first &&
      first.kind === e.kind &&
      e.kind === "cut" &&
      first.stick?.id === e.stick?.id &&
      last.device === (e.device ?? "") &&
      last.back === off.has(e.id)
    )
      last.events.push(e);
    else out.push({ key: e.id, device: e.device ?? "", at: e.at ?? 0, events: [e], back: off.has(e.id) });
  }
  return out.reverse();
}

/** An act in words. */
export function actWords(a: Act, style: Style, where: (pipe: string) => string): string {
  const first = a.events[0] as DoneEvent;
  if (first.kind === "not-done")
    return first.shared && !first.count && !first.item
      ? "some of it taken back in another job"
      : `${first.count || "a stick"} taken back to the shop`;
  if (a.events.length === 1) return wordsOf(first, style, where);
  const stick = first.stick
    ? `${text(first.stick.length, "feet-inches", 64)} ${first.stick.origin === "shop" ? "stick" : first.stick.origin}`
    : "stick";
  const alike = new Map<string, number>();
  for (const e of a.events) {
    const words = `${e.letter ?? ""} ${text(e.length ?? 0, style, 64)}`.trim();
    alike.set(words, (alike.get(words) ?? 0) + 1);
  }
  return `cut a ${stick} into ${plural(a.events.length, "piece")}: ${[...alike].map(([w, n]) => (n > 1 ? `${n} × ${w}` : w)).join(", ")}`;
}
