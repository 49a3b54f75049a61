import { useEffect, useRef } from "react";
import { useNow, usePlanned } from "../../desk/use";
import { INCH, type Style } from "../../lib/format";
import { type Target, asTyped, tapeStep } from "./targets";

interface Props {
  id?: string;
  label?: string;
  target: Target;
  style: Style;
  describedBy?: string;
  autoFocus?: boolean;
  className?: string;
  onChange: (text: string, nudged: boolean) => void;
  onDone: () => void;
  onKey?: (key: string) => void;
}

/** A length as people write it. Up and Down move it by a step of the tape, with Shift by an inch. */
export function LengthField({ id, label, target: t, style, describedBy, autoFocus, className, onChange, onDone, onKey }: Props) {
  // a step goes from what the plan makes of the text that is there: until it knows that text the steps are owed
  const now = useNow();
  const { of, old } = usePlanned();
  const owed = useRef(0);
  const pay = () => {
    const by = owed.current;
    const value = t.sized?.holds === false ? t.sized.out : t.sized?.value;
    if (by === 0 || of !== now || old || value === undefined || t.error) return;
    owed.current = 0;
    const step = tapeStep(style);
    const next = Math.round((value + by) / step) * step;
    if (next > 0) onChange(asTyped(next, style), true);
  };
  useEffect(pay);
  const nudge = (by: number) => {
    if (t.error || old) return; // what cannot be read is mended first: a step that is paid then comes as a surprise
    owed.current += by;
    pay();
  };
  return (
    <input
      id={id}
      aria-label={label}
      className={`field text-lg font-semibold ${t.sized?.holds === false && !t.error ? "line-through" : ""} ${className ?? ""}`}
      value={t.answer.text}
      autoComplete="off"
      spellCheck={false}
      // biome-ignore lint/a11y/noAutofocus: the field takes the place of the text that was pressed
      autoFocus={autoFocus}
      aria-invalid={t.error !== undefined}
      aria-describedby={describedBy}
      onFocus={(e) => autoFocus && e.target.select()}
      onChange={(e) => {
        owed.current = 0;
        onChange(e.target.value, false);
      }}
      onBlur={onDone}
      onKeyDown={(e) => {
        const step = e.shiftKey ? (style === "metric" ? 10_000_000 : INCH) : tapeStep(style);
        if (e.key === "ArrowUp") nudge(step);
        else if (e.key === "ArrowDown") nudge(-step);
        else {
          onKey?.(e.key);
          return;
        }
        e.preventDefault();
      }}
    />
  );
}
