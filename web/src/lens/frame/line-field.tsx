import { useEffect, useId, useRef, useState } from "react";
import type { Done, Edit } from "../../api/client";
import { useRefusedAt, useRun } from "../../desk/use";
import { Sending } from "../../lib/sending";
import { Sorry } from "../refused";

interface Props {
  label: string;
  placeholder: string;
  press: string;
  note?: string;
  mayBeEmpty?: boolean;
  /** It came into view because it was asked for. */
  takesFocus?: boolean;
  /** What is picked stays picked. */
  keep?: boolean;
  /** The gesture that a line means, or why it means none. */
  edit: (line: string) => Edit | string;
  onDone?: (d: Done) => void;
  /** Escape was pressed: it need not be there any more. */
  onLeave?: () => void;
}

/** A line to type and a button that does it. What is refused stays in the field, with the reason under it. */
export function LineField({ label, placeholder, press, note, mayBeEmpty, takesFocus, keep, edit, onDone, onLeave }: Props) {
  const id = useId();
  const gesture = useRun();
  const refused = useRefusedAt(id);
  const [line, setLine] = useState("");
  const [sorry, setSorry] = useState<string>();
  const sending = useRef(new Sending()).current;
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (takesFocus) input.current?.focus();
  }, [takesFocus]);
  const run = async () => {
    const sent = line;
    if (!sent.trim() && !mayBeEmpty) return;
    const e = edit(sent.trim());
    setSorry(typeof e === "string" ? e : undefined);
    if (typeof e === "string") return;
    const done = await sending.send(sent, () => gesture.run(e, { keep, at: id }));
    if (!done) return;
    setLine((now) => (now === sent ? "" : now)); // what was typed meanwhile stays
    onDone?.(done);
  };
  const why = sorry ?? refused;
  return (
    <div className="line-field">
      <label htmlFor={id} className="font-semibold">
        {label}
      </label>
      <input
        id={id}
        ref={input}
        className="field"
        value={line}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={why !== undefined}
        aria-describedby={why && `${id}-why`}
        onChange={(e) => setLine(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Enter") void run();
          else if (e.key === "Escape" && onLeave) onLeave();
          else return;
          e.preventDefault();
          e.stopPropagation();
        }}
      />
      <button type="button" className="btn btn-small" disabled={!line.trim() && !mayBeEmpty} onClick={() => void run()}>
        {press}
      </button>
      {note && <span className="line-note">{note}</span>}
      {why && (
        <div className="line-note">
          <Sorry id={`${id}-why`} what={why} />
        </div>
      )}
    </div>
  );
}

/** A whole number as it is typed; nothing for what is none. */
export const wholeOf = (text: string) => (/^\s*\d+\s*$/.test(text) ? Number(text) : undefined);

/** An angle as it is typed: 20, 20°, −15. */
export const angleOf = (text: string) =>
  /^[-−]?\d+([.,]\d+)?\s*°?$/.test(text) ? Number(text.replace("−", "-").replace(",", ".").replace("°", "")) : undefined;
