import type { CutStick } from "../../api/client";

/** Whether more is to be cut from what an earlier plan left of a stick. */
export const goesOn = (sticks: CutStick[], s: CutStick): boolean =>
  Boolean(s.earlier && s.id) && sticks.some((o) => o !== s && o.id === s.id && !o.earlier);

/** The sticks that are cut, of which enough is left for the rack, and that are not there yet. */
export const leftovers = (sticks: CutStick[], scrap: number, isCut: (p: CutStick["pieces"][number]) => boolean): CutStick[] =>
  sticks.filter(
    (s) =>
      s.id &&
      !s.racked &&
      s.left >= scrap &&
      s.pieces.length > 0 &&
      !goesOn(sticks, s) &&
      (s.earlier || s.pieces.every((p) => !p.pipe || isCut(p))),
  );
