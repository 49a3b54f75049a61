import { useSyncExternalStore } from "react";

// Lengths arrive as whole nanometres and are shown the way a tape is read.
// Only the showing happens here; all arithmetic of the job is the server's.
/** An inch in nanometres. */
export const INCH = 25_400_000;
const MM = 1_000_000;

export type Style = "inches" | "feet-inches" | "decimal" | "metric";

/** The unit a bare number is in while it is typed: that in which lengths are shown. */
export const unitOf = (style: Style) => (style === "metric" ? "mm" : "in");

interface Parts {
  feet?: number;
  whole: number;
  top: number;
  below: number;
}

/** Splits a length into feet, inches and a fraction to 1/step of an inch. */
function parts(nm: number, feet: boolean, step: number): Parts {
  const units = Math.floor((nm * step) / INCH + 0.5);
  let whole = Math.floor(units / step);
  let top = units % step;
  let below = step;
  while (top && top % 2 === 0) {
    top /= 2;
    below /= 2;
  }
  let ft: number | undefined;
  if (feet && whole >= 12) {
    ft = Math.floor(whole / 12);
    whole %= 12;
  }
  return { feet: ft, whole, top, below };
}

const trim = (v: number, places: number) => v.toFixed(places).replace(/\.?0+$/, "");

/** A length as plain text, for labels and titles. One size is rounded alike wherever it stands: to 1/16 of an inch; what is cut is shown to 1/64. */
export function text(nm: number, style: Style, step = 16): string {
  if (nm < 0) {
    const t = text(-nm, style, step);
    return /[1-9]/.test(t) ? `−${t}` : t; // what rounds to nothing has no sign
  }
  if (style === "metric") return `${trim(nm / MM, 1)} mm`;
  if (style === "decimal") return `${trim(nm / INCH, 4)}″`;
  const p = parts(nm, style === "feet-inches", step);
  const f = p.top ? `${p.top}⁄${p.below}` : "";
  const inches = p.whole || !f ? `${p.whole}${f ? ` ${f}` : ""}` : f;
  if (p.feet === undefined) return `${inches}″`;
  return p.whole || f ? `${p.feet}′ ${inches}″` : `${p.feet}′`;
}

/** Whether anything of a length is left when it is shown. */
export const isShown = (nm: number, style: Style, step = 16) => /[1-9]/.test(text(nm, style, step));

/** Whether a length is a whole number of a tape's fractions. */
export const onTape = (nm: number, step = 16) => nm % (INCH / step) === 0;

/** A length with a real fraction. */
export function Len({ nm, style, step = 16 }: { nm: number; style: Style; step?: number }) {
  if (nm < 0 || style === "metric" || style === "decimal") return <span>{text(nm, style, step)}</span>;
  const p = parts(nm, style === "feet-inches", step);
  const bare = p.feet !== undefined && !p.whole && !p.top;
  return (
    <span className="whitespace-nowrap">
      {p.feet !== undefined && `${p.feet}′`}
      {p.feet !== undefined && !bare && " "}
      {!bare && (p.whole > 0 || !p.top) && p.whole}
      {p.top > 0 && (
        <>
          {p.whole > 0 && " "}
          <span className="frac">
            {p.top}⁄{p.below}
          </span>
        </>
      )}
      {!bare && "″"}
    </span>
  );
}

const keptCurrency = "sturdyelbow.currency";
const inCurrency = (code: string) => new Intl.NumberFormat("en-US", { style: "currency", currency: code, currencyDisplay: "narrowSymbol" });
let currency = typeof localStorage === "undefined" ? "USD" : (localStorage.getItem(keptCurrency) ?? "USD");
let amounts = inCurrency(currency);
const heard = new Set<() => void>();

/** What amounts are shown in from now on; nothing is converted. */
export function setCurrency(code = "USD") {
  const next = code || "USD";
  if (next === currency) return;
  amounts = inCurrency(next);
  currency = next;
  localStorage.setItem(keptCurrency, next);
  for (const tell of heard) tell();
}

/** The currency of now; who shows amounts is drawn anew when it changes. */
export const useCurrency = () =>
  useSyncExternalStore(
    (tell) => {
      heard.add(tell);
      return () => void heard.delete(tell);
    },
    () => currency,
  );

/** An amount of cents. */
export const money = (cents: number): string => amounts.format(cents / 100).replace("-", "−");

export const feet = (nm: number) => trim(nm / (12 * INCH), 1);

export const plural = (n: number, one: string, many = `${one}s`) => `${n} ${n === 1 ? one : many}`;
