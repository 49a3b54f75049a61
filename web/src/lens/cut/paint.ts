import type { Paint } from "../../frame/paint";
import type { Seen } from "../lens";
import { letterTags } from "../tags";
import { tints } from "./alike";

/** Every pipe with its letter, in the tint of the stick it is cut from. */
export function paint(p: Seen): Paint {
  const tintOf = tints(p.plan);
  return {
    pipe: (x) => tintOf(x.size, x.stick),
    joint: () => "--hub",
    rings: 0,
    rulers: false,
    contacts: false,
    sizes: [],
    tags: letterTags(p.frame, p.picked, p.style),
  };
}
