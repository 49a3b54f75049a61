import type { Line, Plan } from "../../api/client";
import { feet, money, plural } from "../../lib/format";
import { sizeWords } from "../../lib/words";
import { InPlace } from "../../ui/in-place";
import { Picture, Ware as WarePicture } from "../../ui/picture";
import { Tick } from "../../ui/tick";
import { ExampleMark, Head } from "../../ui/ui";
import { type Ware, aislesOf, nameOf } from "./list";
import { Haul } from "./haul";
import { OnSale } from "./on-sale";
import { priceOf, readMoney, readPercent, withPrice } from "./prices";
import { buying, notDone, withOutgoing } from "../../desk/doing";
import { useFrame, useOpen, useOpenState, usePicked, usePlan, useProject, useShop } from "../../desk/use";
import { Unsent } from "../unsent";
import { Scope } from "./scope";

/** What do I buy? A list in the order of a walk through the shop, to be ticked off. */
export default function BuySheet() {
  const open = useOpen();
  const project = useProject();
  const plan = usePlan();
  const out = useOpenState((s) => s.outgoing.events);
  const aisles = aislesOf(plan);
  const wares = aisles.flatMap((a) => a.wares);
  const cart = withOutgoing(out).got;
  const got = wares.filter((w) => cart(w.line) >= w.line.count).length;
  const bought = plan.bill.lines.flatMap((l) => l.events ?? []).filter((e) => !out.some((o) => o.event === e));
  const b = plan.bill;
  if (wares.length === 0 && plan.extra.length === 0) return <p className="text-lg">Nothing to buy: everything is at hand.</p>;
  return (
    <section aria-labelledby="buy-head">
      <Unsent />
      <Head id="buy-head" title="What to buy">
        <span className="font-display text-2xl font-bold">
          {money(b.total)}
          {b.example && <ExampleMark />}
        </span>
      </Head>
      <div className="flex items-center justify-between gap-3 text-sm" role="status">
        <span>{got === wares.length ? "Everything is in the cart." : `${got} of ${plural(wares.length, "line")} in the cart`}</span>
        {project.copies > 1 && (
          <span className="text-ink-2">
            for {project.copies} of it, {money(Math.round(b.total / project.copies))} each
          </span>
        )}
        {bought.length > 0 && (
          <button type="button" className="link" onClick={() => open.say(...bought.map((e) => notDone(e)))}>
            Empty the cart
          </button>
        )}
      </div>
      {aisles.map((a) => (
        <section key={a.name} aria-label={a.name} className="mt-3">
          <h3 className="aisle">{a.name}</h3>
          <ul className="long">
            {a.wares.map((w) => (
              <WareRow key={w.key} ware={w} got={cart(w.line)} />
            ))}
          </ul>
          {a.name === "Pipe" && plan.pipe.map((t) => <OnSale key={t.size} size={t.size} />)}
          {a.name === "Pipe" && <Haul />}
        </section>
      ))}
      <TooMany />
      <Scope />
      <Total />
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

function WareRow({ ware: w, got }: { ware: Ware; got: number }) {
  const shop = useShop();
  const plan = usePlan();
  const frame = useFrame();
  const [picked, onPick] = usePicked();
  const l = w.line;
  const done = got >= l.count;
  const open = useOpen();
  const out = useOpenState((s) => s.outgoing.events);
  const first = frame.joints.find((j) => l.ware === "fitting" && j.kind === l.kind && j.size === l.size);
  // what is known to be bought only by what was cut from it cannot be put back
  const mine = out.filter((e) => e.kind === "bought" && withOutgoing([e]).got({ ...l, got: 0, events: [] }) > 0).map((e) => e.id);
  const back = [...(l.events ?? []), ...mine].filter((e) => !out.some((o) => o.event === e));
  const tick = () => {
    if (!done) {
      open.did(buying(plan, l, l.count - got));
      return;
    }
    open.say(...back.map((e) => notDone(e)));
  };
  const pipe =
    picked?.is === "pipe" || picked?.is === "letter" ? frame.pipes.find((p) => p.pipe === picked.id || p.letter === picked.id) : undefined;
  const joint = picked?.is === "joint" ? frame.joints.find((j) => j.id === picked.id) : undefined;
  const shownHere = l.ware === "pipe" ? pipe?.size === l.size : l.ware === "fitting" && joint?.kind === l.kind && joint?.size === l.size;
  return (
    <li className={`ware ${done ? "is-done" : ""} ${shownHere ? "is-lit" : ""}`}>
      <Tick label={`${l.count} × ${nameOf(l)} in the cart`} done={done} onTick={tick} fixed={done && back.length === 0} />
      {l.ware === "fitting" ? (
        <button
          type="button"
          className="rounded"
          aria-label={`Show number ${w.number}, ${nameOf(l)}, on the frame`}
          onClick={() => onPick(first && !shownHere ? { is: "joint", id: first.id } : undefined)}
        >
          <span className="relative block">
            <Picture kind={l.kind ?? ""} />
            <span className="ware-number">{w.number}</span>
          </span>
        </button>
      ) : (
        <WarePicture ware={l.ware} />
      )}
      <span className="ware-count">{l.count}×</span>
      <span className="min-w-0 flex-1 leading-tight">
        <strong className="text-base font-semibold">{nameOf(l)}</strong>
        <span className="block text-sm text-ink-2">{got > 0 && !done ? `${l.count - got} more: ${got} in the cart` : noteOf(l, plan)}</span>
      </span>
      <span className="text-right">
        <span className="block text-sm text-ink-2">
          <InPlace
            label={`Price of ${l.label}`}
            shown={
              <>
                {l.priced ? money(l.each) : "no price"}
                {l.example && <ExampleMark short />}
              </>
            }
            start={l.priced ? (l.each / 100).toFixed(2) : ""}
            hint="Write it like 4.98"
            read={readMoney}
            onSet={(amount) => void open.changeShop(`Price of ${l.label} ${money(amount)}`, (s) => withPrice(s, l, amount))}
          />
        </span>
        <strong className="block">{l.priced ? money(l.amount) : priceOf(shop, l) ? "" : "—"}</strong>
      </span>
    </li>
  );
}

/** What to know about a line at the shelf. */
function noteOf(l: Line, plan: Plan): string {
  if (l.unit === "piece") return l.rule;
  if (l.ware === "pipe") {
    const t = plan.pipe.find((p) => p.size === l.size);
    return t ? `${plural(t.pieces, "piece")} of ${sizeWords(l.size ?? "")} pipe, ${feet(t.net)} ft` : "";
  }
  if (l.ware === "cement") return `for ${plural(plan.joinery.cemented, "socket")}, about ${plan.joinery.cement.ounces.toFixed(1)} fl oz`;
  if (l.ware === "primer") return `about ${plan.joinery.primer.ounces.toFixed(1)} fl oz; a one-step cement needs none`;
  if (l.ware === "hardware") return l.rule;
  const side = l.kind?.startsWith("side-outlet") || l.kind === "six-way";
  return side ? "furniture grade: seldom on the shelf, order ahead" : "";
}

function Total() {
  const open = useOpen();
  const shop = useShop();
  const plan = usePlan();
  const b = plan.bill;
  const percent = Number((shop.prices.taxRate * 100).toFixed(4));
  return (
    <div className="mt-4">
      <dl className="sum">
        <Sum label="Pipe" v={b.pipe} />
        <Sum label="Fittings" v={b.fittings} />
        {b.other > 0 && <Sum label="Cement, primer, hardware" v={b.other} />}
        <div>
          <dt>
            Tax{" "}
            <InPlace
              label="Tax rate"
              shown={`${percent} %`}
              start={String(percent)}
              hint="Write the percentage, like 8.25"
              read={readPercent}
              onSet={(v) =>
                void open.changeShop(`Tax ${v} %`, (s) => ({ ...s, prices: { ...s.prices, taxRate: Number((v / 100).toFixed(6)) } }))
              }
            />
          </dt>
          <dd>{money(b.tax)}</dd>
        </div>
        <div className="sum-total">
          <dt>
            Total
            {b.example && <ExampleMark />}
          </dt>
          <dd>{money(b.total)}</dd>
        </div>
      </dl>
      {b.unpriced.length > 0 && (
        <p className="mt-2 text-sm font-semibold text-warn">
          {plural(b.unpriced.length, "line")} without a price, not in the total: {b.unpriced.join("; ")}
        </p>
      )}
      {b.example && <p className="mt-1 text-sm text-ink-2">Example prices are made up. Press one to put yours in.</p>}
    </div>
  );
}

function Sum({ label, v }: { label: string; v: number }) {
  return (
    <div>
      <dt>{label}</dt>
      <dd>{money(v)}</dd>
    </div>
  );
}
