import { useQuery } from "@tanstack/react-query";
import { type ReactNode, createContext, use, useState } from "react";
import { mistakesOf, savingsOf } from "../../desk/server";
import { useNow, useOpen, usePlan } from "../../desk/use";

interface Asked {
  savings: boolean;
  typed: boolean;
  mistakes: boolean;
  ask: (what: Partial<Omit<Asked, "ask">>) => void;
}

const Context = createContext<Asked>({ savings: false, typed: false, mistakes: false, ask: () => {} });

/** What was asked of the engine on this sheet: its answers show beside what they are about, and in their own section. */
export function AskedProvider({ children }: { children: ReactNode }) {
  const [asked, setAsked] = useState({ savings: false, typed: false, mistakes: false });
  return <Context value={{ ...asked, ask: (what) => setAsked((was) => ({ ...was, ...what })) }}>{children}</Context>;
}

export const useAsked = () => use(Context);

/** Small changes that save, and repairs of knife edges: looked for at once where there is one, else when it is asked for. */
export function useSavings() {
  const open = useOpen();
  const now = useNow();
  const plan = usePlan();
  const { savings, typed } = useAsked();
  const edge = plan.pipe.some((t) => (t.stock.edges ?? 0) > 0);
  const found = useQuery({
    queryKey: ["savings", open.id, now.project, now.shop, plan.pipe.map((t) => t.basis), typed],
    queryFn: ({ signal }) => savingsOf(now, { of: open.id, typed, signal }),
    enabled: (savings || edge) && plan.pipe.length > 0,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return { found, edge };
}

/** What each spoilt cut would cost, when it is asked for. */
export function useMistakes() {
  const open = useOpen();
  const now = useNow();
  const plan = usePlan();
  const { mistakes } = useAsked();
  return useQuery({
    queryKey: [
      "mistakes",
      open.id,
      now.project,
      now.shop,
      plan.pipe.map((t) => [t.basis, t.sticks.map((s) => s.pieces.map((p) => p.cut))]),
    ],
    queryFn: ({ signal }) => mistakesOf(now, { of: open.id, signal }),
    enabled: mistakes,
    staleTime: Number.POSITIVE_INFINITY,
  });
}
