import type { OpenProject } from "../../desk/open-project";
import { later } from "../../lib/later";
import type { Lens } from "../lens";
import { paint } from "./paint";

/** Marks the joint that is picked, or takes its mark away. */
function mark(o: OpenProject) {
  const { picked, marked } = o.store.getState();
  if (picked?.is === "joint") o.mark(marked.includes(picked.id) ? marked.filter((x) => x !== picked.id) : [...marked, picked.id]);
}

function remove(o: OpenProject) {
  const { picked } = o.store.getState();
  if (picked?.is === "joint") void o.gestures.run({ delete: { joints: [picked.id] } });
  if (picked?.is === "pipe") void o.gestures.run({ delete: { pipes: [picked.id] } });
}

export const frame: Lens = {
  id: "frame",
  name: "Frame",
  question: "What goes where?",
  icon: "frame",
  Sheet: later(() => import("./sheet")),
  paint,
  keys: { space: mark, enter: () => toWalk(), remove },
  tellsPicked: true,
};

/** Puts the cursor into the line that runs pipes, as soon as its sheet is there. */
export function toWalk(frames = 120) {
  const line = document.querySelector<HTMLInputElement>("[data-walk]");
  if (line) line.focus();
  else if (frames > 0) requestAnimationFrame(() => toWalk(frames - 1));
}

/** Shows the line that could not be drawn, as soon as its sheet is there. */
export function toWaiting(frames = 120) {
  const line = document.querySelector<HTMLElement>(".lines-waits .lines-press");
  if (line) {
    line.scrollIntoView({ block: "center" });
    line.focus({ preventScroll: true });
  } else if (frames > 0) requestAnimationFrame(() => toWaiting(frames - 1));
}
