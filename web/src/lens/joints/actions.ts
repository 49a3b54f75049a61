import { modeWords } from "../../lib/words";
import type { Documents } from "../../desk/documents";
import { type Mode, type Scope, flipped, hold, tally } from "../../desk/mode-rules";
import type { OpenProject } from "../../desk/open-project";

export function setHold(desk: Documents, what: string, scope: Scope, mode: Mode) {
  desk.edit(`${what}: ${modeWords(mode)}`, (p) => hold(p, scope, mode));
}

/** What a press on the picked thing does here: it turns cemented into dry, or the other way. */
export function flipPicked(o: OpenProject) {
  const { picked, planned } = o.store.getState();
  const frame = planned.plan?.frames[0];
  if (!frame) return;
  if (picked?.is === "joint")
    setHold(
      o.documents,
      frame.joints.find((j) => j.id === picked.id)?.name ?? picked.id,
      { joint: picked.id },
      flipped(tally(frame, (i) => i.joint === picked.id)),
    );
  if (picked?.is === "pipe") {
    const p = frame.pipes.find((x) => x.pipe === picked.id);
    if (!p) return;
    const mode = flipped(tally(frame, (i) => i.spigot === p.pipe));
    o.documents.edit(`Both ends of ${p.letter}: ${modeWords(mode)}`, (x) =>
      [p.from, p.to].reduce((y, joint) => hold(y, { joint, pipe: p.pipe }, mode), x),
    );
  }
}
