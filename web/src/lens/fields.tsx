import { useId } from "react";
import { useOpenState } from "../desk/use";
import { Sorry } from "./refused";

/** What was wrong with the gesture that a form asked for last: why gives it for the field at fault, rest where it is none of the form's fields. */
export function useFaults(form: string, fields: string[]) {
  const refused = useOpenState((s) => (s.refused?.at === form ? s.refused : undefined));
  const at = fields.find((f) => f === refused?.field);
  return { why: (field: string) => (field === at ? refused?.what : undefined), rest: at === undefined ? refused?.what : undefined };
}

interface FieldProps {
  label: string;
  hint?: string;
  value: string;
  /** What is wrong with it. */
  why?: string;
  /** How many lines it has; one without. */
  rows?: number;
  onChange: (v: string) => void;
}

/** A field of a form with its label; why it was refused stands under it. */
export function Field({ label, hint, value, why, rows, onChange }: FieldProps) {
  const id = useId();
  const given = {
    id,
    value,
    placeholder: hint,
    autoComplete: "off",
    autoCapitalize: "none",
    spellCheck: false,
    "aria-invalid": why !== undefined,
    "aria-describedby": why && `${id}-why`,
    onChange: (e: { target: { value: string } }) => onChange(e.target.value),
  };
  return (
    <div className="text-sm">
      <label htmlFor={id} className={rows ? "grid gap-1" : "flex items-center justify-between gap-2"}>
        {label}
        {rows ? <textarea className="field" rows={rows} {...given} /> : <input className="field w-48" {...given} />}
      </label>
      {why && <Sorry id={`${id}-why`} what={why} />}
    </div>
  );
}
