import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import type { Finding, Fix, Plan } from "../api/client";
import { Len, type Style, feet, money } from "../lib/format";
import { ExampleMark } from "../ui/ui";
import { type Cell as CellName, type Change, changes } from "./changes";
import { Findings } from "./findings";

interface Props {
  plan: Plan;
  before?: Plan;
  /** What was done last, in words. */
  last?: string;
  style: Style;
  old: boolean;
  onShow: (f: Finding) => void;
  onFix: (f: Finding, x: Fix) => void;
}

/** The job in one line, on a ruled tape along the bottom, with the difference the last change made. */
export function Tape({ plan, before, last, style, old, onShow, onFix }: Props) {
  const f = plan.frames[0];
  const d = before && before !== plan ? changes(before, plan, style) : {};
  const still = plan.improving && !plan.totals.proven ? "The purchase is still improving. " : "";
  const said = (Object.keys(d) as CellName[]).map((k) => d[k]?.words).join(", ");
  const grave = plan.findings.filter((x) => x.severity === "stop").length;
  const mind = plan.findings.filter((x) => x.severity === "warn" || x.severity === "question").length;
  return (
    <section aria-label="The job in one line" className={`tape no-print ${old ? "is-old" : ""}`}>
      {f && (
        <Cell label="outside" change={d.outside} className="max-md:hidden">
          {f.overall.map((e, i) => (
            <span key={e.axis}>
              {i > 0 && <span className="text-ink-2"> × </span>}
              <Len nm={e.size} style={style} />
            </span>
          ))}
        </Cell>
      )}
      <Cell label="pipe" change={d.pipe} className="max-sm:hidden">
        {feet(plan.totals.net)} ft
      </Cell>
      <Cell label="sticks" change={d.sticks}>
        {plan.totals.sticks}
        {plan.improving && !plan.totals.proven && (
          <span className="improving" title="A first purchase that will do; a better one is looked for">
            {" "}
            at most
          </span>
        )}
      </Cell>
      <Cell label="fittings" change={d.fittings} className="max-sm:hidden">
        {plan.totals.fittings}
      </Cell>
      <Cell label="cemented / dry" change={d.joints}>
        <span className="collar-mark" aria-hidden="true" /> {plan.totals.cemented} <span className="text-ink-2">/</span> <span className="ring-mark" aria-hidden="true" /> {plan.totals.dry}
      </Cell>
      <Cell label="cost" change={d.cost} good={d.cost && !d.cost.more}>
        {money(plan.bill.total)}
        {plan.bill.example && <ExampleMark />}
      </Cell>
      <Popover.Root>
        <Popover.Trigger className="tape-cell tape-press">
          <span className="tape-label">findings</span>
          <span className={`tape-figure ${grave ? "text-bad" : mind ? "text-warn" : ""}`}>
            {plan.findings.length || "none"}
            {grave > 0 && <span aria-hidden="true"> ✕</span>}
          </span>
          <span className="tape-change">{d.findings?.words}</span>
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content side="top" align="end" sideOffset={10} collisionPadding={12} className="note max-h-[60vh] w-96 max-w-[92vw] overflow-auto" aria-label="What the plan noticed">
            <Findings of={plan.findings} onShow={onShow} onFix={onFix} />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {last && (
        <p className="tape-last" title={last}>
          {last}
        </p>
      )}
      <p role="status" className="sr-only">
        {still}
        {last && said ? `${last}: ${said}` : ""}
      </p>
    </section>
  );
}

/** One figure, and what the last change did to it. */
function Cell({ label, change, good, className, children }: { label: string; change?: Change; good?: boolean; className?: string; children: ReactNode }) {
  return (
    <div className={`tape-cell ${className ?? ""}`}>
      <span className="tape-label">{label}</span>
      <span className="tape-figure">{children}</span>
      <span className={`tape-change ${good ? "text-good" : ""}`} key={change?.words}>
        {change?.words}
      </span>
    </div>
  );
}
