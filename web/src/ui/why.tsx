import { Popover } from "radix-ui";
import { type ReactNode, createContext, useContext } from "react";
import type { Term } from "../api/client";
import { INCH, type Style } from "../lib/format";

/** How lengths are shown round here. */
export const ShownAs = createContext<Style>("inches");

/** A number that answers "why?" with its sum. */
export function Why({
  of,
  sum,
  total,
  label,
  className,
}: {
  of: ReactNode;
  sum: Term[];
  total: number;
  label: string;
  className?: string;
}) {
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" className={`why ${className ?? ""}`}>
          <span className="sr-only">{label}: </span>
          {of}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={12}
          aria-label={`How ${label} comes about`}
          className="note max-h-[60vh] max-w-sm overflow-auto text-sm"
        >
          <SumTable sum={sum} total={total} />
          <Popover.Arrow className="fill-ink" />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}

export function SumTable({ sum, total }: { sum: Term[]; total: number }) {
  const exact = useContext(ShownAs) === "metric" ? millimetres : thousandths;
  return (
    <table className="w-full">
      <tbody>
        {sum.map((t, i) => (
          <tr key={i}>
            <td className="py-0.5 pr-4">{t.label}</td>
            <td className="text-right whitespace-nowrap">
              {i > 0 && t.value >= 0 && "+ "}
              {exact(t.value)}
            </td>
          </tr>
        ))}
        <tr className="border-t-2 border-ink font-bold">
          <td className="pt-1 pr-4">makes</td>
          <td className="pt-1 text-right">{exact(total)}</td>
        </tr>
      </tbody>
    </table>
  );
}

const signed = (nm: number, words: string) => `${nm < 0 ? "− " : ""}${words}`;

/** Inches to the thousandth: the terms of a sum are finer than a tape. */
const thousandths = (nm: number) => signed(nm, `${(Math.abs(nm) / INCH).toFixed(3)}″`);
const millimetres = (nm: number) => signed(nm, `${(Math.abs(nm) / 1_000_000).toFixed(2)} mm`);
