import type { PlanFrame } from "../api/client";
import { jointTitle, pipeTitle } from "./items";

/** What things of a frame are called, by their ids. What is not in the frame goes by its id. */
export interface Names {
  /** In short: j4, or a piece's letter. */
  short: (id: string) => string;
  /** With its place: "B, upper left". */
  full: (id: string) => string;
}

const known = new WeakMap<PlanFrame, Names>();

/** The names of a frame's joints and pipes. */
export function namesOf(f: PlanFrame): Names {
  const had = known.get(f);
  if (had) return had;
  const short = new Map<string, string>();
  const full = new Map<string, string>();
  for (const p of f.pipes) {
    short.set(p.pipe, p.letter || p.pipe);
    full.set(p.pipe, pipeTitle(p));
  }
  for (const j of f.joints) {
    short.set(j.id, j.name);
    full.set(j.id, jointTitle(j));
  }
  const names = { short: (id: string) => short.get(id) ?? id, full: (id: string) => full.get(id) ?? id };
  known.set(f, names);
  return names;
}

/**
 * What somebody typed, with the name of a piece or a joint that it begins with put as its
 * id: "B at 12" where there is but one B, "B, upper left at 12", "j4". What names several is
 * said.
 */
export function withIds(f: PlanFrame, typed: string): { text: string } | { several: string } {
  const t = typed.trim();
  if (!t || f.pipes.some((p) => p.pipe === t.split(" at ")[0])) return { text: t };
  const named = [
    ...f.pipes.flatMap((p) => [{ id: p.pipe, names: [pipeTitle(p), p.letter] }]),
    ...f.joints.map((j) => ({ id: j.id, names: [jointTitle(j), j.name, j.id] })),
  ];
  let best: { name: string; ids: string[] } | undefined;
  for (const n of named)
    for (const name of n.names) {
      const low = name.toLowerCase();
      if (!name || !t.toLowerCase().startsWith(low) || /[\p{L}\p{N}]/u.test(t.charAt(name.length))) continue;
      if (!best || name.length > best.name.length) best = { name, ids: [n.id] };
      else if (low === best.name.toLowerCase() && !best.ids.includes(n.id)) best.ids.push(n.id);
    }
  if (!best) return { text: t };
  const [id, other] = best.ids;
  if (other !== undefined)
    return {
      several: `${best.ids.length} pieces are called ${best.name}: pick one on the frame, or say where it is, as in ${namesOf(f).full(best.ids[0] ?? "")}`,
    };
  return { text: `${id}${t.slice(best.name.length)}` };
}
