import type { Paint } from "../../frame/paint";
import type { Seen } from "../lens";
import { letterTags } from "../tags";

/** Every pipe with its letter; those that are cut stand out from those that are not. */
export function paint(p: Seen): Paint {
  const kept = new Set(p.plan.existing.flatMap((e) => (e.fate === "keep" && e.serves ? [e.serves.pipe] : [])));
  const trim = new Set(p.plan.existing.flatMap((e) => (e.fate === "trim" && e.serves ? [e.serves.pipe] : [])));
  return {
    pipe: (x) => (kept.has(x.pipe) ? "--wood" : trim.has(x.pipe) ? "--stick-2" : "--pipe"),
    joint: () => "--hub",
    rings: 0,
    rulers: false,
    contacts: false,
    sizes: [],
    tags: letterTags(p.frame, p.picked, p.style),
  };
}
