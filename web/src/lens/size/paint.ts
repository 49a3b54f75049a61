import type { Size } from "../../api/client";
import type { Paint } from "../../frame/paint";
import type { LensProps } from "../lens";
import { pickedTag } from "../tags";
import type { Target } from "./targets";

/** The frame with its rulers, the sizes the builder stated, and where it stands. */
export function sizePaint(p: Pick<LensProps, "frame" | "picked" | "style">, targets: Target[]): Paint {
  const stated = targets.map((t) => t.sized).filter((s): s is Size => s !== undefined);
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
