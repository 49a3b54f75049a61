import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { cheaperOf } from "../../desk/server";
import { useNow, useOpen, usePlan } from "../../desk/use";
import { money, plural } from "../../lib/format";
import { NoAnswer } from "../../ui/ui";

/** No fitting is what costs most: what other sticks of its size, another tool, another cement or another size of pipe save. */
export function CheaperWays({ size }: { size: string }) {
  const open = useOpen();
  const now = useNow();
  const plan = usePlan();
  const [asked, setAsked] = useState(false);
  const found = useQuery({
    queryKey: ["cheaper ways", open.id, now.project, now.shop, plan.begun, size],
    queryFn: ({ signal }) => cheaperOf(now, size, { of: open.id, signal }),
    enabled: asked,
    staleTime: Number.POSITIVE_INFINITY,
  });
  if (!asked)
    return (
      <p>
        <button type="button" className="btn btn-small" onClick={() => setAsked(true)}>
          What other sticks, tools, cement or sizes save
        </button>
      </p>
    );
  return (
    <section aria-label="Other ways" className="grid gap-2" aria-live="polite">
      {found.isFetching && <p className="text-ink-2">Planning it in other sticks, with other tools and cement, and of other sizes …</p>}
      {found.error && <NoAnswer error={found.error} retry={() => void found.refetch()} />}
      {found.data?.length === 0 && (
        <p>Nothing costs less: neither the lengths that have a price, nor another tool, another cement or another size of pipe.</p>
      )}
      <ul className="grid gap-1">
        {found.data?.map((w) => (
          <li key={w.words} className="flex flex-wrap items-center justify-between gap-x-3 border-t border-rule pt-1">
            <span>
              {w.fix.label}: <strong>{money(w.saves)} less</strong>
              {w.sticks !== 0 && `, ${plural(Math.abs(w.sticks), "stick")} ${w.sticks > 0 ? "more" : "fewer"}`}
              {w.warns > 0 && <strong className="text-warn">, {w.warns} more to look at</strong>}
            </span>
            <button
              type="button"
              className="btn btn-small btn-fix"
              aria-label={`Take it: ${w.words}`}
              onClick={() => {
                open.fix(w.fix);
                setAsked(false);
              }}
            >
              Take it
            </button>
          </li>
        ))}
      </ul>
      {found.data?.some((w) => w.size) && (
        <p className="text-sm text-ink-2">Thinner pipe is weaker and bends more: look at what the frame has to carry before you take it.</p>
      )}
      <p>
        <button type="button" className="btn btn-small" onClick={() => setAsked(false)}>
          Leave it
        </button>
      </p>
    </section>
  );
}
