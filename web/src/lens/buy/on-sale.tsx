import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { type Price, Refusal, type Shop, api, ask } from "../../api/client";
import { type Style, onTape, text, unitOf } from "../../lib/format";
import { PriceField } from "../../prices/price-field";
import { pricesOf, withPrices } from "../../prices/read";
import { shopFor } from "../../desk/scope";
import { sizeWords } from "../../lib/words";
import { useOpen, useProject, useShop, useStyle } from "../../desk/use";

// what is shown here is typed back: it is never rounded
const stick = (nm: number, style: Style) => (style === "metric" || !onTape(nm) ? `${nm / 1_000_000} mm` : text(nm, "feet-inches"));

const exact = (nm: number, style: Style) => (style === "metric" || !onTape(nm, 64) ? `${nm / 1_000_000} mm` : text(nm, "inches", 64));

/** A length on sale, and what it measures where that is otherwise. */
interface Sold {
  length: number;
  true?: number;
}

/** The stick lengths on sale for a size, each with its price. */
export function OnSale({ size }: { size: string }) {
  const shop = shopFor(useShop(), useProject());
  const style = useStyle();
  const sold = shop.stock.filter((s) => !s.size || s.size === size);
  // where all of them are of this size, what is typed is of it too; else it is of every size that has none of its own
  const its = sold.length > 0 && sold.every((s) => s.size) ? sold[0]?.size : undefined;
  return (
    <Lengths
      of={its ? `${sizeWords(size)} sticks` : "Sticks"}
      shown={`${sizeWords(size)} sticks`}
      field="Stick lengths on sale"
      name={(l) => `${sizeWords(size)} pipe, ${stick(l, style)} stick`}
      sold={sold}
      spec={(length) => ({ ware: "pipe", size, length })}
      hint="Where a stick measures otherwise than it is named: 10 ft = 120 1/4"
      onSet={(s, all) => ({
        ...s,
        stock: [
          ...s.stock.filter((x) => (its ? x.size !== size : x.size && x.size !== size)),
          ...all.map((l) => ({ ...sold.find((x) => x.length === l.length), ...l, size: its })),
        ],
      })}
    />
  );
}

/** The lengths on sale of rope and the like, each with its price. */
export function BarsOnSale({ of }: { of: { kind?: string; diameter?: number; label: string } }) {
  const shop = useShop();
  const style = useStyle();
  const kind = of.kind ?? "";
  const { diameter } = of;
  const all = (shop.bars ?? []).filter((b) => b.kind === kind);
  const its = all.filter((b) => b.diameter && b.diameter === diameter);
  return (
    <Lengths
      of={of.label}
      field={`Lengths of ${of.label} on sale`}
      name={(l) => `${of.label}, ${stick(l, style)}`}
      sold={its.length > 0 ? its : all.filter((b) => !b.diameter)}
      spec={(length) => ({ ware: "hardware", kind, ...(diameter ? { diameter } : {}), length })}
      // what is said of one thickness is of that one alone
      onSet={(s, typed) => ({
        ...s,
        bars: [
          ...(s.bars ?? []).filter((b) => b.kind !== kind || (b.diameter ?? 0) !== (diameter ?? 0)),
          ...typed.map(({ length }) => ({ kind, ...(diameter ? { diameter } : {}), length })),
        ],
      })}
    />
  );
}

interface LengthsProps {
  /** What a change of them is called. */
  of: string;
  /** What is on sale, as it is shown where that is more than it changes. */
  shown?: string;
  /** What its field is called. */
  field: string;
  /** What a length is called. */
  name: (length: number) => string;
  sold: Sold[];
  spec: (length: number) => Pick<Price, "ware" | "kind" | "size" | "length" | "diameter">;
  hint?: string;
  onSet: (s: Shop, all: Sold[]) => Shop;
}

/** Lengths on sale; they are typed as people write them. */
function Lengths({ of, shown = of, field, name, sold, spec, hint, onSet }: LengthsProps) {
  const open = useOpen();
  const shop = shopFor(useShop(), useProject());
  const style = useStyle();
  const [typed, setTyped] = useState<string>();
  const read = useMutation({
    mutationFn: async (t: string) => {
      // 10 ft = 120 1/4: a stick as it is named, and as it measures
      const sold = t
        .split(/[,;]/)
        .filter((s) => s.trim())
        .map((s) => s.split("=", 2).map((x) => x.trim()));
      const all = await ask(api.POST("/api/lengths", { body: { texts: sold.flat(), units: unitOf(style) } }));
      return sold.map(([, measured]) => ({ length: all.shift() ?? 0, true: measured === undefined ? undefined : all.shift() }));
    },
    onSuccess: (all, t) => {
      setTyped(undefined);
      void open.changeShop(`${of} on sale: ${t}`, (s) => onSet(s, all));
    },
  });
  const why = read.error instanceof Refusal ? Object.values(read.error.places)[0] : read.error ? "The server does not answer." : undefined;
  if (typed !== undefined)
    return (
      <form
        className="py-1 text-sm"
        onSubmit={(e) => {
          e.preventDefault();
          read.mutate(typed);
        }}
      >
        <div className="flex items-center gap-2">
          <input
            className="field"
            aria-label={field}
            aria-invalid={read.isError}
            // biome-ignore lint/a11y/noAutofocus: the field takes the place of the button that was pressed
            autoFocus
            value={typed}
            onChange={(e) => setTyped(e.target.value)}
            onKeyDown={(e) => e.key === "Escape" && setTyped(undefined)}
          />
          <button type="submit" className="btn btn-small">
            Set
          </button>
        </div>
        {hint && <p className="text-ink-2">{hint}</p>}
        {why && (
          <p role="alert" className="font-semibold text-bad">
            {why}
          </p>
        )}
      </form>
    );
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 py-1 text-sm">
      <span className="text-ink-2">
        {shown} on sale:{sold.length === 0 && " none"}
      </span>
      {sold.map(({ length, true: measured }) => {
        const key = spec(length);
        return (
          <span key={length}>
            {stick(length, style)}
            {measured ? ` that measures ${text(measured, style, 64)}` : ""}{" "}
            <PriceField
              of={key}
              name="on sale"
              label={`Price of on sale: ${name(length)}`}
              prices={pricesOf(shop, key)}
              onSet={(read, text) => void open.changeShop(`${name(length)} at ${text}`, (s) => withPrices(s, key, read))}
            />
          </span>
        );
      })}
      <button
        type="button"
        className="link"
        onClick={() =>
          setTyped(sold.map((s) => (s.true ? `${stick(s.length, style)} = ${exact(s.true, style)}` : stick(s.length, style))).join(", "))
        }
      >
        Other lengths
      </button>
    </p>
  );
}
