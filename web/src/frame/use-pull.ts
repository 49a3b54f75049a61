import { useDrag } from "@use-gesture/react";
import type { Held } from "../desk/history";
import { type SizeLine, pulled } from "./overlay";

interface Pull {
  /** The line that it is pulled along, as it is drawn when the pull begins. */
  line: () => SizeLine | undefined;
  /** What is pulled; a pull of it is one step of the history. */
  name: string;
  onBegin?: () => void;
  /** So many nanometres from where it began. */
  onMove: (by: number, on: Held) => void;
  /** It was let go, or the finger was taken for something else. */
  onEnd: () => void;
}

/** Pulls something along its line on the frame, by mouse, pen or finger. */
export function usePull({ line, name, onBegin, onMove, onEnd }: Pull) {
  return useDrag<PointerEvent>(
    ({ first, last, movement: [dx, dy], memo }) => {
      const pull = first ? { line: line(), on: { pulls: name } } : memo;
      if (!pull?.line) return pull;
      if (first) onBegin?.();
      else if (!last) onMove(pulled(pull.line, dx, dy), pull.on);
      if (last) onEnd();
      return pull;
    },
    { keyboardDisplacement: 0, pointer: { keys: false, touch: false } },
  );
}
