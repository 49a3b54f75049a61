import type { ReactNode } from "react";
import type { Price } from "../api/client";
import { money } from "../lib/format";
import { type Spec, specKey } from "../lib/spec";
import { InPlace } from "../ui/in-place";
import { ExampleMark } from "../ui/ui";
import { type Typed, readPrices, startOf } from "./read";

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

/** A price that is put right where it is seen: .88, 98c, 3 for 20, 7.98-8.49. */
export function PriceField({ of, label, prices, name = "", onSet, shown }: Props) {
  return (
    <InPlace
      label={label}
      keep={`price.${name}${specKey(of)}`}
      shown={
        shown ?? (
          <>
            {prices.length > 0 ? prices.map(priceWords).join("; ") : "no price"}
            {prices.some((p) => p.example) && <ExampleMark short />}
          </>
        )
      }
      start={startOf(prices)}
      take={async (text) => onSet(await readPrices(text), text)}
    />
  );
}
