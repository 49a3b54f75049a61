import { useRef } from "react";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { type PlanAnswer, type Project, Refusal, api, ask } from "../api/client";

export interface Planned {
  answer?: PlanAnswer;
  /** What is wrong, by the place's path in the request. */
  places: Record<string, string>;
  /** The plan shown is of an earlier, readable state. */
  old: boolean;
  failure?: string;
  retry: () => void;
}

/** Plans a project each time it changes; the last good plan stays on screen. */
export function usePlan(project: Project | undefined, shopRevision: number): Planned {
  const q = useQuery<PlanAnswer | Refusal>({
    queryKey: ["plan", project, shopRevision],
    enabled: project !== undefined,
    placeholderData: keepPreviousData,
    retry: false,
    refetchInterval: (q) => (q.state.status === "error" ? 3000 : false),
    gcTime: 30_000,
    queryFn: async ({ signal }): Promise<PlanAnswer | Refusal> => {
      try {
        return await ask(api.POST("/api/plan", { body: { project: project as Project }, signal }));
      } catch (e) {
        // a refusal is an answer too: it must not wipe the plan on screen
        if (e instanceof Refusal && e.status === 422) return e;
        throw e;
      }
    },
  });
  const refusal = q.data instanceof Refusal ? q.data : undefined;
  const good = useLast(q.data instanceof Refusal ? undefined : q.data);
  return {
    answer: good,
    places: refusal?.places ?? {},
    old: refusal !== undefined,
    failure: q.error ? "The server does not answer. What you typed is kept here; it is tried again." : undefined,
    retry: () => void q.refetch(),
  };
}

function useLast<T>(value: T | undefined): T | undefined {
  const last = useRef<T>(undefined);
  if (value !== undefined) last.current = value;
  return last.current;
}
