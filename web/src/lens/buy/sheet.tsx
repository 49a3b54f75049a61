import type { Plan } from "../../api/client";
import { takingBack, lotsOf, withOutgoing } from "../../desk/doing";
import { useOpen, useOpenState, usePlan, useProject, useStyle } from "../../desk/use";
import { type Style, money, plural } from "../../lib/format";
import { ExampleMark, Head } from "../../ui/ui";
import { Unsent } from "../unsent";
import { Haul } from "./haul";
import { type Ware, aislesOf, lengthName, nameOf } from "./list";
import { BarsOnSale, OnSale } from "./on-sale";
import { WareRow } from "./row";
import { CementSchool, SpareRule } from "./rules";
import { SaidOnce, Scope } from "./scope";
import { Shops } from "./shops";
import { Slip } from "./slip";
import { Total } from "./total";
import { WhatIf } from "./what-if";
import { Worth } from "./worth";

/** What do I buy? A list in the order of a walk through the shop, to be ticked off. */
export default function BuySheet() {
  const open = useOpen();
  const project = useProject();
  const plan = usePlan();
  const out = useOpenState((s) => s.outgoing.events);
  const emptied = useOpenState((s) => s.emptied);
  const style = useStyle();
  const aisles = aislesOf(plan);
  const wares = aisles.flatMap((a) => a.wares);
  const done = withOutgoing(out);
  const got = wares.filter((w) => done.got(w.line) >= w.line.count).length;
  const back = wares.flatMap((w) => takingBack(lotsOf(w.line, out), Number.POSITIVE_INFINITY));
  const b = plan.bill;
  if (wares.length === 0 && plan.extra.length === 0) return <p className="text-lg">Nothing to buy: everything is at hand.</p>;
  return (
    <section aria-labelledby="buy-head">
      <Unsent />
      <Head id="buy-head" title="What to buy">
        <span className="font-display text-2xl font-bold">
          {b.from < b.total ? `${money(b.from)}–${money(b.total)}` : money(b.total)}
          {b.example && <ExampleMark />}
        </span>
      </Head>
      <div className="flex min-h-6 items-center justify-between gap-3 text-sm" role="status">
        <span>{got === wares.length ? "Everything is there." : `${got} of ${plural(wares.length, "line")} ticked`}</span>
        {project.copies > 1 && (
          <span className="text-ink-2">
            for {project.copies} copies, {money(Math.round(b.total / project.copies))} each
          </span>
        )}
        <button
          type="button"
          className="link"
          // it keeps its place, so that the first tick moves nothing
          style={{ visibility: back.length > 0 ? undefined : "hidden" }}
          onClick={() => open.emptyCart(back)}
        >
          Empty the cart
        </button>
        {emptied && emptied.length > 0 && (
          <button type="button" className="btn btn-small" onClick={open.fillCart}>
            Put it all back
          </button>
        )}
      </div>
      <SaidOnce />
      {aisles.map((a) => (
        <section key={a.name} aria-label={a.name} className="mt-3">
          <h3 className="aisle">{a.name}</h3>
          {a.name === "Parts of your own" && (
            <p className="text-sm text-ink-2">
              On no shelf here: made at home, or bought where you have them from. A price counts as soon as it is typed.
            </p>
          )}
          {a.name === "Cement" && <CementSchool />}
          <ul className="long">
            {a.wares.map((w) => (
              <WareRow key={w.key} ware={w} />
            ))}
          </ul>
          {a.name === "Pipe" && plan.pipe.map((t) => <OnSale key={t.size} size={t.size} />)}
          {a.name === "Pipe" && <Haul />}
          {a.name === "Pipe" && <Slip />}
          {a.name === "Fittings" && <SpareRule />}
          {a.name === "Sold by the length" && kindsOf(a.wares, style).map((w) => <BarsOnSale key={w.label} of={w} />)}
        </section>
      ))}
      <HomeMade plan={plan} />
      <TooMany />
      <ForOthers />
      <Scope />
      <Total />
      <Shops />
      <Worth />
      <WhatIf />
    </section>
  );
}

/** Of what is sold by the length, each kind and thickness once. */
function kindsOf(wares: Ware[], style: Style) {
  const by = new Map<string, { kind?: string; diameter?: number; label: string }>();
  for (const { line: l } of wares) by.set(`${l.kind} ${l.diameter}`, { kind: l.kind, diameter: l.diameter, label: lengthName(l, style) });
  return [...by.values()];
}

/** What is cut from pipe that is left, and so is on no shelf. */
function HomeMade({ plan }: { plan: Plan }) {
  const made = plan.bars
    .filter((b) => b.ware === "pipe")
    .flatMap((b) => {
      const by = new Map<string, number>();
      for (const s of b.stock.sticks) for (const p of s.pieces) by.set(p.name ?? "piece", (by.get(p.name ?? "piece") ?? 0) + 1);
      return [...by];
    });
  if (made.length === 0) return null;
  return (
    <section aria-label="Made at home" className="mt-3">
      <h3 className="aisle">Made at home, from what the sticks leave</h3>
      <ul>
        {made.map(([name, n]) => (
          <li key={name} className="border-b border-rule py-1">
            <strong>{n}×</strong> {name}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was bought at once with other projects, as this one knows it. */
function ForOthers() {
  const { others } = usePlan();
  if (others.length === 0) return null;
  return (
    <section aria-label="Bought for several jobs" className="mt-3">
      <h3 className="aisle">Bought for several jobs</h3>
      <ul>
        {others.map((o) => (
          <li key={o.label} className="border-b border-rule py-1">
            <strong>{o.count}</strong> × {nameOf(o)} bought for {o.jobs} jobs, <strong>{o.own}</strong> of them for this.
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What was bought and is more than the plan needs. */
function TooMany() {
  const open = useOpen();
  const { extra } = usePlan();
  const out = useOpenState((s) => s.outgoing.events);
  if (extra.length === 0) return null;
  return (
    <section aria-label="More than the plan needs" className="mt-3">
      <h3 className="aisle">More than the plan needs</h3>
      <ul>
        {extra.map((x) => {
          // what says so on its way is not said again
          const left = x.back.filter((e) => e.event && !out.some((o) => o.event === e.event && o.item === e.item));
          return (
            <li key={x.label} className="flex items-center justify-between gap-3 border-b border-rule py-1">
              <span>
                <strong>{x.count}</strong> too many: {nameOf(x)}
              </span>
              {left.length > 0 && (
                <button
                  type="button"
                  className="btn btn-small"
                  onClick={() => open.say(...left.map(({ kind, event, item, count }) => ({ kind, event, item, count })))}
                >
                  Taken back to the shop
                </button>
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
