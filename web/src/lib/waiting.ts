import type { PlanFrame } from "../api/client";
import { plural } from "./format";

/** In words: how many lines of a frame wait. */
export const waitWords = (w: NonNullable<PlanFrame["waiting"]>) => `${plural(w.lines, "line")} ${w.lines === 1 ? "waits" : "wait"}`;
