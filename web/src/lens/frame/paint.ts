import type { Spot, Tag } from "../../frame/paint";
import type { Paint } from "../../frame/paint";
import type { Seen } from "../lens";
import { pickedTag } from "../tags";
import { said, taken, ways } from "./ways";
import { INCH } from "../../lib/format";

/** How far a plus stands from the middle of its joint, in nanometres: clear of the fitting. */
const plusAt = 3.2 * INCH;

/** Where the spare ports of the fitting that is being chosen would be. */
function ghosts({ frame, choosing }: Seen): { at: Spot; way: string }[] {
  const far = Math.max(plusAt, Math.max(...frame.overall.map((e) => e.size), 1) * 0.05);
  return (choosing?.joints ?? []).flatMap((id) => {
    const j = frame.joints.find((x) => x.id === id);
    return j ? (choosing?.spare ?? []).map((d) => ({ at: j.at.map((v, i) => v + far * (d[i] ?? 0)), way: said(d) })) : [];
  });
}

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
      // nearer or farther, where it would lie over a pipe
      const spots: Spot[] = [1, 1.45, 2, 2.7, 3.6, 0.7].map((t) => joint.at.map((v, i) => v + t * far * w.dir[i as 0]));
      tags.push({
        key: `plus ${w.word}`,
        text: "+",
        title: `Run a pipe ${w.word} from here`,
        look: "plus",
        places: spots,
        must: true,
        offPipes: true,
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
  // the spare ports of the fitting that is being chosen
  for (const [k, g] of ghosts(p).entries())
    tags.push({ key: `spare ${k}`, text: g.way, title: `a spare port, ${g.way}`, look: "note", places: [g.at], off: 10, must: true });
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
