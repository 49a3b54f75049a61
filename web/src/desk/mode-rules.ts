import type { ModeRule, PlanFrame, Project } from "../api/client";

export type Mode = "cemented" | "slip" | "eased" | "pinned";

/** What a setting is about: everything, a kind, a group, one use, a joint, or one end of a pipe at it. */
export type Scope = Pick<ModeRule, "kind" | "group" | "use" | "joint" | "pipe">;

const key = (s: Scope) => [s.kind, s.group, s.use, s.joint, s.pipe].map((x) => x ?? "").join("|");

/** Whether a wider setting covers all of a narrower one, as far as names tell. */
function covers(wide: Scope, narrow: Scope): boolean {
  if (key(wide) === key(narrow)) return true;
  if (!wide.kind && !wide.group && !wide.use && !wide.joint) return true;
  if (wide.joint) return !wide.pipe && narrow.joint === wide.joint;
  if (wide.use) return [narrow.joint, narrow.use].some((p) => p?.startsWith(`${wide.use}/`));
  return false;
}

/** The last setting counts, so a new one goes to the end and those it covers go. */
export function hold(p: Project, scope: Scope, mode: Mode): Project {
  const kept = (p.modeRules ?? []).filter((h) => !covers(scope, h));
  return { ...p, modeRules: [...kept, { ...scope, mode }] };
}

export interface Tally {
  cemented: number;
  dry: number;
}

/** How many sockets of one frame are cemented and how many stay dry. */
export function tally(f: PlanFrame, counts: (i: PlanFrame["insertions"][number]) => boolean = () => true): Tally {
  const t = { cemented: 0, dry: 0 };
  for (const i of f.insertions) {
    if (!counts(i)) continue;
    if (i.mode === "cemented") t.cemented++;
    else t.dry++;
  }
  return t;
}

/** The mode that a press turns a set of joints to. */
export const flipped = (t: Tally): Mode => (t.dry === 0 ? "slip" : "cemented");

const words: Record<string, string> = {
  cemented: "cemented",
  slip: "dry, driven",
  eased: "dry, eased to lift off",
  pinned: "pinned through",
};
export const modeWords = (m: string | undefined) => words[m ?? ""] ?? m ?? "";
