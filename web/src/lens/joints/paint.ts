import type { Paint } from "../../frame/paint";
import type { Seen } from "../lens";
import { pickedTag } from "../tags";

/** The rings speak: closed violet collars where there is cement, open rings where it stays dry. */
export function paint(p: Seen): Paint {
  return {
    pipe: () => "--pipe",
    joint: () => "--hub",
    rings: 1.6,
    rulers: false,
    contacts: false,
    sizes: [],
    tags: pickedTag(p.frame, p.picked, p.style),
  };
}
