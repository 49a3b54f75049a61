import { useQuery } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useState } from "react";
import { Link } from "wouter";
import { type PriceBook, type PricePart, type Price, type Shop, api, ask } from "../api/client";
import { nameOf } from "../lens/buy/list";
import { money, plural, setCurrency } from "../lib/format";
import { specKey } from "../lib/spec";
import { Icon } from "../ui/icons";
import { InPlace } from "../ui/in-place";
import { Pick } from "../ui/pick";
import { ExampleMark, Failure, Loading } from "../ui/ui";
import { PasteList } from "./paste-list";
import { PriceField, priceWords } from "./price-field";
import { readPrices, withPrices } from "./read";
import { useStoredShop } from "./save";
import { BackBar } from "../ui/back-bar";
import { TaxRate } from "./tax-rate";
import { UndoLine } from "./undo-line";

type Which = "all" | "none" | "example" | "old";

const currencies = ["USD", "CAD", "AUD", "NZD", "EUR", "GBP"].map((c) => [c, c] as const);

const none = (p: PricePart) => p.prices.length === 0;
const example = (p: PricePart) => p.prices.some((x) => x.example);
const old = (p: PricePart, b: PriceBook) => p.days !== undefined && p.days > b.stale;

/** Every part of every project, with its prices: one page to type, paste or open them. */
export default function PricesPage() {
  const { shop, save, change, undone, undo, waits } = useStoredShop("prices");
  const book = useQuery({ queryKey: ["prices"], queryFn: () => ask(api.GET("/api/prices")), refetchOnMount: "always" });
  useEffect(() => {
    if (shop.data) setCurrency(shop.data.shop.prices.currency);
  }, [shop.data]);
  const [which, setWhich] = useState<Which>("all");
  const [used, setUsed] = useState(true);
  const [typed, setTyped] = useState("");
  const words = useDeferredValue(typed).toLowerCase().split(/\s+/).filter(Boolean);
  const parts = book.data?.parts ?? [];
  const b = book.data;
  const anyUsed = parts.some((p) => p.uses.length > 0);
  const pool = parts.filter((p) => !used || !anyUsed || p.uses.length > 0);
  const counts: Record<Which, number> = {
    all: pool.length,
    none: pool.filter(none).length,
    example: pool.filter(example).length,
    old: b ? pool.filter((p) => old(p, b)).length : 0,
  };
  const shown = pool.filter(
    (p) =>
      words.every((w) => nameOf(p).toLowerCase().includes(w) || p.label.toLowerCase().includes(w)) &&
      (which === "all" || (which === "none" ? none(p) : which === "example" ? example(p) : b !== undefined && old(p, b))),
  );
  // what is on its way is shown already
  const pricesOf = (p: PricePart): Price[] => shop.data?.shop.prices.prices.filter((x) => specKey(x) === specKey(p)) ?? p.prices;
  const tab = (w: Which, label: string) => (
    <button type="button" className="btn btn-small" aria-pressed={which === w} onClick={() => setWhich(w)}>
      {label} {counts[w]}
    </button>
  );
  return (
    <>
      <BackBar />
      <main className="mx-auto grid w-full max-w-5xl gap-4 px-4 py-6">
        <div className="sheet-head flex-wrap">
          <h1 className="text-3xl">Prices</h1>
          <span className="flex flex-wrap items-center gap-2 pb-1 text-sm">
            <Pick
              label="Currency"
              className="w-28"
              value={shop.data?.shop.prices.currency || "USD"}
              options={currencies}
              onChange={(code) =>
                change(`Amounts are in ${code}; none was converted`, (s) => ({ ...s, prices: { ...s.prices, currency: code } }))
              }
            />
            Tax <TaxRate rate={shop.data?.shop.prices.taxRate ?? 0} onSet={change} />
            <a className="btn btn-small" href="/api/prices.csv" download="prices.csv">
              <Icon name="file" size={18} /> Save as CSV
            </a>
          </span>
        </div>
        {(book.isPending || shop.isPending) && <Loading what="the prices" />}
        {(book.error || shop.error) && (
          <Failure why="The server does not answer." retry={() => void Promise.all([book.refetch(), shop.refetch()])} />
        )}
        {waits && (
          <p role="status" className="unsent">
            What was typed here waits on this device, and goes out by itself as soon as the server answers.
          </p>
        )}
        {save.error && <Failure why={`${save.error.message}. The price was not saved; type it once more.`} />}
        <PasteList onTake={(label, by) => change(label, by)} />
        <Lists shop={shop.data?.shop} onSet={change} />
        {undone && <UndoLine label={undone} onUndo={undo} />}
        {book.data && (
          <section aria-label="Parts and their prices" className="grid gap-2">
            <div className="flex flex-wrap items-center gap-2">
              <label className="search">
                <Icon name="search" size={18} />
                <input
                  type="search"
                  aria-label="Search the parts"
                  placeholder="Search"
                  value={typed}
                  onChange={(e) => setTyped(e.target.value)}
                  onKeyDown={(e) => e.key === "Escape" && setTyped("")}
                />
              </label>
              {tab("all", "All")}
              {tab("none", "No price")}
              {tab("example", "Made up")}
              {tab("old", "Old")}
              {anyUsed && (
                <label className="flex items-center gap-2 text-sm">
                  <input type="checkbox" checked={used} onChange={(e) => setUsed(e.target.checked)} />
                  Only what projects buy
                </label>
              )}
            </div>
            {shown.length === 0 && (
              <p role="status" className="py-4 text-lg text-ink-2">
                {which === "none" ? "Everything has a price." : which === "old" ? "No price is old." : "No such part."}
              </p>
            )}
            <ul className="price-list">
              {shown.map((p) => (
                <Row
                  key={specKey(p)}
                  part={p}
                  prices={pricesOf(p)}
                  old={b !== undefined && old(p, b)}
                  onSet={(label, by) => change(label, by)}
                />
              ))}
            </ul>
          </section>
        )}
      </main>
    </>
  );
}

