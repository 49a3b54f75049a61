import { type DependencyList, useEffect, useState } from "react";
import type { First, OpenProject } from "./open-project";

/** Opens what is made, for as long as the page shows it. Going away, what is waiting is saved at once, or kept on the device; what can be neither is asked about. */
export function useOpened(make: () => OpenProject, of: DependencyList, first?: () => First | undefined): OpenProject | undefined {
  const [open, setOpen] = useState<OpenProject>();
  useEffect(() => {
    const o = make();
    setOpen(o);
    void o.open(first?.());
    const hide = () => document.visibilityState === "hidden" && o.documents.flush();
    const ask = (e: BeforeUnloadEvent) => {
      if (o.losable) e.preventDefault();
    };
    addEventListener("visibilitychange", hide);
    addEventListener("beforeunload", ask);
    return () => {
      removeEventListener("visibilitychange", hide);
      removeEventListener("beforeunload", ask);
      o.close();
    };
  }, of);
  return open;
}
