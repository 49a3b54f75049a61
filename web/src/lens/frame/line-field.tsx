import { useId, useState } from "react";

interface Props {
  label: string;
  placeholder: string;
  press: string;
  note?: string;
  mayBeEmpty?: boolean;
  /** Clears the field when it gives something back. */
  onRun: (text: string) => Promise<unknown>;
}

/** A line to type and a button that does it. */
export function LineField({ label, placeholder, press, note, mayBeEmpty, onRun }: Props) {
  const id = useId();
  const [line, setLine] = useState("");
  const run = async () => {
    if (!line.trim() && !mayBeEmpty) return;
    if (await onRun(line.trim())) setLine("");
  };
  return (
    <div className="line-field">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <input
        id={id}
        className="field"
        value={line}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        onChange={(e) => setLine(e.target.value)}
        onKeyDown={(e) => {
          if (e.key !== "Enter") return;
          e.preventDefault();
          void run();
        }}
      />
      <button type="button" className="btn btn-small" disabled={!line.trim() && !mayBeEmpty} onClick={() => void run()}>
        {press}
      </button>
      {note && <span className="line-note">{note}</span>}
    </div>
  );
}
