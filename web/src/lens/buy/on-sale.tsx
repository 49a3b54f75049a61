import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Refusal, api, ask } from "../../api/client";
import { type Style, onTape, text } from "../../lib/format";
import { PriceField } from "../../prices/price-field";
import { pricesOf, withPrices } from "../../prices/read";
import { shopFor } from "../../desk/scope";
import { sizeWords } from "../../lib/words";
import { useOpen, useProject, useShop, useStyle } from "../../desk/use";

// what is shown here is typed back: it is never rounded
const stick = (nm: number, style: Style) => (style === "metric" || !onTape(nm) ? `${nm / 1_000_000} mm` : text(nm, "feet-inches"));

const exact = (nm: number, style: Style) => (style === "metric" || !onTape(nm, 64) ? `${nm / 1_000_000} mm` : text(nm, "inches", 64));

/** The stick lengths on sale for a size, each with its price; the lengths are typed as people write them. */
export function OnSale({ size }: { size: string }) {
  const open = useOpen();
  const shop = shopFor(useShop(), useProject());
  const style = useStyle();
  const [typed, setTyped] = useState<string>();
  const sold = shop.stock.filter((s) => !s.size || s.size === size);
  const read = useMutation({
    mutationFn: async (t: string) => {
      // 10 ft = 120 1/4: a stick as it is named, and as it measures
      const sold = t
        .split(/[,;]/)
        .filter((s) => s.trim())
        .map((s) => s.split("=", 2).map((x) => x.trim()));
      const all = await ask(api.POST("/api/lengths", { body: { texts: sold.flat(), units: style === "metric" ? "mm" : "in" } }));
      return sold.map(([, measured]) => ({ length: all.shift() ?? 0, true: measured === undefined ? undefined : all.shift() }));
    },
    onSuccess: (all, t) => {
      setTyped(undefined);
      void open.changeShop(`Sticks on sale: ${t}`, (s) => ({
        ...s,
        stock: [...s.stock.filter((x) => x.size), ...all.map((l) => ({ ...s.stock.find((x) => !x.size && x.length === l.length), ...l }))],
      }));
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
            aria-label="Stick lengths on sale"
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
        <p className="text-ink-2">Where a stick measures otherwise than it is named: 10 ft = 120 1/4</p>
        {why && (
          <p role="alert" className="font-semibold text-bad">
            {why}
          </p>
        )}
      </form>
    );
  return (
    <p className="flex flex-wrap items-baseline gap-x-3 py-1 text-sm">
      <span className="text-ink-2">{sizeWords(size)} sticks on sale:</span>
      {sold.map(({ length, true: measured }) => {
        const key = { ware: "pipe", size, length };
        const label = `Price of on sale: ${sizeWords(size)} pipe, ${stick(length, style)} stick`;
        return (
          <span key={length}>
            {stick(length, style)}
            {measured ? ` that measures ${text(measured, style, 64)}` : ""}{" "}
            <PriceField
              of={key}
              name="on sale"
              label={label}
              prices={pricesOf(shop, key)}
              onSet={(read, text) => void open.changeShop(`${size} × ${stick(length, style)} at ${text}`, (s) => withPrices(s, key, read))}
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
