import type { Plan, StoredShop } from "../api/client";
import { Len, type Style, feet, money, plural } from "../lib/format";
import { Why } from "../ui/ui";
import { OnSale, PriceCell, TaxCell } from "./in-place";
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
export function StickSheet({ plan, style, lit, onPick, shop, onSaved }: Props & { shop?: StoredShop; onSaved: () => void }) {
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
          <OnSale size={t.size} shop={shop} style={style} onSaved={onSaved} />
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
export function CostSheet({ plan, shop, onSaved }: { plan: Plan; shop?: StoredShop; onSaved: () => void }) {
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
