import type { PlanFrame } from "../api/client";
import { jointTitle, pipeTitle } from "./items";

/** What things of a frame are called, by their ids. What is not in the frame goes by its id. */
export interface Names {
  /** In short: j4, or a piece's letter. */
  short: (id: string) => string;
  /** With its place: "B, upper left". */
  full: (id: string) => string;
  /** With its place, within a sentence: "B (upper left)". */
  within: (id: string) => string;
}

const same = (id: string) => id;
/** Before there is a frame, things go by their ids. */
const unnamed: Names = { short: same, full: same, within: same };

const known = new WeakMap<PlanFrame, Names>();

/** The names of a frame's joints and pipes. */
export function namesOf(f: PlanFrame | undefined): Names {
  if (!f) return unnamed;
  const had = known.get(f);
  if (had) return had;
  const short = new Map<string, string>();
  const full = new Map<string, string>();
  const within = new Map<string, string>();
  const placed = (name: string, where: string) => (where ? `${name} (${where})` : name);
  for (const p of f.pipes) {
    short.set(p.pipe, p.letter || p.pipe);
    full.set(p.pipe, pipeTitle(p));
    within.set(p.pipe, placed(p.letter || p.pipe, p.where));
  }
  for (const j of f.joints) {
    short.set(j.id, j.name);
    full.set(j.id, jointTitle(j));
    within.set(j.id, placed(j.name, j.where));
  }
  const of = (known: Map<string, string>) => (id: string) => known.get(id) ?? id;
  const names = { short: of(short), full: of(full), within: of(within) };
  known.set(f, names);
  return names;
}

/** A text of the core with its things named: it mentions them, as in "24 cut of ⟨p2⟩". What is not in the frame goes by the name it was kept with. */
export const named = (text: string, names: Names) =>
  text.replace(/⟨([^⟨⟩|]*)\|?([^⟨⟩]*)⟩/g, (_, id: string, was: string) => {
    const name = names.within(id);
    return name === id && was ? was : name;
  });

/**
 * A text of the core to be kept and shown later, when letters may be others and some of its
 * things gone: each mention keeps the name it has now, as in "24 cut of ⟨p2|B (left)⟩". What
 * has no name yet was only just made.
 */
export const kept = (text: string, names: Names) =>
  text.replace(/⟨([^⟨⟩|]*)⟩/g, (_, id: string) => {
    const name = names.within(id);
    return `⟨${id}|${name === id ? "the new one" : name}⟩`;
  });

/**
 * What somebody typed, with the name of a piece or a joint that it begins with put as its
 * id: "B at 12" where there is but one B, "B, upper left at 12", "B (upper left) at 12", "j4";
 * a joint that it is measured from likewise. What names several is said.
 */
export function withIds(f: PlanFrame, typed: string): { text: string } | { several: string } {
  const t = typed.trim();
  if (!t || f.pipes.some((p) => p.pipe === t.split(" at ")[0])) return { text: t };
  const { within } = namesOf(f);
  const named = [
    ...f.pipes.map((p) => ({ id: p.pipe, names: [pipeTitle(p), within(p.pipe), p.letter] })),
    ...f.joints.map((j) => ({ id: j.id, names: [jointTitle(j), within(j.id), j.name, j.id] })),
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
  let rest = t.slice(best.name.length);
  const from = f.joints
    .filter((j) => j.where) // a short name alone is understood as it is
    .flatMap((j) => [jointTitle(j), within(j.id)].map((name) => ({ id: j.id, name })))
    .filter((j) => rest.includes(j.name))
    .sort((a, b) => b.name.length - a.name.length)[0];
  if (from) rest = rest.replace(from.name, from.id);
  return { text: `${id}${rest}` };
}
