import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { SupplierAnswer, Suppliers } from "../../api/client";
import { suppliersOf } from "../../desk/server";
import { useDesk, useNow, useOpen, usePlan, useProject } from "../../desk/use";
import { money, plural } from "../../lib/format";
import { InPlace } from "../../ui/in-place";
import { ExampleMark, NoAnswer } from "../../ui/ui";
import { nameOf } from "./list";

type Offer = SupplierAnswer["offers"][number];

const when = (days?: number) => (days ? `in ${plural(days, "day")}` : "today");

/** Where to buy: all of it from one shop, or the cheapest split, by the day it is needed. */
export function Shops() {
  const [opened, setOpened] = useState(false);
  return (
    <details className="care mt-2" onToggle={(e) => setOpened(e.currentTarget.open)}>
      <summary>Where to buy</summary>
      <OwnSale />
      {opened && <Compare />}
    </details>
  );
}

/** A project may buy elsewhere than the others; it can go back to what they buy by. */
function OwnSale() {
  const desk = useDesk();
  const { several } = useOpen();
  const sale = useProject((p) => p.sale);
  const from = [...new Set((sale?.prices ?? []).map((p) => p.source ?? "").filter((s) => s && s !== "own"))];
  if (!sale || ((sale.prices?.length ?? 0) === 0 && (sale.stock?.length ?? 0) === 0)) return null;
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 py-1">
      <span>
        This {several ? "purchase" : "project"} has{" "}
        {from.length > 0 ? `the prices and sticks of ${from.join(" and ")}` : "prices or sticks of its own"}.
      </span>
      <button type="button" className="link" onClick={() => desk.edit("As every project buys", (p) => ({ ...p, sale: undefined }))}>
        buy as every project does
      </button>
    </p>
  );
}

function Compare() {
  const open = useOpen();
  const now = useNow();
  const plan = usePlan();
  const [days, setDays] = useState<number>();
  const [but, setBut] = useState<string[]>([]);
  const found = useQuery({
    queryKey: ["suppliers", open.id, now.project, now.shop, plan.bill.lines.map((l) => l.got), days, but],
    queryFn: ({ signal }) => suppliersOf(now, { days, but }, { of: open.id, signal }),
    placeholderData: keepPreviousData,
    retry: false,
    staleTime: 60_000,
  });
  const all = found.data?.all ?? [];
  const name = (id: string) => all.find((s) => s.id === id)?.name ?? id;
  return (
    <section aria-label="Shops compared" aria-live="polite" className="grid gap-3 py-2">
      <p className="flex flex-wrap items-center gap-2 text-sm">
        Needed within
        <InPlace
          label="Needed within"
          shown={days === undefined ? "no day set" : plural(days, "day")}
          start={days === undefined ? "" : String(days)}
          className="w-16"
          take={(t) => {
            if (!/^\d{1,3}( ?days?)?$/.test(t.trim())) throw new Error("Write how many days, like 3; 0 is today");
            setDays(Number.parseInt(t, 10));
          }}
        />
        {days !== undefined && (
          <button type="button" className="link" onClick={() => setDays(undefined)}>
            whenever
          </button>
        )}
        {but.length > 0 && (
          <button type="button" className="link" onClick={() => setBut([])}>
            ask all again
          </button>
        )}
      </p>
      {found.isFetching && !found.data && <p className="text-ink-2">Asking the shops …</p>}
      {found.error && <NoAnswer error={found.error} retry={() => void found.refetch()} />}
      <ul className="grid gap-2">
        {all.map((s) => (
          <Shop key={s.id} of={s} late={days !== undefined && (s.days ?? 0) > days} onLeave={() => setBut([...but, s.id])} />
        ))}
      </ul>
      {found.data && all.length > 1 && <Split of={found.data} name={name} />}
      <p className="text-sm text-ink-2">
        Shops marked as made up are simulated: they show how comparing works, and nothing is asked over the network. A price list of your
        own comes in on the Prices page.
      </p>
    </section>
  );
}

