import type { Plan } from "../../api/client";
import { type Style, feet, plural } from "../../lib/format";
import { Head } from "../../ui/ui";
import { lengthName } from "../buy/list";
import { Sticks, type Under } from "./sticks";

/** What is cut from something else that is sold by the length: rod for axles, rope, webbing. Each length is told with what is cut from it. */
export function OfBar({ of: b, under, style }: { of: Plan["bars"][number]; under: Under; style: Style }) {
  const name = lengthName(b, style);
  const sawn = Boolean(b.diameter) && b.stock.kerf > 0;
  return (
    <section aria-label={`Lengths of ${name}`} className="grid gap-2">
      <Head
        title={`${name.charAt(0).toUpperCase()}${name.slice(1)}: ${b.stock.buy.map((x) => `${x.count} × ${feet(x.length)} ft`).join(" and ") || "from what is there"}`}
        id={`bar-${b.label}`}
      >
        <span className="text-sm text-ink-2">
          {plural(
            b.stock.sticks.reduce((n, s) => n + s.pieces.length, 0),
            "piece",
          )}
        </span>
      </Head>
      {/* what is cut with a knife needs no stop */}
      <Sticks
        sticks={b.stock.sticks}
        style={style}
        under={sawn || under !== "stops" ? under : "none"}
        called={["Length", "Lengths"]}
        tinted
      />
    </section>
  );
}

/** Those of a plan that are cut so; what is cut from leftovers of pipe is drawn with the pipe. */
export const barsOf = (plan: Plan) => plan.bars.filter((b) => b.ware !== "pipe" && b.stock.sticks.length > 0);
