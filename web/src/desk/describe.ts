import type { Project } from "../api/client";
import { same } from "./merge";

export interface Difference {
  what: string;
  mine: string;
  theirs: string;
}

/** How two windows' versions of a project differ, in words. Labels name a starter's prompts. */
export function differences(mine: Project, theirs: Project, labels: Record<string, string>): Difference[] {
  const out: Difference[] = [];
  const add = (what: string, a: unknown, b: unknown) => {
    if (String(a ?? "") !== String(b ?? "")) out.push({ what, mine: String(a ?? "—"), theirs: String(b ?? "—") });
  };
  add("Name", mine.name, theirs.name);
  const answers = (p: Project) => ({ ...p.starter?.answers, ...p.sizes });
  const [a, b] = [answers(mine), answers(theirs)];
  for (const k of new Set([...Object.keys(a), ...Object.keys(b)])) {
    const words = (x: (typeof a)[string] | undefined) => x && [x.text, x.meaning].filter(Boolean).join(", ");
    if (!same(a[k], b[k])) add(labels[k] ?? k, words(a[k]), words(b[k]));
  }
  add("How many", mine.copies, theirs.copies);
  add("Cut with", mine.tool, theirs.tool);
  add("Lengths shown", mine.style, theirs.style);
  if (!same(mine.modeRules ?? [], theirs.modeRules ?? []))
    add("Joints set", `${mine.modeRules?.length ?? 0} settings`, `${theirs.modeRules?.length ?? 0} settings `);
  if (!same(mine.sale ?? {}, theirs.sale ?? {})) add("On sale for this project", "yours", "theirs");
  if (!same(mine.frame, theirs.frame)) add("The frame", "yours", "theirs");
  return out;
}
