import type { Finding, Joint, Pipe, PlanFrame, Size } from "../api/client";
import type { Picked } from "./items";
import { INCH } from "../lib/format";

/** A point of the frame in nanometres, as the plan gives it. */
export type Spot = readonly number[];

/** A label on the frame. It takes the first of its places that is free; one that may hide gives way where there is none. */
export interface Tag {
  key: string;
  text: string;
  title?: string;
  look: "letter" | "count" | "note" | "finding" | "plus" | "end" | "mark";
  /** Places along the pipe or round the joint. */
  places: Spot[];
  /** How far from its place the label stands, in pixels, tried in turn round it. */
  off?: number;
  must?: boolean;
  /** Of its places it takes one that lies over no pipe, where there is one. */
  offPipes?: boolean;
  pick?: NonNullable<Picked>;
  finding?: Finding;
  /** A direction to run a pipe in. */
  way?: string;
}

/** What a lens draws on the frame. Colours are the names of the page's own. */
export interface Paint {
  pipe: (p: Pipe) => string;
  joint: (j: Joint) => string;
  /** How large the rings that tell cemented from dry are drawn; 0: not at all. */
  rings: number;
  rulers: boolean;
  contacts: boolean;
  sizes: Size[];
  /** The marks on the rulers can be pulled. */
  planes?: boolean;
  tags: Tag[];
}

export const inches = (nm: number) => nm / INCH;

export const between = (a: Spot, b: Spot, t: number): Spot =>
  [0, 1, 2].map((i) => (a[i] as number) + ((b[i] as number) - (a[i] as number)) * t);

/** The places along a pipe where its label may stand, the middle first. */
export const along = (p: Pipe): Spot[] => [0.5, 0.36, 0.64, 0.24, 0.76].map((t) => spotAlong(p, t));

/** A place on the visible part of a pipe, at a share of the way along it. */
export function spotAlong(p: Pipe, t: number): Spot {
  const way = p.way ?? p.shown;
  const at = t * (way.length - 1);
  const i = Math.min(Math.floor(at), way.length - 2);
  return between(way[i] as Spot, way[i + 1] as Spot, at - i);
}

/** Where what is picked is on the frame; nothing for a letter of several pipes. */
export function spotOf(f: PlanFrame, picked: Picked): Spot | undefined {
  if (picked?.is === "joint") return f.joints.find((j) => j.id === picked.id)?.at;
  const p = picked?.is === "pipe" ? f.pipes.find((x) => x.pipe === picked.id) : undefined;
  return p && spotAlong(p, 0.5);
}

/** The pins of what the plan noticed, where it belongs on the frame. */
export function findingTags(findings: Finding[], f: PlanFrame, index: number): Tag[] {
  const seen = new Map<string, number>();
  const told = new Map<string, number>(); // of several copies of a pipe one pin tells the same
  const each = findings.flatMap((x) => (x.cases ? x.cases.map((c): Finding => ({ ...x, ...c, fixes: c.fixes, cases: undefined })) : [x]));
  return each.flatMap((x) => {
    if (x.frame !== index) return [];
    for (const { id } of x.subjects) {
      const pipe = f.pipes.find((p) => p.pipe === id);
      const joint = f.joints.find((j) => j.id === id);
      const at = pipe ? spotAlong(pipe, 0.5) : joint?.at;
      if (!at) continue;
      const what = `${x.code} ${id}`;
      const same = told.get(what) ?? 0;
      if (same > 0 && x.severity !== "stop") return [];
      told.set(what, same + 1);
      const again = seen.get(id) ?? 0;
      seen.set(id, again + 1);
      if (again > 2) return [];
      return [
        {
          key: `finding ${what} ${same}`, // an open note stays with what it says when others come and go
          text: { stop: "✕", warn: "!", question: "?", note: "i" }[x.severity] ?? "i",
          title: x.text,
          look: "finding" as const,
          places: [at],
          off: 20,
          must: x.severity === "stop",
          finding: x,
          pick: pipe ? { is: "pipe" as const, id } : { is: "joint" as const, id },
        },
      ];
    }
    return [];
  });
}
