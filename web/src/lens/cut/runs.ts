import type { DrawnPiece, DrawnStick } from "./alike";

/** Pieces of one length that follow each other on a stick: one setting of the stop, one thing to press. */
export interface Run {
  name?: string;
  length: number;
  pieces: DrawnPiece[];
  /** Its first piece's place on the stick. */
  first: number;
  /** It begins a part that the shop cut. */
  part?: boolean;
}

export function runsOf(s: DrawnStick): Run[] {
  const begins = new Set<number>();
  let at = 0;
  for (const part of s.parts ?? []) {
    begins.add(at);
    at += part.pieces ?? 0;
  }
  const out: Run[] = [];
  s.pieces.forEach((p, i) => {
    const last = out.at(-1);
    if (last && last.name === p.name && last.length === p.length && last.pieces[0]?.fate === p.fate && !begins.has(i)) last.pieces.push(p);
    else out.push({ name: p.name, length: p.length, pieces: [p], first: i, part: begins.has(i) && i > 0 });
  });
  return out;
}

/** What a stick is carried as: whole, or as the parts that the shop cuts it into, each with what it leaves. */
export interface Carried {
  length: number;
  runs: Run[];
  left: number;
  /** Of a part that is at home. */
  id?: string;
  racked?: boolean;
}

export function carriedAs(s: DrawnStick, runs: Run[]): Carried[] {
  if (!s.parts?.length) return [{ length: s.length, runs, left: s.left }];
  let from = 0;
  return s.parts.map((part) => {
    const to = from + (part.pieces ?? 0);
    const its = runs.filter((r) => r.first >= from && r.first < to);
    from = to;
    return { length: part.length, runs: its, left: part.left ?? 0, id: part.id, racked: part.racked };
  });
}
