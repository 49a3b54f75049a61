import type { Paint } from "../frame/paint";
import type { IconName } from "../ui/icons";
import { buyPaint } from "./buy/paint";
import { cutPaint } from "./cut/paint";
import { framePaint } from "./frame/paint";
import { jointsPaint } from "./joints/paint";
import type { LensProps } from "./lens";
import { sizePaint } from "./size/paint";
import type { Target } from "./size/targets";

export type LensId = "size" | "frame" | "joints" | "buy" | "cut";

export interface Lens {
  id: LensId;
  name: string;
  icon: IconName;
  /** What it asks the frame. */
  asks: string;
  paint: (p: Pick<LensProps, "frame" | "picked" | "style" | "plan" | "marked">, targets: Target[]) => Paint;
}

/** The lenses in the order of work. */
export const lenses: Lens[] = [
  { id: "size", name: "Size", icon: "size", asks: "How big will it be?", paint: sizePaint },
  { id: "frame", name: "Frame", icon: "frame", asks: "What goes where?", paint: framePaint },
  { id: "joints", name: "Joints", icon: "joints", asks: "What stays dry?", paint: jointsPaint },
  { id: "buy", name: "Buy", icon: "buy", asks: "What do I buy?", paint: buyPaint },
  { id: "cut", name: "Cut", icon: "cut", asks: "Where do I cut?", paint: cutPaint },
];
