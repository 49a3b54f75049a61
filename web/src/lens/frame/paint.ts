import type { Spot, Tag } from "../../frame/paint";
import type { Paint } from "../../frame/paint";
import type { Seen } from "../lens";
import { pickedTag } from "../tags";
import { taken, ways } from "./ways";
import { INCH } from "../../lib/format";

/** How far a plus stands from the middle of its joint, in nanometres: clear of the fitting. */
const plusAt = 3.2 * INCH;

/** The frame with marks on its rulers to pull, a plus for each way a pipe can go on, and its open ends. */
export function paint(p: Seen): Paint {
  const { frame, picked, marked } = p;
  const tags: Tag[] = [];
  const joint = picked?.is === "joint" ? frame.joints.find((j) => j.id === picked.id) : undefined;
  if (joint) {
    const wide = Math.max(...frame.overall.map((e) => e.size), 1);
    const far = Math.max(plusAt, wide * 0.07);
    for (const w of ways) {
      if (taken(joint, w.dir)) continue;
      const spot: Spot = joint.at.map((v, i) => v + far * w.dir[i as 0]);
      tags.push({
        key: `plus ${w.word}`,
        text: "+",
        title: `Run a pipe ${w.word} from here`,
        look: "plus",
        places: [spot],
        must: true,
        way: w.word,
      });
    }
  }
  for (const j of frame.joints) {
    if (j.ports.length > 1 || (j.kind && j.kind !== "cap")) continue;
    tags.push({
      key: `end ${j.id}`,
      text: "",
      title: j.ports.length === 0 ? `the joint ${j.id}` : `the end at ${j.id}`,
      look: "end",
      places: [j.at],
      must: true,
      pick: { is: "joint", id: j.id },
    });
  }
  for (const id of marked) {
    const j = frame.joints.find((x) => x.id === id);
    if (j) tags.push({ key: `mark ${id}`, text: "✓", title: `${id} is marked`, look: "mark", places: [j.at], off: 14, must: true });
  }
  return {
    pipe: () => "--pipe",
    joint: () => "--hub",
    rings: 0.6,
    rulers: true,
    contacts: true,
    sizes: [],
    planes: true,
    tags: [...tags, ...pickedTag(frame, picked, p.style)],
  };
}
