import type { ReactNode } from "react";
import type { Plan } from "../api/client";
import { Len, type Style, feet, money } from "../lib/format";
import { ExampleMark } from "./sheets";

/** The job in one line, on a ruled tape along the bottom. */
export function Tape({ plan, style, old }: { plan: Plan; style: Style; old: boolean }) {
  const f = plan.frames[0];
  const grave = plan.findings.filter((x) => x.severity === "stop").length;
  return (
    <section aria-label="The job in one line" className={`ruled tape no-print sticky bottom-0 z-10 flex flex-wrap items-end gap-x-4 gap-y-1 border-t-2 border-ink px-4 pt-3 pb-2 sm:gap-x-7 ${old ? "text-ink-2" : ""}`}>
      {f && (
        <Cell label="outside" wide>
          {f.overall.map((e, i) => (
            <span key={e.axis}>
              {i > 0 && <span className="text-ink-2"> × </span>}
              <Len nm={e.size} style={style} />
            </span>
          ))}
        </Cell>
      )}
      <Cell label="pipe" wide>{feet(plan.totals.net)} ft</Cell>
      <Cell label="sticks">{plan.totals.sticks}</Cell>
      <Cell label="fittings" wide>{plan.totals.fittings}</Cell>
      <Cell label="cemented / dry">
        <span className="text-cement">●</span> {plan.totals.cemented} <span aria-hidden="true">/ ○</span> {plan.totals.dry}
      </Cell>
      <Cell label="cost">
        {money(plan.bill.total)}
        {plan.bill.example && <ExampleMark />}
      </Cell>
      <Cell label="findings">
        <span className={grave ? "text-bad" : ""}>{plan.findings.length || "none"}</span>
      </Cell>
    </section>
  );
}

/** One figure; the wide ones give way on a phone. */
function Cell({ label, wide, children }: { label: string; wide?: boolean; children: ReactNode }) {
  return (
    <div className={`leading-tight ${wide ? "hidden sm:block" : ""}`}>
      <div className="text-xs text-ink-2">{label}</div>
      <div className="font-display text-lg font-semibold">{children}</div>
    </div>
  );
}
