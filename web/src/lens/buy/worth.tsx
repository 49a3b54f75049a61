import { readPrices } from "../../prices/read";
import type { Project } from "../../api/client";
import { useDesk, useOpen, usePlan, useProject } from "../../desk/use";
import { money, plural } from "../../lib/format";
import { InPlace } from "../../ui/in-place";
import { nameOf } from "./list";
import { CheaperWays } from "./cheaper-ways";
import { Cheaper } from "./not-here";

type Terms = NonNullable<Project["terms"]>;

/** The bill against what the builder holds it against: a budget, uses, one that is bought, tools. */
export function Worth() {
  const { id } = useOpen();
  const desk = useDesk();
  const plan = usePlan();
  const terms = useProject((p) => p.terms) ?? {};
  const w = plan.worth;
  const largest = plan.bill.lines.find((l) => l.label === w.largest);
  const set = (label: string, by: Partial<Terms>) => desk.edit(label, (p) => ({ ...p, terms: { ...p.terms, ...by } }));
  const amount = (key: "budget" | "bought" | "tools", label: string, none: string) => (
    <div>
      <dt>{label}</dt>
      <dd>
        <InPlace
          label={label}
          keep={`worth.${id}.${key}`}
          shown={terms[key] ? money(terms[key]) : none}
          start={terms[key] ? (terms[key] / 100).toFixed(2) : ""}
          take={async (t) => {
            const [read] = await readPrices(t);
            set(`${label} ${t}`, { [key]: read?.amount || undefined });
          }}
        />
      </dd>
    </div>
  );
  return (
    <details className="care mt-4">
      <summary>What it is worth</summary>
      <dl className="sum pt-2">
        {amount("budget", "Budget", "none set")}
        {amount("bought", "One like it, bought", "not said")}
        {amount("tools", "Tools bought for it", "none")}
        <div>
          <dt>Uses of one before it is worn out</dt>
          <dd>
            <InPlace
              label="Uses"
              shown={terms.uses || "not said"}
              start={terms.uses ? String(terms.uses) : ""}
              take={(t) => {
                if (!/^\d{1,7}$/.test(t)) throw new Error("Write how often, like 200");
                set(`Uses ${t}`, { uses: Number(t) || undefined });
              }}
            />
          </dd>
        </div>
      </dl>
      <ul className="grid gap-1 py-2">
        {w.copies > 1 && (
          <li>
            {money(w.each)} a copy, {plural(w.copies, "copy", "copies")}.
          </li>
        )}
        {(w.optional ?? 0) > 0 && (
          <li>
            {money(w.base)} without what could be left out, which is {money(w.optional ?? 0)}.
          </li>
        )}
        {w.largest && w.share ? (
          <li>
            {Math.round(100 * w.share)} % of it is one line: {largest ? nameOf(largest) : w.largest}.
            {largest?.ware === "fitting" && <Cheaper line={largest} />}
            {largest && largest.ware !== "fitting" && <CheaperWays size={largest.size || plan.pipe[0]?.size || ""} />}
          </li>
        ) : null}
        {(w.perUse ?? 0) > 0 && <li>{money(w.perUse ?? 0)} a use.</li>}
        {w.budgeted && (
          <li className={(w.over ?? 0) > 0 ? "font-semibold text-bad" : ""}>
            {(w.over ?? 0) > 0 ? `${money(w.over ?? 0)} over the budget.` : `${money(-(w.over ?? 0))} of the budget is left.`}
          </li>
        )}
        {w.against && (
          <li className={(w.saves ?? 0) < 0 ? "font-semibold text-warn" : ""}>
            {(w.saves ?? 0) >= 0
              ? `${money(w.saves ?? 0)} less than ${w.copies > 1 ? `${w.copies} of them bought` : "a bought one"}.`
              : `${money(-(w.saves ?? 0))} more than ${w.copies > 1 ? `${w.copies} of them bought` : "a bought one"}.`}
            {(w.tools ?? 0) > 0 &&
              (w.paysAt
                ? ` The tools are paid for with ${plural(w.paysAt, "copy", "copies")}.`
                : " No number of copies pays for the tools.")}
          </li>
        )}
      </ul>
    </details>
  );
}
