import type { CutStick, DoneEvent, PipeTotal, Plan, StickPiece } from "../../api/client";
import { pieceId, withOutgoing } from "../../desk/doing";
import { type Clamp, type Held, wholeOf } from "./clamp";

/** What is done at the bench, one piece after the other: it is cut, its ends are cleaned, how deep it goes is marked. */
export type Task = "cut" | "deburred" | "marked";

/** One piece, at its place in the work. */
export interface Step {
  key: string;
  of: PipeTotal;
  stick: CutStick;
  piece: StickPiece;
  /** Its place on the stick. */
  at: number;
  /** The one before it is as long: the stop stays as it is. */
  stopStays: boolean;
  /** The event that says that it is cut. */
  event?: string;
  done: boolean;
}

/** Whether a stick is a piece as it is sold: nothing is cut of it. */
export const usedWhole = (stick: { length: number; pieces: { length: number }[] }) =>
  stick.pieces.length === 1 && Math.abs((stick.pieces[0]?.length ?? 0) - stick.length) < 1000;

const stepOf = (of: PipeTotal, stick: CutStick, at: number, event: string | undefined, done: boolean): Step => {
  const piece = stick.pieces[at] as StickPiece;
  return {
    key: `${of.size} ${pieceId(piece)} ${piece.frame}`,
    of,
    stick,
    piece,
    at,
    stopStays: at > 0 && stick.pieces[at - 1]?.length === piece.length,
    event,
    done,
  };
};

/** Nobody said yet that a stick is there. */
export const toBuy = (s: CutStick) => s.origin === "shop" && !s.id;

/** The pieces of a plan in the order of the work, with what is done of each; those of the stick that is held in the clamp come first, as it is. */
export function stepsOf(plan: Plan, out: DoneEvent[], task: Task, held?: Held): Step[] {
  const said = withOutgoing(out);
  const back = new Set(out.filter((e) => e.kind === "not-done").map((e) => e.event));
  const here = new Map(plan.existing.map((e) => [e.id, e]));
  const ready = (event: string) =>
    (task === "deburred" ? here.get(event)?.deburred : here.get(event)?.marked) ||
    out.some((e) => e.kind === task && e.item === event && !back.has(e.id));
  const all: Step[] = [];
  const mine = new Set<string>();
  if (held) {
    const { of, stick } = held.clamp;
    stick.pieces.forEach((piece, at) => {
      if (!piece.pipe) return;
      mine.add(pieceId(piece));
      all.push(stepOf(of, stick, at, said.saying({ ...piece, cut: undefined })[0], held.isCut(piece)));
    });
  }
  for (const of of plan.pipe) {
    // what is there is cut before what is still to be bought
    for (const stick of of.sticks.toSorted((a, b) => Number(toBuy(a)) - Number(toBuy(b)))) {
      stick.pieces.forEach((piece, at) => {
        if (!piece.pipe || mine.has(pieceId(piece))) return;
        const event = said.saying(piece)[0];
        const gone = stick.earlier && piece.fate !== "keep";
        if (gone || (task === "cut" ? stick.earlier : !event)) return;
        all.push(stepOf(of, stick, at, event, task === "cut" ? event !== undefined : Boolean(event && ready(event))));
      });
    }
  }
  return all;
}

/** How many of a letter are done, those that an earlier plan cut among them: "3 of 8". */
export const tally = (steps: Step[], plan: Plan, task: Task, letter: string, size: string): [done: number, all: number] => {
  const some = steps.filter((s) => s.piece.name === letter && s.of.size === size);
  const line = plan.cuts.find((c) => c.letter === letter && c.size === size);
  const done = some.filter((s) => s.done).length;
  if (task !== "cut" || !line) return [done, some.length];
  // the plan counts what it knows; what is on its way comes on top
  const coming = some.filter((s) => s.done && !s.piece.cut).length;
  const back = some.filter((s) => !s.done && s.piece.cut).length;
  return [Math.min(line.count, (line.done ?? 0) + coming - back), line.count];
};

/** The step that comes after one: the next that is not done, from there on and then from the beginning; nothing once all are. */
export function after(steps: Step[], now: number): Step | undefined {
  return steps.find((s, i) => i > now && !s.done) ?? steps.find((s, i) => i < now && !s.done);
}

/**
 * The place of the step that is shown: the one that was gone to by its key; else what is left of the stick in the hand, by its id, or
 * in the clamp, wherever a new plan has that among the others; else the first that is left, and the last once all are done.
 */
export function nowOf(steps: Step[], at: string | undefined, hand: string | undefined, clamp: Clamp | undefined): number {
  const among = [
    steps.findIndex((s) => s.key === at),
    hand ? steps.findIndex((s) => !s.done && wholeOf(s.stick.id) === hand) : -1,
    steps.findIndex((s) => !s.done && s.stick === clamp?.stick),
    steps.findIndex((s) => !s.done),
  ];
  return among.find((i) => i >= 0) ?? steps.length - 1;
}
