import type { Shop } from "../api/client";
import { InPlace } from "../ui/in-place";
import { readPercent } from "./read";

interface Props {
  /** A share: 0.0825. */
  rate: number;
  onSet: (label: string, by: (s: Shop) => Shop) => void;
}

/** The tax rate of the shop, changed where it stands. */
export function TaxRate({ rate, onSet }: Props) {
  const percent = Number((rate * 100).toFixed(4));
  return (
    <InPlace
      label="Tax rate"
      shown={`${percent} %`}
      start={String(percent)}
      take={(t) => {
        const v = readPercent(t);
        onSet(`Tax ${v} %`, (s) => ({ ...s, prices: { ...s.prices, taxRate: Number((v / 100).toFixed(6)) } }));
      }}
    />
  );
}
