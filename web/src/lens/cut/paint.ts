import type { Paint } from "../../frame/paint";
import type { LensProps } from "../lens";
import { letterTags } from "../tags";

/** Sticks take turns in six tints, on the frame as on the sheet. */
export const stickTint = (n: number) => (n > 0 ? `--stick-${((n - 1) % 6) + 1}` : "--pipe");

/** Every pipe with its letter, in the tint of the stick it is cut from. */
export function cutPaint(p: Pick<LensProps, "frame" | "picked" | "style">): Paint {
  return { pipe: (x) => stickTint(x.stick), joint: () => "--hub", rings: 0, rulers: false, contacts: false, sizes: [], tags: letterTags(p.frame, p.picked, p.style) };
}
