import { type Mistakes, Refusal } from "../../api/client";
import { useStyle } from "../../desk/use";
import { Len, money, plural } from "../../lib/format";
import { sizeWords } from "../../lib/words";
import { Head } from "../../ui/ui";
import { useAsked, useMistakes } from "./asked";

/** What a spoilt cut would cost, and in which order spoilt cuts cost least. */
export function Spoilt() {
  const { mistakes: asked, ask } = useAsked();
  const found = useMistakes();
  return (
    <section aria-labelledby="spoilt-head" className="no-print grid gap-2">
      <Head id="spoilt-head" title="If a cut goes wrong" />
      {!asked && (
        <p>
          <button type="button" className="btn" onClick={() => ask({ mistakes: true })}>
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
