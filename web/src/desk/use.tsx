import { useQuery } from "@tanstack/react-query";
import { type ReactNode, createContext, startTransition, use, useEffect, useLayoutEffect, useState } from "react";
import { useStore } from "zustand";
import { type Plan, type PlanFrame, type Project, type Shop, type Starter, api, ask } from "../api/client";
import type { Picked } from "../frame/items";
import { type Names, named, namesOf } from "../frame/names";
import type { Style } from "../lib/format";
import type { Documents } from "./documents";
import type { Gestures } from "./gestures";
import type { Desk } from "./history";
import type { OpenProject, State } from "./open-project";
import { type Planned, nothing } from "./planner";

const Opened = createContext<OpenProject | undefined>(undefined);
const Shown = createContext<Planned>({ places: nothing, old: false });

/** Gives what is below it the open project. The plan reaches it when there is time to draw: what is typed comes first. */
export function OpenProjectProvider({ of, children }: { of: OpenProject; children: ReactNode }) {
  const [planned, draw] = useState(of.store.getState().planned);
  useEffect(() => {
    const follow = (s: State) => startTransition(() => draw(s.planned));
    follow(of.store.getState());
    return of.store.subscribe((s, was) => s.planned !== was.planned && follow(s));
  }, [of]);
  // what was done is on its way until the plan that has it is on the page, not until it has come
  useLayoutEffect(() => of.shown(planned), [of, planned]);
  return (
    <Opened value={of}>
      <Shown value={planned}>{children}</Shown>
    </Opened>
  );
}

/** The open project itself, for what acts on it. */
export function useOpen(): OpenProject {
  const open = use(Opened);
  if (!open) throw new Error("used outside an open project");
  return open;
}

/** Some of what is known of it; drawn anew when that changes. */
export const useOpenState = <T,>(select: (s: State) => T): T => useStore(useOpen().store, select);

const history = (s: State) => {
  if (!s.history) throw new Error("used before the project is read");
  return s.history;
};

/** The project as it is typed, or some of it. */
export const useProject = <T = Project>(select: (p: Project) => T = (p) => p as unknown as T): T =>
  useOpenState((s) => select(history(s).now.project));
export const useShop = <T = Shop>(select: (s: Shop) => T = (s) => s as unknown as T): T => useOpenState((s) => select(history(s).now.shop));
/** Project and shop together. */
export const useNow = (): Desk => useOpenState((s) => history(s).now);
/** How lengths are written. */
export const useStyle = (): Style => useProject((p) => (p.style || "inches") as Style);

/** What things of the frame are called. */
export const useNames = (): Names => namesOf(useFrame());

/** Puts the names of the frame as it is shown into a text that was kept, as in the label of a step. */
export function useNamed(): (text: string) => string {
  const names = namesOf(use(Shown).plan?.frames[0]);
  return (text) => named(text, names);
}

/** The plan that is shown, whatever state it is in. */
export const usePlanned = (): Planned => use(Shown);
/** The plan that is shown, or some of it; only where there is one. */
export function usePlan<T = Plan>(select: (p: Plan) => T = (p) => p as unknown as T): T {
  const { plan } = use(Shown);
  if (!plan) throw new Error("used before there is a plan");
  return select(plan);
}
export const useFrame = (): PlanFrame => usePlan((p) => p.frames[0] as PlanFrame);

/**
 * What is typed in a field whose figure comes from the plan, until it is taken and the plan
 * that follows from it is shown: the field never says the old figure again in between.
 */
export function useTyped() {
  const open = useOpen();
  const { of } = use(Shown);
  const [typed, setTyped] = useState<string>();
  const [taken, take] = useState<string>();
  useEffect(() => {
    if (taken === undefined || of !== open.documents.current()) return;
    setTyped((now) => (now === taken ? undefined : now));
    take(undefined);
  }, [taken, of, open]);
  return { typed, setTyped, taken, take };
}

/** What is picked, and how to pick. */
export function usePicked(): [Picked, (p: Picked) => void] {
  const open = useOpen();
  return [useOpenState((s) => s.picked), open.pick];
}

/** The joints that are marked, and how to mark. */
export function useMarked(): [string[], (joints: string[]) => void] {
  const open = useOpen();
  return [useOpenState((s) => s.marked), open.mark];
}

/** A direction pressed on the frame, for the walk that is being typed, and how to press one. */
export function useWay(): [string | undefined, (way: string | undefined) => void] {
  const open = useOpen();
  return [useOpenState((s) => s.way), open.toWay];
}

/** What changes the documents. */
export const useDesk = (): Documents => useOpen().documents;

/** Gestures on the frame. */
export const useRun = (): Gestures => useOpen().gestures;

/** Why the gesture that a field asked for last was refused, by the field's id. */
export const useRefusedAt = (at: string): string | undefined => useOpenState((s) => (s.refused?.at === at ? s.refused.what : undefined));

/** The starters, which never change while the page is open. */
export const useStarters = (): Starter[] | undefined =>
  useQuery({ queryKey: ["starters"], queryFn: () => ask(api.GET("/api/starters")), staleTime: Number.POSITIVE_INFINITY }).data;
