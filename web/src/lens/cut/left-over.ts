import type { CutStick } from "../../api/client";

/** Whether more is to be cut from what an earlier plan left of a stick. */
export const goesOn = (sticks: CutStick[], s: CutStick): boolean =>
  Boolean(s.earlier && s.id) && sticks.some((o) => o !== s && o.id === s.id && !o.earlier);

/** What is left of a stick that is cut, or of one of its parts. */
export interface LeftOver {
  id: string;
  /** The stick's number. */
  number: number;
  left: number;
}

/** What is left of sticks that are cut, where it is enough for the rack and not there yet. Of a stick that came home in parts each has its own. */
export const leftovers = (sticks: CutStick[], scrap: number, isCut: (p: CutStick["pieces"][number]) => boolean): LeftOver[] =>
  sticks.flatMap((s): LeftOver[] => {
    if (!s.id || s.pieces.length === 0 || goesOn(sticks, s)) return [];
    const done = (pieces: CutStick["pieces"]) => s.earlier || pieces.every((p) => !p.pipe || isCut(p));
    const whole = s.pieces;
    if (s.parts?.[0]?.id) {
      let from = 0;
      return s.parts.flatMap((part): LeftOver[] => {
        const pieces = whole.slice(from, from + part.pieces);
        from += part.pieces;
        return part.id && !part.racked && part.left >= scrap && done(pieces) && done(whole)
          ? [{ id: part.id, number: s.number, left: part.left }]
          : [];
      });
    }
    return !s.racked && s.left >= scrap && done(whole) ? [{ id: s.id, number: s.number, left: s.left }] : [];
  });

/** The part of a stick that a piece is on; nothing of a stick that is whole. */
export function partAt(s: CutStick, piece: number): NonNullable<CutStick["parts"]>[number] | undefined {
  let to = 0;
  return (s.parts?.length ?? 0) > 1
    ? s.parts?.find((part) => {
        to += part.pieces;
        return piece < to;
      })
    : undefined;
}
