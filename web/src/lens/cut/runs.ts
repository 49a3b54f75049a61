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
