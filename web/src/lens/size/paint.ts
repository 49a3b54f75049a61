import type { Size } from "../../api/client";
import type { Paint } from "../../frame/paint";
import type { Seen } from "../lens";
import { pickedTag } from "../tags";

/** The frame with its rulers, the sizes the builder stated, and where it stands. */
export function paint(p: Seen): Paint {
  const stated = p.targets.map((t) => t.sized).filter((s): s is Size => s !== undefined);
  return {
    pipe: () => "--pipe",
    joint: () => "--hub",
    rings: 0.6,
    rulers: true,
    contacts: true,
    sizes: stated,
    tags: pickedTag(p.frame, p.picked, p.style),
  };
}
