import type { Pipe, PlanFrame } from "../api/client";
import { type Picked, lit, pipeName } from "../frame/items";
import { type Tag, along } from "../frame/paint";
import { type Style, text } from "../lib/format";

/** The letter of a pipe, with its cut length where it is picked. */
export function letterTag(p: Pipe, style: Style, picked: boolean): Tag {
  return {
    key: p.pipe,
    text: picked ? `${p.letter} ${text(p.cut, style, 64)}` : p.letter,
    title: pipeName(p, style),
    look: "letter",
    places: along(p),
    must: picked,
    pick: { is: "pipe", id: p.pipe },
  };
}

/** Only what is picked, labelled. */
export function pickedTag(f: PlanFrame, picked: Picked, style: Style): Tag[] {
  return f.pipes.filter((p) => lit(p, picked, f) === "picked").map((p) => letterTag(p, style, picked?.is === "pipe"));
}

/** So many letters can be read at once; of a larger frame each letter is written once. */
const readable = 300;

/** Every pipe's letter, the picked one first. */
export function letterTags(f: PlanFrame, picked: Picked, style: Style): Tag[] {
  const on = new Set(f.pipes.filter((p) => lit(p, picked, f) === "picked"));
  const seen = new Set<string>();
  const some = f.pipes.length <= readable ? f.pipes : f.pipes.filter((p) => on.has(p) || (!seen.has(p.letter) && seen.add(p.letter)));
  return [...some]
    .sort((a, b) => Number(on.has(b)) - Number(on.has(a)))
    .map((p) => letterTag(p, style, picked?.is === "pipe" && on.has(p)));
}
