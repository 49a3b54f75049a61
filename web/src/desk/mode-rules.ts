import type { ModeRule, PlanFrame, Project } from "../api/client";

export type Mode = "cemented" | "slip" | "eased" | "pinned";

/** What a setting is about: everything, a kind, a group, one use, a joint, or one end of a pipe at it. */
export type Scope = Pick<ModeRule, "kind" | "group" | "use" | "joint" | "pipe">;

const key = (s: Scope) => [s.kind, s.group, s.use, s.joint, s.pipe].map((x) => x ?? "").join("|");

/** The last setting that is about a socket counts, so a new one goes to the end; one of the same scope before it goes. */
export function hold(p: Project, scope: Scope, mode: Mode): Project {
  const kept = (p.modeRules ?? []).filter((h) => key(h) !== key(scope));
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