/** All of it from one shop. */
function Shop({ of: s, late, onLeave }: { of: SupplierAnswer; late: boolean; onLeave: () => void }) {
  const desk = useDesk();
  const at = s.at;
  return (
    <li className="grid gap-1 border-t border-rule pt-2">
      <span className="flex flex-wrap items-baseline justify-between gap-x-3">
        <strong>
          {s.name}
          {s.example && <ExampleMark short />}
        </strong>
        <strong className="text-lg">{at ? money(at.total) : ""}</strong>
      </span>
      {s.why && (
        <span role="alert" className="font-semibold text-warn">
          Not asked: {s.why}.
        </span>
      )}
      {at && (
        <span className="text-sm">
          {s.about && `${s.about}; `}
          {when(s.days)}
          {late && <strong className="text-warn">, too late</strong>}; {plural(at.sticks, "stick")}
          {at.shipping > 0 && `; ${money(at.shipping)} of it for sending`}
          {at.cuts > 0 && `; ${money(at.cuts)} for cuts in the shop, by the fee that you said`}
          {at.tax > 0 && `; ${money(at.tax)} tax`}
        </span>
      )}
      {at && at.missing.length > 0 && (
        <span className="text-sm font-semibold text-warn">
          It has not: {at.missing.map((m) => `${m.count} × ${nameOf(m)}`).join(", ")}.
        </span>
      )}
      <span className="flex flex-wrap gap-2">
        {at && (
          <button
            type="button"
            className="btn btn-small btn-fix"
            onClick={() => desk.edit(`Bought at ${s.name}`, (p) => ({ ...p, sale: saleOf(s.offers, s, p.sale) }))}
          >
            Buy at {s.name}
          </button>
        )}
        <button type="button" className="btn btn-small" aria-label={`Leave it out: ${s.name}`} onClick={onLeave}>
          Leave it out
        </button>
      </span>
    </li>
  );
}

type Sale = { stock?: { size?: string; length: number }[]; prices?: unknown[] };

/** What is on sale for this project alone, as a shop sells it: no other project buys there for that. */
function saleOf<T extends Sale | undefined>(offers: Offer[], s: SupplierAnswer, was: T): T {
  const stock = new Map<string, { size?: string; length: number }>();
  for (const o of offers) if (o.ware === "pipe") stock.set(`${o.size} ${o.length}`, { size: o.size, length: o.length ?? 0 });
  const prices = offers.map(({ stock: _, ...o }) => ({ ...o, source: s.name, date: s.date, example: s.example }));
  return { ...was, ...(stock.size > 0 ? { stock: [...stock.values()] } : {}), prices } as unknown as T;
}

/** The cheapest split. */
function Split({ of, name }: { of: Suppliers; name: (id: string) => string }) {
  const { split } = of;
  return (
    <div className="grid gap-1 border-t-2 border-ink pt-2">
      <span className="flex flex-wrap items-baseline justify-between gap-x-3">
        <strong>
          {split.from.length > 1
            ? "Cheapest split"
            : split.from.length === 1
              ? `Cheapest: all at ${name(split.from[0] ?? "")}`
              : "Nobody has it"}
        </strong>
        <strong className="text-lg">{money(split.total)}</strong>
      </span>
      <span className="text-sm">
        {when(split.days)}; {plural(split.sticks, "stick")}
        {split.shipping > 0 && `; ${money(split.shipping)} of it for sending`}
        {split.cuts > 0 && `; ${money(split.cuts)} for cuts in the shop`}
        {split.tax > 0 && `; ${money(split.tax)} tax`}
      </span>
      {split.missing.length > 0 && (
        <span className="text-sm font-semibold text-warn">
          Not to be had: {split.missing.map((m) => `${m.count} × ${nameOf(m)}`).join(", ")}.
        </span>
      )}
      {split.from.length > 1 &&
        split.from.map((id) => (
          <details key={id} className="text-sm">
            <summary className="cursor-pointer">
              {name(id)}: {money(split.taken.filter((t) => t.supplier === id).reduce((n, t) => n + t.amount, 0))}
            </summary>
            <ul className="pl-4">
              {split.taken
                .filter((t) => t.supplier === id)
                .map((t) => (
                  <li key={t.label}>
                    {t.count} × {nameOf(t)}, {money(t.amount)}
                  </li>
                ))}
            </ul>
          </details>
        ))}
    </div>
  );
}
