import type { ComponentType } from "react";
import type { Plan, PlanFrame } from "../api/client";
import type { OpenProject } from "../desk/open-project";
import type { Picked } from "../frame/items";
import type { Paint } from "../frame/paint";
import type { Style } from "../lib/format";
import type { IconName } from "../ui/icons";
import type { Target } from "./size/targets";

/** The stages of the work, in their order. Each has its number key for good, whether its lens exists yet or not. */
export const stages = ["size", "frame", "on", "joints", "hold", "buy", "cut", "build", "log"] as const;

export type LensId = (typeof stages)[number];

/** What a lens has to paint. */
export interface Seen {
  plan: Plan;
  frame: PlanFrame;
  picked: Picked;
  marked: string[];
  /** The fitting that is being chosen, and which way its spare ports would point. */
  choosing?: { joints: string[]; spare: number[][] };
  style: Style;
  /** The sizes that the builder stated, as the plan has them. */
  targets: Target[];
}

/** Something that can be commanded by name. */
export interface CommandOf {
  group: string;
  name: string;
  /** Other words people say for it. */
  also?: string;
  keys?: string;
  icon?: IconName;
  run: () => void;
}

/** A lens is a room: a folder that exports one of these. It takes no props; what it works with it takes from the open project. */
export interface Lens {
  id: LensId;
  name: string;
  /** What it asks the frame. */
  question: string;
  icon: IconName;
  /** Its working paper, beside the frame. */
  Sheet: ComponentType;
  /** What it draws on the frame. */
  paint: (s: Seen) => Paint;
  /** What keys do on the frame with what is picked there. */
  keys?: { space?: (o: OpenProject) => void; enter?: (o: OpenProject) => void; remove?: (o: OpenProject) => void };
  /** What a press on what is picked does, in words; nothing for no button. */
  press?: (o: OpenProject) => string | undefined;
  /** Its own commands. */
  commands?: (o: OpenProject) => CommandOf[];
  /** How signs on the frame are to be read. */
  Legend?: ComponentType;
  /** What is picked is told on the sheet, and needs no card over the frame. */
  tellsPicked?: boolean;
  /** On a phone the sheet has the room, and the frame is folded away until it is asked for. */
  phone?: "sheet";
  /** The usual cautions stand open at its foot. */
  cautions?: "open";
}

/** The number key of a lens. */
export const keyOf = (id: LensId): string => String(stages.indexOf(id) + 1);
