import type { CutStick, DoneEvent, PipeTotal, Plan, StickPiece } from "../../api/client";
import { pieceId, withOutgoing } from "../../desk/doing";

/** The stick in the clamp, as it was when it was put there. */
export interface Clamp {
  of: PipeTotal;
  stick: CutStick;
}

/** A piece that the new plan has otherwise than the stick in the clamp: as long as this, or no more. */
export interface Otherwise {
  piece: StickPiece;
  now?: number;
}

/** What becomes of the stick in the clamp when the plan is another. */
export interface Held {
  clamp: Clamp;
  isCut: (p: StickPiece) => boolean;
  /** Pieces still to be cut from it that the plan has otherwise now. */
  otherwise: Otherwise[];
}

const signature = (s: CutStick) => s.pieces.map((p) => `${pieceId(p)} ${p.length}`).join("|");

/** The whole that a part is of. */
export const wholeOf = (id: string | undefined) => id?.split("/")[0];

/** The stick of the plan that is the one in the clamp: the same one there, with the same pieces in the same order. */
function liveOf(plan: Plan, c: Clamp): Clamp | undefined {
  const of = plan.pipe.find((t) => t.size === c.of.size);
  const is = signature(c.stick);
  const stick = of?.sticks.find((s) => !s.earlier && signature(s) === is && (!s.id || !c.stick.id || s.id === c.stick.id));
  return of && stick && { of, stick };
}

/**
 * The stick in the clamp stays until it is cut or put aside. Gives it as the plan has it, where that is the same; held, where
 * the plan is another; nothing once all of it is cut.
 */
export function clamped(plan: Plan, out: DoneEvent[], c: Clamp | undefined): { clamp?: Clamp; held?: Held } {
  if (!c) return {};
  const live = liveOf(plan, c);
  if (live) return { clamp: live };
  const said = withOutgoing(out);
  const back = new Set(out.filter((e) => e.kind === "not-done").map((e) => e.event));
  // one that came out at another length is not it
  const there = (p: StickPiece) => plan.existing.find((e) => pieceId(e) === pieceId(p) && e.length === p.length && !back.has(e.id));
  const isCut = (p: StickPiece) => said.isCut({ ...p, cut: undefined }) || there(p) !== undefined;
  const left = c.stick.pieces.filter((p) => p.pipe && !isCut(p));
  if (left.length === 0) return {};
  const first = c.stick.pieces.map(there).find((e) => e !== undefined);
  const stick = { ...c.stick, id: c.stick.id || (first ? wholeOf(first.stick) : undefined) };
  const planned = new Map<string, number>();
  for (const t of plan.pipe)
    if (t.size === c.of.size)
      for (const s of t.sticks) for (const p of s.pieces) if (!s.earlier && !p.cut) planned.set(pieceId(p), p.length);
  const otherwise = left.flatMap((piece): Otherwise[] => {
    const now = planned.get(pieceId(piece));
    return now === piece.length ? [] : [{ piece, now }];
  });
  return { held: { clamp: { of: c.of, stick }, isCut, otherwise } };
}
