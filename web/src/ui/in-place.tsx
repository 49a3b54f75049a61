import { type ReactNode, useState } from "react";

interface Props<T> {
  label: string;
  shown: ReactNode;
  /** The text it begins with. */
  start: string;
  hint: string;
  /** Reads what is typed; undefined when it cannot be. */
  read: (t: string) => T | undefined;
  onSet: (v: T, text: string) => void;
  className?: string;
}

/** A figure that is a button until it is pressed, and then a field. Leaving it keeps what can be read. */
export function InPlace<T>({ label, shown, start, hint, read, onSet, className }: Props<T>) {
  const [typed, setTyped] = useState<string>();
  if (typed === undefined)
    return (
      <button type="button" className="why" onClick={() => setTyped(start)}>
        <span className="sr-only">{label}: </span>
        {shown}
      </button>
    );
  const value = read(typed);
  const done = () => {
    if (value !== undefined && typed !== start) onSet(value, typed.trim());
    setTyped(undefined);
  };
  return (
    <span className="relative inline-block">
      <input
        className={`field text-right ${className ?? "w-20"}`}
        aria-label={label}
        aria-invalid={value === undefined && typed !== ""}
        // biome-ignore lint/a11y/noAutofocus: the field takes the place of the button that was pressed
        autoFocus
        onFocus={(e) => e.target.select()}
        inputMode="decimal"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={done}
        onKeyDown={(e) => {
          if (e.key === "Escape") setTyped(undefined);
          if (e.key === "Enter" && value !== undefined) done();
        }}
      />
      {value === undefined && typed !== "" && (
        <span role="alert" className="note absolute top-full right-0 z-10 mt-1 px-2 py-1 text-xs whitespace-nowrap">
          {hint}
        </span>
      )}
    </span>
  );
}
