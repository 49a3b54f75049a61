import { useEffect, useState } from "react";
import type { Desk } from "./history";
import { planOf } from "./use-plan";

/** The server's drawing of a desk; the last one stays while the next is made. */
export function useDrawing(desk: Desk | undefined): string | undefined {
  const [svg, setSvg] = useState<string>();
  useEffect(() => {
    if (!desk) return;
    let gone = false;
    planOf(desk, { draw: true })
      .then((a) => !gone && setSvg(a.drawings[0]))
      .catch(() => undefined); // the plan's own request says what is wrong
    return () => {
      gone = true;
    };
  }, [desk]);
  return svg;
}
