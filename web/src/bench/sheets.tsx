import { useMutation } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { type Line, type Plan, type Project, type StoredShop, api, ask } from "../api/client";
import { Len, type Style, feet, money, plural } from "../lib/format";
import { Why } from "../ui/ui";
import { Proof, Sticks } from "./sticks";

interface Props {
  plan: Plan;
  style: Style;
  lit?: string;
  onPick: (letter?: string) => void;
}

/** The cut list: every length with its letter, count and sum. */
export function CutSheet({ plan, style, lit, onPick }: Props) {
  return (
    <section aria-labelledby="cut-head">
      <div className="sheet-head">
        <h2 id="cut-head" className="text-xl">
          Cut
        </h2>
        <span className="text-sm text-ink-2">
          {plural(plan.totals.pieces, "piece")}, {feet(plan.totals.net)} ft of pipe
        </span>
      </div>
      <ul>
        {plan.cuts.map((g) => (
          <li key={g.letter} className={`flex items-center gap-3 border-b border-rule py-1 ${lit === g.letter ? "bg-wood/30" : ""}`}>
            <button type="button" className="tag-letter" aria-pressed={lit === g.letter} aria-label={`Show ${g.letter} on the frame`} onClick={() => onPick(lit === g.letter ? undefined : g.letter)}>
              {g.letter}
            </button>
            <span className="w-10 text-right text-lg">{g.count} ×</span>
            <span className="w-32 font-display text-2xl font-semibold">
              <Why label={`Cut ${g.letter}`} sum={g.sum} total={g.cut} of={<Len nm={g.cut} style={style} step={64} />} />
            </span>
            <span className="text-ink-2">{g.size} pipe</span>
            {g.hidden && <span className="text-sm text-ink-2">hidden nipple: the fittings touch</span>}
            {g.tooShort && <strong className="text-sm text-bad">too short</strong>}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** The sticks to buy and how to cut them. */
export function StickSheet({ plan, style, lit, onPick }: Props) {
  return (
    <section aria-labelledby="sticks-head">
      <div className="sheet-head">
        <h2 id="sticks-head" className="text-xl">
          Sticks
        </h2>
        <span className="text-sm text-ink-2">{plural(plan.totals.sticks, "stick")} to buy</span>
      </div>
      {plan.pipe.map((t) => (
        <div key={t.size} className="mb-4 grid gap-2">
          <h3 className="text-base">
            {t.size} pipe: {t.stock.buy.map((b) => `${b.count} × ${feet(b.length)} ft`).join(" and ") || "nothing to buy"}
          </h3>
          <Sticks of={t.stock} style={style} lit={lit} onPick={onPick} />
          <p className="text-sm">
            {feet(t.stock.net)} ft in pieces, {feet(t.stock.left)} ft left, {feet(t.stock.kerf)} ft to the saw: {Math.round(100 * t.yield)} % used.
          </p>
          <Proof of={t.stock} />
        </div>
      ))}
      <table className="w-full text-sm">
        <caption className="pb-1 text-left font-semibold">The tool decides how many to buy</caption>
        <tbody>
          {plan.tools.map((t) => (
            <tr key={t.id} className={`border-t border-rule ${t.chosen ? "font-bold" : ""}`}>
              <th scope="row" className="py-1 text-left font-[inherit]">
                {t.name}
                {t.chosen && ", yours"}
              </th>
              <td className="text-right">cut <Len nm={t.kerf} style="inches" step={32} /></td>
              <td className="text-right">{plural(t.sticks, "stick")}</td>
              <td className="text-right">{t.priced ? money(t.cost) : "no price"}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

/** Fittings by kind and size. */
export function FittingSheet({ plan }: { plan: Plan }) {
  return (
    <section aria-labelledby="fit-head">
      <div className="sheet-head">
        <h2 id="fit-head" className="text-xl">
          Fittings
        </h2>
        <span className="text-sm text-ink-2">{plan.totals.fittings} in all</span>
      </div>
      <ul>
        {plan.fittings.map((f) => (
          <li key={f.kind + f.size} className="flex gap-3 border-b border-rule py-1">
            <span className="w-10 text-right text-lg">{f.count} ×</span>
            <span className="w-20 font-semibold">{f.size}</span>
            <span>{f.kind}</span>
          </li>
        ))}
      </ul>
    </section>
  );
}

/** Which sockets are cemented and which stay dry, and what that does to the size. */
export function JointSheet({ plan, style }: { plan: Plan; style: Style }) {
  const j = plan.joinery;
  return (
    <section aria-labelledby="joint-head">
      <div className="sheet-head">
        <h2 id="joint-head" className="text-xl">
          Joints
        </h2>
        <span className="text-sm text-ink-2">sockets</span>
      </div>
      <p className="flex gap-6 text-lg">
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-4 rounded-full bg-cement" aria-hidden="true" /> {j.cemented} cemented
        </span>
        <span className="flex items-center gap-2">
          <span className="inline-block h-4 w-4 rounded-full border-[3px] border-ink bg-paper" aria-hidden="true" /> {j.dry} dry
        </span>
      </p>
      {j.cemented > 0 && (
        <p className="text-sm text-ink-2">
          About {j.cement.ounces.toFixed(1)} fl oz of cement and {j.primer.ounces.toFixed(1)} of primer. The can's label wins.
        </p>
      )}
      {plan.frames.map((f) => (
        <table key={f.name} className="mt-2 w-full text-sm">
          <caption className="pb-1 text-left font-semibold">Outside size of the cut frame</caption>
          <tbody>
            {f.seated.map((s) => (
              <tr key={s.state} className="border-t border-rule">
                <th scope="row" className="py-1 text-left font-normal">
                  {s.text}
                </th>
                {s.size.map((v, i) => (
                  <td key={i} className="text-right">
                    <Len nm={v} style={style} />
                  </td>
                ))}
              </tr>
            ))}
            {f.overall[0] && (
              <tr className="border-t-2 border-ink font-bold">
                <th scope="row" className="py-1 text-left">
                  planned
                </th>
                {f.overall.map((e) => (
                  <td key={e.axis} className="text-right">
                    <Why label={`Outside size ${["wide", "deep", "high"][e.axis]}`} sum={e.sum} total={e.size} of={<Len nm={e.size} style={style} />} />
                  </td>
                ))}
              </tr>
            )}
          </tbody>
        </table>
      ))}
    </section>
  );
}

/** What it costs; a price can be typed over in place. */
export function CostSheet({ plan, shop, onSaved }: { plan: Plan; project: Project; shop?: StoredShop; onSaved: () => void }) {
  const b = plan.bill;
  return (
    <section aria-labelledby="cost-head">
      <div className="sheet-head">
        <h2 id="cost-head" className="text-xl">
          Cost
        </h2>
        <span className="font-display text-xl font-bold">
          {money(b.total)}
          {b.example && <ExampleMark />}
        </span>
      </div>
      <table className="w-full text-sm">
        <thead className="sr-only">
          <tr>
            <th>Count</th>
            <th>What</th>
            <th>Each</th>
            <th>Amount</th>
          </tr>
        </thead>
        <tbody>
          {b.lines.map((l) => (
            <tr key={l.label} className="border-b border-rule">
              <td className="w-10 py-1 text-right">{l.count} ×</td>
              <td className="px-2">{l.label}</td>
              <td className="text-right">
                <PriceCell line={l} shop={shop} onSaved={onSaved} />
              </td>
              <td className="text-right">{l.priced ? money(l.amount) : "—"}</td>
            </tr>
          ))}
          <Sum label="Pipe" v={b.pipe} />
          <Sum label="Fittings" v={b.fittings} />
          {b.other > 0 && <Sum label="Cement and primer" v={b.other} />}
          <tr>
            <td />
            <td className="px-2 py-0.5 text-ink-2">Tax</td>
            <td className="text-right">
              <TaxCell shop={shop} onSaved={onSaved} />
            </td>
            <td className="text-right text-ink-2">{money(b.tax)}</td>
          </tr>
          <tr className="border-t-2 border-ink text-base font-bold">
            <td />
            <td className="px-2 py-1">Total{b.example && <ExampleMark />}</td>
            <td />
            <td className="text-right">{money(b.total)}</td>
          </tr>
        </tbody>
      </table>
      {b.unpriced.length > 0 && <p className="mt-2 text-sm font-semibold text-warn">Without a price, not in the total: {b.unpriced.join(", ")}</p>}
      {b.example && <p className="mt-1 text-sm text-ink-2">Example prices are made up. Press one to put yours in; it is kept for every project.</p>}
    </section>
  );
}

function Sum({ label, v }: { label: string; v: number }) {
  return (
    <tr>
      <td />
      <td className="px-2 py-0.5 text-ink-2">{label}</td>
      <td />
      <td className="text-right text-ink-2">{money(v)}</td>
    </tr>
  );
}

export function ExampleMark() {
  return <span className="ml-2 rounded-sm border border-warn px-1 align-middle font-sans text-xs font-semibold text-warn">example</span>;
}

type Shop = StoredShop["shop"];

/** A figure of the shop that is a button until it is pressed, and then a field. */
function InPlace(props: { label: string; shown: ReactNode; start: string; hint: string; shop?: StoredShop; read: (t: string) => number | undefined; edit: (s: Shop, v: number) => Shop; onSaved: () => void }) {
  const [typed, setTyped] = useState<string>();
  const save = useMutation({
    mutationFn: async (v: number) => {
      if (props.shop) await ask(api.PUT("/api/shop", { body: { revision: props.shop.revision, shop: props.edit(props.shop.shop, v) } }));
    },
    onSuccess: () => {
      setTyped(undefined);
      props.onSaved();
    },
  });
  if (typed === undefined)
    return (
      <button type="button" className="rounded px-1 underline decoration-rule decoration-dotted decoration-2 underline-offset-4" onClick={() => setTyped(props.start)}>
        <span className="sr-only">{props.label}: </span>
        {props.shown}
      </button>
    );
  const value = props.read(typed);
  return (
    <input
      className="field w-20 text-right"
      aria-label={props.label}
      aria-invalid={value === undefined || save.isError}
      title={value === undefined ? props.hint : save.error?.message}
      // biome-ignore lint/a11y/noAutofocus: the field replaces the button that was pressed
      autoFocus
      value={typed}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => (value === undefined ? setTyped(undefined) : save.mutate(value))}
      onKeyDown={(e) => {
        if (e.key === "Escape") setTyped(undefined);
        if (e.key === "Enter" && value !== undefined) save.mutate(value);
      }}
    />
  );
}

function PriceCell({ line, shop, onSaved }: { line: Line; shop?: StoredShop; onSaved: () => void }) {
  const edit = (s: Shop, amount: number): Shop => {
    const { ware, kind, size, length, ounces } = line;
    const others = s.prices.prices.filter((p) => !(p.ware === ware && p.kind === kind && p.size === size && p.length === length && p.ounces === ounces));
    return { ...s, prices: { ...s.prices, prices: [...others, { ware, kind, size, length, ounces, amount, source: "own" }] } };
  };
  return (
    <InPlace
      label={`Price of ${line.label}`}
      shown={
        <>
          {line.priced ? money(line.each) : "no price"}
          {line.example && <span className="ml-1 text-xs text-warn">ex.</span>}
        </>
      }
      start={line.priced ? (line.each / 100).toFixed(2) : ""}
      hint="Write it like 4.98"
      shop={shop}
      read={readMoney}
      edit={edit}
      onSaved={onSaved}
    />
  );
}

function TaxCell({ shop, onSaved }: { shop?: StoredShop; onSaved: () => void }) {
  const percent = shop ? Number((shop.shop.prices.taxRate * 100).toFixed(4)) : 0;
  return (
    <InPlace
      label="Tax rate"
      shown={`${percent} %`}
      start={String(percent)}
      hint="Write the percentage, like 8.25"
      shop={shop}
      read={(t) => (/^\d{1,2}(\.\d{1,4})?\s*%?$/.test(t.trim()) ? Number.parseFloat(t) : undefined)}
      edit={(s, v) => ({ ...s, prices: { ...s.prices, taxRate: Number((v / 100).toFixed(6)) } })}
      onSaved={onSaved}
    />
  );
}

/** Reads 4.98 or $4.98 as cents; undefined when it is no amount. */
function readMoney(t: string): number | undefined {
  const m = /^\$?\s*(\d{1,5})(?:\.(\d{1,2}))?$/.exec(t.trim());
  return m ? Number(m[1]) * 100 + Number((m[2] ?? "").padEnd(2, "0")) : undefined;
}
