import { Popover } from "radix-ui";
import { type ReactNode, useRef } from "react";
import type { Finding, Plan } from "../api/client";
import type { Desk } from "../desk/history";
import { useOpen, useOpenState, useStyle } from "../desk/use";
import { named, namesOf } from "../frame/names";
import { Len, feet, money } from "../lib/format";
import { ExampleMark } from "../ui/ui";
import { type Cell as CellName, type Change, changes } from "./changes";
import { Findings } from "./findings";

/** The job in one line, on a ruled tape along the bottom, with the difference the last change made. It shows the newest plan, whatever else is still being drawn. */
export function Tape({ onCut, onLines }: { onCut: () => void; onLines: () => void }) {
  const { plan, old } = useOpenState((s) => s.planned);
  const since = useOpenState((s) => s.history?.since);
  const before = useBefore(since, plan);
  return plan && <Line plan={plan} before={before} old={old} onCut={onCut} onLines={onLines} />;
}

/** The plan as it was before the last thing done; a run of changes of one size counts as one thing. */
function useBefore(since: Desk | undefined, plan: Plan | undefined): Plan | undefined {
  const kept = useRef<{ since?: Desk; plan?: Plan }>({});
  if (kept.current.since !== since) kept.current = { since, plan };
  return since ? kept.current.plan : undefined;
}

function Line({ plan, before, old, onCut, onLines }: { plan: Plan; before?: Plan; old: boolean; onCut: () => void; onLines: () => void }) {
  const open = useOpen();
  const style = useStyle();
  const kept = useOpenState((s) => s.history?.last);
  const last = kept && named(kept, namesOf(plan.frames[0]));
  const onShow = (f: Finding) => {
    const frame = plan.frames[0];
    const subject = f.subjects
      .map((s) => s.id)
      .find((s) => frame?.pipes.some((p) => p.pipe === s) || frame?.joints.some((j) => j.id === s));
    if (subject) open.pick({ is: frame?.pipes.some((p) => p.pipe === subject) ? "pipe" : "joint", id: subject });
    else onCut();
  };
  const f = plan.frames[0];
  const d = before && before !== plan ? changes(before, plan, style) : {};
  const still = plan.improving && !plan.totals.proven ? "The purchase is still improving. " : "";
  const said = (Object.keys(d) as CellName[]).map((k) => d[k]?.words).join(", ");
  const grave = plan.findings.filter((x) => x.severity === "stop").length;
  const mind = plan.findings.filter((x) => x.severity === "warn" || x.severity === "question").length;
  return (
    <section aria-label="The job in one line" className={`tape no-print ${old ? "is-old" : ""}`}>
      {f?.waiting && (
        <button type="button" className="tape-cell tape-press" onClick={onLines}>
          <span className="tape-label">unfinished</span>
          <span className="tape-figure text-bad">{f.waiting.words}</span>
          <span className="tape-change">to the lines</span>
        </button>
      )}
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
        {plan.totals.bought > 0 && (
          <small className="tape-done"> {plan.totals.bought >= plan.totals.sticks ? "all bought" : `${plan.totals.bought} bought`}</small>
        )}
        {plan.improving && !plan.totals.proven && (
          <span className="improving" title="A first purchase that will do; a better one is looked for">
            {" "}
            at most
          </span>
        )}
      </Cell>
      {plan.begun && plan.totals.pieces > 0 && (
        <Cell label="cut" className="max-sm:hidden">
          {plan.totals.cut}
          <small className="tape-done"> of {plan.totals.pieces}</small>
        </Cell>
      )}
      <Cell label="fittings" change={d.fittings} className="max-sm:hidden">
        {plan.totals.fittings}
      </Cell>
      <Cell label="cemented / dry" change={d.joints} className={f?.waiting ? "max-sm:hidden" : undefined}>
        <span className="collar-mark" aria-hidden="true" /> {plan.totals.cemented} <span className="text-ink-2">/</span>{" "}
        <span className="ring-mark" aria-hidden="true" /> {plan.totals.dry}
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
          <Popover.Content
            side="top"
            align="end"
            sideOffset={10}
            collisionPadding={12}
            className="note max-h-[60vh] w-96 max-w-[92vw] overflow-auto"
            aria-label="What the plan noticed"
          >
            <Findings of={plan.findings} onShow={onShow} onFix={open.fix} />
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
function Cell({
  label,
  change,
  good,
  className,
  children,
}: {
  label: string;
  change?: Change;
  good?: boolean;
  className?: string;
  children: ReactNode;
}) {
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
