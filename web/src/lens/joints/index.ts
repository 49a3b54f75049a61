import type { OpenProject } from "../../desk/open-project";
import { flipped, tally } from "../../desk/mode-rules";
import { later } from "../../lib/later";
import type { CommandOf, Lens } from "../lens";
import { flipPicked, setHold } from "./actions";
import { Legend } from "./legend";
import { paint } from "./paint";

function commands(o: OpenProject): CommandOf[] {
  const all: CommandOf[] = (
    [
      ["Cement every joint", "cemented", "glue"],
      ["Leave every joint dry", "slip", "slip fit no glue"],
      ["Ease every joint to lift off", "eased", "sand"],
    ] as const
  ).map(([name, mode, also]) => ({ group: "Joints", name, also, icon: "joints", run: () => setHold(o.documents, "All joints", {}, mode) }));
  if ((o.documents.current()?.project.modeRules?.length ?? 0) > 0)
    all.push({
      group: "Joints",
      name: "Joints as they began",
      also: "reset",
      icon: "joints",
      run: () => o.documents.edit("Joints as they began", (p) => ({ ...p, modeRules: [] })),
    });
  return all;
}

/** What a press turns the sockets of what is picked into. */
function press(o: OpenProject): string | undefined {
  const { picked, planned } = o.store.getState();
  const frame = planned.plan?.frames[0];
  if (!frame || picked?.is !== "joint") return undefined;
  const t = tally(frame, (i) => i.joint === picked.id);
  if (t.cemented + t.dry === 0) return undefined;
  return flipped(t) === "slip" ? "Leave it dry" : "Cement it";
}

export const joints: Lens = {
  id: "joints",
  name: "Joints",
  question: "What stays dry?",
  icon: "joints",
  Sheet: later(() => import("./sheet")),
  paint,
  keys: { space: flipPicked, enter: flipPicked },
  press,
  commands,
  Legend,
};