/** Price lists of other shops: they are compared with in the Buy lens. */
function Lists({ shop, onSet }: { shop?: Shop; onSet: (label: string, by: (s: Shop) => Shop) => void }) {
  const all = shop?.suppliers ?? [];
  if (all.length === 0) return null;
  type One = (typeof all)[number];
  const one = (id: string, by: (s: One) => One | undefined) => (s: Shop) => ({
    ...s,
    suppliers: (s.suppliers ?? []).flatMap((x) => (x.id === id ? (by(x) ?? []) : x)),
  });
  return (
    <section aria-label="Lists of other shops" className="grid gap-1">
      <h2 className="text-lg">Lists of other shops, to compare with</h2>
      <ul>
        {all.map((x) => (
          <li key={x.id} className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule py-1">
            <strong>{x.name}</strong>
            <span className="text-ink-2">
              {plural(x.offers.length, "price")}
              {x.date && `, ${x.date}`}
            </span>
            <span>
              there in{" "}
              <InPlace
                label={`Days of ${x.name}`}
                shown={x.days ? plural(x.days, "day") : "no time"}
                start={String(x.days ?? 0)}
                className="w-16"
                take={(t) => {
                  if (!/^\d{1,3}$/.test(t)) throw new Error("Write how many days, like 3");
                  onSet(
                    `${x.name} takes ${plural(Number(t), "day")}`,
                    one(x.id, (s) => ({ ...s, days: Number(t) || undefined })),
                  );
                }}
              />
            </span>
            <span>
              sending{" "}
              <InPlace
                label={`Sending by ${x.name}`}
                shown={x.shipping ? money(x.shipping) : "free"}
                start={x.shipping ? (x.shipping / 100).toFixed(2) : "0"}
                take={async (t) => {
                  const [read] = await readPrices(t);
                  onSet(
                    `${x.name} sends for ${t}`,
                    one(x.id, (s) => ({ ...s, shipping: read?.amount || undefined })),
                  );
                }}
              />
            </span>
            <button
              type="button"
              className="link"
              onClick={() =>
                onSet(
                  `The list of ${x.name} is gone`,
                  one(x.id, () => undefined),
                )
              }
            >
              forget it
            </button>
          </li>
        ))}
      </ul>
    </section>
  );
}

function Row({
  part: p,
  prices,
  old,
  onSet,
}: {
  part: PricePart;
  prices: Price[];
  old: boolean;
  onSet: (label: string, by: (s: Shop) => Shop) => void;
}) {
  const name = nameOf(p);
  const first = prices[0];
  const count = p.uses.reduce((n, u) => n + u.count, 0);
  const source = first && !first.example && first.source && first.source !== "own" ? first.source : "";
  return (
    <li className="price-row">
      <span className="price-what">
        <strong>{name}</strong>
        <span className="block text-sm text-ink-2">
          {p.uses.length === 0 ? (
            "no project buys it now"
          ) : (
            <>
              {count} for{" "}
              {p.uses.slice(0, 4).map((u, i) => (
                <span key={u.id}>
                  {i > 0 && ", "}
                  <Link href={`/p/${u.id}/buy`} className="link">
                    {u.name || "a project without a name"}
                  </Link>
                </span>
              ))}
              {p.uses.length > 4 && ` and ${plural(p.uses.length - 4, "project")} more`}
            </>
          )}
        </span>
      </span>
      <span className="price-from">
        {source}
        {first?.date && (
          <span className={old ? "block font-semibold text-warn" : "block"}>
            {first.date}
            {old && ", old"}
          </span>
        )}
      </span>
      <span className="price-is">
        <PriceField
          of={p}
          name="book "
          label={`Price of ${p.label}`}
          prices={prices}
          shown={
            <>
              {prices.map(priceWords).join("; ") || "no price"}
              {prices.some((x) => x.example) && <ExampleMark short />}
            </>
          }
          onSet={(read, text) => onSet(`${name}: ${text}`, (s) => withPrices(s, p, read))}
        />
      </span>
    </li>
  );
}
