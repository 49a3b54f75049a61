import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type Mistakes, Refusal } from "../../api/client";
import { mistakesOf } from "../../desk/server";
import { useNow, useOpen, usePlan, useStyle } from "../../desk/use";
import { Len, money, plural } from "../../lib/format";
import { sizeWords } from "../../lib/words";
import { Head } from "../../ui/ui";

/** What a spoilt cut would cost, and in which order spoilt cuts cost least. */
export function Spoilt() {
  const open = useOpen();
  const now = useNow();
  const plan = usePlan();
  const [asked, setAsked] = useState(false);
  const found = useQuery({
    queryKey: ["mistakes", open.id, now.project, now.shop, plan.pipe.map((t) => t.basis), plan.cuts.map((c) => c.done)],
    queryFn: ({ signal }) => mistakesOf(now, { of: open.id, signal }),
    enabled: asked,
    staleTime: Number.POSITIVE_INFINITY,
  });
  return (
    <section aria-labelledby="spoilt-head" className="grid gap-2">
      <Head id="spoilt-head" title="If a cut goes wrong" />
      {!asked && (
        <p>
          <button type="button" className="btn" onClick={() => setAsked(true)}>
            What would each spoilt cut cost?
          </button>
        </p>
      )}
      {found.isFetching && (
        <p role="status" className="text-ink-2">
          Spoiling every cut once, on paper …
        </p>
      )}
      {found.error && (
        <p role="alert" className="font-semibold text-bad">
          {found.error instanceof Refusal ? found.error.message : "The server does not answer."}
        </p>
      )}
      {found.data?.map((m) => (
        <OfSize key={m.size} of={m} />
      ))}
    </section>
  );
}

type Mistake = Mistakes["stand"][number];

const worth = (m: Mistake) => m.sticks > 0 || m.cost > 0;
const costs = (m: Mistake) => (m.cost > 0 ? `${plural(m.sticks, "stick")}, ${money(m.cost)}` : plural(m.sticks, "stick"));

function OfSize({ of: m }: { of: Mistakes }) {
  const style = useStyle();
  if (m.cuts === 0) return null;
  if (m.costly === 0)
    return <p>{sizeWords(m.size)}: no single spoilt cut makes you buy more. What is left of the sticks gives any piece once more.</p>;
  return (
    <div className="grid gap-1">
      <p>
        {sizeWords(m.size)}: {m.costly} of {plural(m.cuts, "cut")} would cost a stick if it is spoilt, cut in the order drawn.
      </p>
      <ul className="grid gap-1">
        {m.stand.filter(worth).map((x) => (
          <li key={`${x.stick} ${x.piece}`}>
            <strong>{x.name}</strong> {x.count > 1 && `(${x.count} of them) `}on stick {x.stick + 1},{" "}
            <Len nm={x.length} style={style} step={64} />: {costs(x)}
            {x.fatal && <strong className="text-warn"> the worst to spoil: measure twice</strong>}
          </li>
        ))}
      </ul>
      {m.safestSticks < m.standSticks && (
        <p>
          {m.exact ? "Safest" : "Safer"} in this order, in which all of them spoilt once would cost {m.safestSticks} and not{" "}
          {plural(m.standSticks, "stick")}:{" "}
          {m.safest.map((x) => `${x.count > 1 ? `${x.count} × ` : ""}${x.name} from stick ${x.stick + 1}`).join(", ")}.
        </p>
      )}
    </div>
  );
}
