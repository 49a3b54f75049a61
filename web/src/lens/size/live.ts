import { createContext, useContext } from "react";
import type { Target } from "./targets";

/** The sizes as they are typed this moment. The frame shows the plan's, which follow. */
export const LiveTargets = createContext<Target[]>([]);

export const useTargets = (): Target[] => useContext(LiveTargets);
export const useLive = (t: Target): Target => useTargets().find((x) => x.key === t.key) ?? t;
