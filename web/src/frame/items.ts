import type { Joint, Pipe, PlanFrame } from "../api/client";
import { type Style, text } from "../lib/format";
import { kindWords, sizeWords } from "../lib/words";

/** What is picked, on the frame and in every list: a pipe, all pipes of a letter, a joint, or one stated size. */
export type Picked = { is: "pipe" | "letter" | "joint" | "size"; id: string } | undefined;

export const samePick = (a: Picked, b: Picked) => a?.is === b?.is && a?.id === b?.id;

/** Whether a pipe is among what is picked: itself, by its letter, or not. */
export function lit(p: Pipe, picked: Picked, f: PlanFrame): "picked" | "alike" | undefined {
  if (picked?.is === "letter") return p.letter === picked.id ? "picked" : undefined;
  if (picked?.is !== "pipe") return undefined;
  if (p.pipe === picked.id) return "picked";
  return f.pipes.find((q) => q.pipe === picked.id)?.letter === p.letter ? "alike" : undefined;
}

export interface Item {
  pick: NonNullable<Picked>;
  name: string;
  letter?: string;
}

/** What a piece is called: its letter and its place, "B, upper left". */
export const pipeTitle = (p: Pipe): string => (p.where ? `${p.letter}, ${p.where}` : p.letter);

/** What a joint is called: its short name and its place, "j4, upper left corner". */
export const jointTitle = (j: Joint): string => (j.where ? `${j.name}, ${j.where}` : j.name);

export function pipeName(p: Pipe, style: Style): string {
  return `${pipeTitle(p)}: ${sizeWords(p.size)} pipe, cut ${text(p.cut, style, 64)}`;
}

export function jointName(j: Joint): string {
  if (!j.kind) return j.ports.length === 0 ? `the joint ${jointTitle(j)}` : `open end, ${jointTitle(j)}`;
  const held = j.ports.filter((p) => p.fill === "pipe");
  const cemented = held.filter((p) => p.mode === "cemented").length;
  const how = cemented === held.length ? "cemented" : cemented === 0 ? "dry" : `${cemented} of ${held.length} cemented`;
  return `${jointTitle(j)}: ${sizeWords(j.size)} ${kindWords(j.kind)}, ${how}`;
}

/** Everything on the frame that can be picked, pipes by letter first, then joints. */
export function itemsOf(f: PlanFrame, style: Style): Item[] {
  const letters = f.pipes
    .map((p, i) => ({ p, i }))
    .sort((a, b) => a.p.letter.length - b.p.letter.length || a.p.letter.localeCompare(b.p.letter) || a.i - b.i);
  return [
    ...letters.map(({ p }) => ({ pick: { is: "pipe" as const, id: p.pipe }, name: pipeName(p, style), letter: p.letter })),
    ...f.joints.map((j) => ({ pick: { is: "joint" as const, id: j.id }, name: jointName(j) })),
  ];
}

/** The next item of the same sort, or the first of a sort. */
export function step(items: Item[], picked: Picked, is: "pipe" | "joint", by: 1 | -1): Picked {
  const some = items.filter((i) => i.pick.is === is);
  if (some.length === 0) return picked;
  const at = some.findIndex((i) => samePick(i.pick, picked));
  const next = at < 0 ? (by > 0 ? 0 : some.length - 1) : (at + by + some.length) % some.length;
  return some[next]?.pick;
}

/** The next pipe of a letter. */
export function byLetter(items: Item[], picked: Picked, letter: string): Picked {
  const some = items.filter((i) => i.letter === letter);
  const at = some.findIndex((i) => samePick(i.pick, picked));
  return some.length ? some[(at + 1) % some.length]?.pick : undefined;
}
