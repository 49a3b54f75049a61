import type { ReactNode } from "react";
import { useStore } from "zustand";
import type { Price } from "../api/client";
import { money } from "../lib/format";
import { type Spec, specKey } from "../lib/spec";
import { Unanswered } from "../lib/touch";
import { InPlace } from "../ui/in-place";
import { ExampleMark } from "../ui/ui";
import { type Typed, readPrices, startOf } from "./read";
import { dropPrice, keepPrice, waitingPrices } from "./waiting-prices";

interface Props {
  of: Spec;
  label: string;
  prices: Price[];
  /** Where it stands, when the thing has its price on the page twice. */
  name?: string;
  onSet: (read: Typed[], text: string) => void;
  /** What is shown while nothing is typed; the prices where it is left out. */
  shown?: ReactNode;
}

/** What is asked, as one would say it. */
export const priceWords = (p: Price) =>
  `${(p.pack ?? 1) > 1 ? `${p.pack} for ` : ""}${p.from && p.from < p.amount ? `${money(p.from)}–${money(p.amount)}` : money(p.amount)}`;

/** A price that is put right where it is seen: .88, 98c, 3 for 20, 7.98-8.49. One that the server cannot read now waits for it. */
export function PriceField({ of, label, prices, name = "", onSet, shown }: Props) {
  const waits = useStore(waitingPrices, (s) => s.all[specKey(of)]);
  return (
    <InPlace
      label={label}
      keep={`price.${name}${specKey(of)}`}
      shown={
        waits ? (
          <>
            {waits.text} <span className="text-sm font-semibold text-warn">{waits.why ? "not taken" : "waits"}</span>
            {waits.why && <span className="block max-w-56 text-left text-xs font-semibold text-bad">{waits.why}</span>}
          </>
        ) : (
          (shown ?? (
            <>
              {prices.length > 0 ? prices.map(priceWords).join("; ") : "no price"}
              {prices.some((p) => p.example) && <ExampleMark short />}
            </>
          ))
        )
      }
      start={waits?.text ?? startOf(prices)}
      take={async (text) => {
        try {
          const read = await readPrices(text);
          dropPrice(of);
          onSet(read, text);
        } catch (e) {
          if (!(e instanceof Unanswered)) throw e;
          keepPrice(of, label, text);
        }
      }}
    />
  );
}
