import { jointName } from "../../frame/items";
import type { Paint, Tag } from "../../frame/paint";
import type { Seen } from "../lens";
import { pickedTag } from "../tags";
import { numbersOf } from "./list";

/** The fittings with the numbers they have on the list; those picked there stand out. */
export function paint(p: Seen): Paint {
  const numbers = numbersOf(p.plan, p.frame);
  const tags: Tag[] = p.frame.joints.flatMap((j) => {
    const n = numbers.get(j.id);
    return n
      ? [
          {
            key: j.id,
            text: String(n),
            title: jointName(j),
            look: "count" as const,
            places: [j.at],
            off: 13,
            pick: { is: "joint" as const, id: j.id },
          },
        ]
      : [];
  });
  return {
    pipe: () => "--pipe",
    joint: (j) => (numbers.has(j.id) ? "--wood" : "--hub"),
    rings: 0,
    rulers: false,
    contacts: false,
    sizes: [],
    tags: [...pickedTag(p.frame, p.picked, p.style), ...tags],
  };
}
