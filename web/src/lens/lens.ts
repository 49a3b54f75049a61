import type { Plan, PlanFrame, Project, Shop } from "../api/client";
import type { DeskOf } from "../desk/use-desk";
import type { Gesture } from "../desk/use-gesture";
import type { Picked } from "../frame/items";
import type { Style } from "../lib/format";

/** What every lens works with: the plan it shows, and the desk it changes. */
export interface LensProps {
  desk: DeskOf;
  project: Project;
  shop: Shop;
  plan: Plan;
  frame: PlanFrame;
  style: Style;
  /** What cannot be read, by its place in the request. */
  places: Record<string, string>;
  picked: Picked;
  onPick: (p: Picked) => void;
  gesture: Gesture;
  /** Joints marked for a gesture on several. */
  marked: string[];
  onMark: (joints: string[]) => void;
  /** A direction pressed on the frame, for the walk that is being typed. */
  way?: string;
  onWay: (way: string | undefined) => void;
}

/** Some of a lens's members. (Pick is a component's name here.) */
export type Subset<T, K extends keyof T> = Pick<T, K>;
