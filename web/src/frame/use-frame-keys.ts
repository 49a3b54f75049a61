import type { KeyboardEvent, RefObject } from "react";
import type { PlanFrame } from "../api/client";
import type { Style } from "../lib/format";
import { type Picked, byLetter, itemsOf, step } from "./items";
import type { View } from "./scene/rig";

interface Keys {
  /** The frame and what is picked when a key is pressed, which the picture may not show yet. */
  latest: RefObject<{ frame: PlanFrame; picked: Picked; style: Style } | undefined>;
  onPick: (p: Picked) => void;
  acts: boolean;
  onAct: () => void;
  onEnter?: () => void;
  onDelete?: () => void;
  onPerspective: () => void;
  show: RefObject<((v: View) => void) | undefined>;
}

const turns: Record<string, View> = { ArrowLeft: "left", ArrowRight: "right", ArrowUp: "up", ArrowDown: "down" };
const views: Record<string, View> = { Digit1: "front", Digit2: "side", Digit3: "top", Digit4: "corner" };

/** The frame by keyboard. Letters pick pipes; I and O are never a piece's letter, so O is free for the perspective. */
export function useFrameKeys({ latest, onPick, acts, onAct, onEnter, onDelete, onPerspective, show }: Keys) {
  return (e: KeyboardEvent) => {
    const now = latest.current;
    if (!now || e.ctrlKey || e.metaKey || e.altKey) return;
    const { picked } = now;
    const to = (is: "pipe" | "joint", by: 1 | -1) => onPick(step(itemsOf(now.frame, now.style), picked, is, by));
    const turn = turns[e.key];
    const view = e.shiftKey ? views[e.code] : undefined;
    if (turn && e.shiftKey) show.current?.(turn);
    else if (view) show.current?.(view);
    else if (e.key === "ArrowRight") to("pipe", 1);
    else if (e.key === "ArrowLeft") to("pipe", -1);
    else if (e.key === "ArrowDown") to("joint", 1);
    else if (e.key === "ArrowUp") to("joint", -1);
    else if (e.key === "+" || e.key === "=") show.current?.("nearer");
    else if (e.key === "-") show.current?.("farther");
    else if (e.key === "Home") show.current?.("fit");
    else if (e.key === "Escape" && picked) onPick(undefined);
    else if (e.key === "Enter" && onEnter) onEnter();
    else if ((e.key === "Delete" || e.key === "Backspace") && onDelete && picked) onDelete();
    else if ((e.key === " " || e.key === "Enter") && acts && picked) onAct();
    else if (/^[a-z]$/i.test(e.key)) {
      const letter = e.key.toUpperCase();
      if (letter === "O") onPerspective();
      else {
        const next = byLetter(itemsOf(now.frame, now.style), picked, letter);
        if (!next) return;
        onPick(next);
      }
    } else return;
    e.preventDefault();
    e.stopPropagation();
  };
}
