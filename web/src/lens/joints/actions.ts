import { type Mode, type Scope, flipped, hold, modeWords, tally } from "../../desk/mode-rules";
import type { LensProps } from "../lens";

export function setHold(desk: LensProps["desk"], what: string, scope: Scope, mode: Mode) {
  desk.edit(`${what}: ${modeWords(mode)}`, (p) => hold(p, scope, mode));
}

/** What a press on the picked thing does here: it turns cemented into dry, or the other way. */
export function flipPicked({ desk, frame, picked }: Pick<LensProps, "desk" | "frame" | "picked">) {
  if (picked?.is === "joint") setHold(desk, picked.id, { joint: picked.id }, flipped(tally(frame, (i) => i.joint === picked.id)));
  if (picked?.is === "pipe") {
    const p = frame.pipes.find((x) => x.pipe === picked.id);
    if (!p) return;
    const mode = flipped(tally(frame, (i) => i.spigot === p.pipe));
    desk.edit(`Both ends of ${p.letter}: ${modeWords(mode)}`, (x) => [p.from, p.to].reduce((y, joint) => hold(y, { joint, pipe: p.pipe }, mode), x));
  }
}

