import type { CutStick, DoneEvent, PipeTotal, Plan, StickPiece } from "../../api/client";
import { pieceId, withOutgoing } from "../../desk/doing";

/** What is done at the bench, one piece after the other: it is cut, its ends are cleaned, how deep it goes is marked. */
export type Task = "cut" | "deburred" | "marked";

/** One piece, at its place in the work. */
export interface Step {
  key: string;
  of: PipeTotal;
  stick: CutStick;
  /** Of its size, counted from 1. */
  number: number;
  piece: StickPiece;
  /** Its place on the stick. */
  at: number;
  /** The one before it is as long: the stop stays as it is. */
  stopStays: boolean;
  /** The event that says that it is cut. */
  event?: string;
  done: boolean;
}

/** The pieces of a plan in the order of the work, with what is done of each. */
export function stepsOf(plan: Plan, out: DoneEvent[], task: Task): Step[] {
  const said = withOutgoing(out);
  const back = new Set(out.filter((e) => e.kind === "not-done").map((e) => e.event));
  const here = new Map(plan.existing.map((e) => [e.id, e]));
  const ready = (event: string) =>
    (task === "deburred" ? here.get(event)?.deburred : here.get(event)?.marked) ||
    out.some((e) => e.kind === task && e.item === event && !back.has(e.id));
  const all: Step[] = [];
  for (const of of plan.pipe) {
    of.sticks.forEach((stick, n) => {
      stick.pieces.forEach((piece, at) => {
        if (!piece.pipe) return;
        const event = said.saying(piece)[0];
        const gone = stick.earlier && piece.fate !== "keep";
        if (gone || (task === "cut" ? stick.earlier : !event)) return;
        all.push({
          key: `${of.size} ${pieceId(piece)} ${piece.frame}`,
          of,
          stick,
          number: n + 1,
          piece,
          at,
          stopStays: at > 0 && stick.pieces[at - 1]?.length === piece.length,
          event,
          done: task === "cut" ? event !== undefined : Boolean(event && ready(event)),
        });
      });
    });
  }
  return all;
}

/** How many of a letter are done: "3 of 8". */
export const tally = (steps: Step[], letter: string, size: string): [done: number, all: number] => {
  const some = steps.filter((s) => s.piece.name === letter && s.of.size === size);
  return [some.filter((s) => s.done).length, some.length];
};
