import { useMutation } from "@tanstack/react-query";
import { type ReactNode, useState } from "react";
import { type Line, Refusal, type StoredShop, api, ask } from "../api/client";
import { type Style, money, onTape, text } from "../lib/format";

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

export function PriceCell({ line, shop, onSaved }: { line: Pick<Line, "ware" | "kind" | "size" | "length" | "ounces" | "label" | "each" | "priced" | "example">; shop?: StoredShop; onSaved: () => void }) {
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

export function TaxCell({ shop, onSaved }: { shop?: StoredShop; onSaved: () => void }) {
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

/** The stick lengths on sale for a size, each with its price; the lengths are typed as people write them. */
export function OnSale({ size, shop, style, onSaved }: { size: string; shop?: StoredShop; style: Style; onSaved: () => void }) {
  const [typed, setTyped] = useState<string>();
  const save = useMutation({
    mutationFn: async (t: string) => {
      if (!shop) return;
      const texts = t.split(/[,;]/).map((s) => s.trim()).filter(Boolean);
      const lengths = await ask(api.POST("/api/lengths", { body: { texts, units: style === "metric" ? "mm" : "in" } }));
      const others = shop.shop.stock.filter((s) => s.size);
      const stock = [...others, ...lengths.map((length) => ({ length }))];
      await ask(api.PUT("/api/shop", { body: { revision: shop.revision, shop: { ...shop.shop, stock } } }));
    },
    onSuccess: () => {
      setTyped(undefined);
      onSaved();
    },
  });
  // what is shown here is typed back: it is never rounded
  const stick = (nm: number) => (style === "metric" || !onTape(nm) ? `${nm / 1_000_000} mm` : text(nm, "feet-inches"));
  const lengths = (shop?.shop.stock ?? []).filter((s) => !s.size || s.size === size).map((s) => s.length);
  const why = save.error instanceof Refusal ? Object.values(save.error.places)[0] : save.error?.message;
  if (typed !== undefined)
    return (
      <form
        className="text-sm"
        onSubmit={(e) => {
          e.preventDefault();
          save.mutate(typed);
        }}
      >
        <div className="flex items-center gap-2">
          <input
            className="field"
            aria-label="Stick lengths on sale"
            aria-invalid={save.isError}
            // biome-ignore lint/a11y/noAutofocus: the field replaces the button that was pressed
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => e.key === "Escape" && setTyped(undefined)}
          />
          <button type="submit" className="btn">
            Set
          </button>
        </div>
        {why && (
          <p role="alert" className="font-semibold text-bad">
            {why}
          </p>
        )}
      </form>
    );
  return (
    <p className="flex flex-wrap gap-x-3 text-sm">
      <span className="text-ink-2">On sale:</span>
      {lengths.map((length) => {
        const p = shop?.shop.prices.prices.find((x) => x.ware === "pipe" && x.size === size && x.length === length);
        const label = `${size} pipe, ${stick(length)} stick`;
        return (
          <span key={length}>
            {stick(length)}{" "}
            <PriceCell line={{ ware: "pipe", size, length, label: `on sale: ${label}`, each: p?.amount ?? 0, priced: p !== undefined, example: p?.example ?? false }} shop={shop} onSaved={onSaved} />
          </span>
        );
      })}
      <button type="button" className="font-semibold text-accent underline" onClick={() => setTyped(lengths.map((l) => stick(l)).join(", "))}>
        Other lengths
      </button>
    </p>
  );
}

/** Reads 4.98 or $4.98 as cents; undefined when it is no amount. */
function readMoney(t: string): number | undefined {
  const m = /^\$?\s*(\d{1,5})(?:\.(\d{1,2}))?$/.exec(t.trim());
  return m ? Number(m[1]) * 100 + Number((m[2] ?? "").padEnd(2, "0")) : undefined;
}
