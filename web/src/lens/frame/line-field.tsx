import { useQuery } from "@tanstack/react-query";
import { useEffect, useId, useRef, useState } from "react";
import type { Done, Edit } from "../../api/client";
import { useNamed, useRefusedAt, useRun } from "../../desk/use";
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
  /** What would come of it is told while it is typed. */
  foretells?: boolean;
}

/** A line to type and a button that does it. What is refused stays in the field, with the reason under it. */
export function LineField({ label, placeholder, press, note, mayBeEmpty, takesFocus, keep, edit, onDone, onLeave, foretells }: Props) {
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
      {foretells && line.trim() && !why && <Foretold edit={edit} line={line} />}
      {note && <span className="line-note">{note}</span>}
      {why && (
        <div className="line-note">
          <Sorry id={`${id}-why`} what={why} />
        </div>
      )}
    </div>
  );
}

/** What a line would give up or ask, before it is done. */
function Foretold({ edit, line }: Pick<Props, "edit"> & { line: string }) {
  const gesture = useRun();
  const named = useNamed();
  const [settled, setSettled] = useState(line);
  useEffect(() => {
    const soon = setTimeout(() => setSettled(line), 200);
    return () => clearTimeout(soon);
  }, [line]);
  const e = edit(settled.trim());
  const read = useQuery({
    queryKey: ["foretold", gesture.revision(), e],
    queryFn: () => gesture.foretell(e as Edit),
    enabled: typeof e !== "string",
    retry: false,
  });
  const told = read.data;
  if (!told || read.isFetching) return null;
  return (
    <span className="line-note" role="status">
      {named(told)}
    </span>
  );
}

/** A whole number as it is typed; nothing for what is none. */
export const wholeOf = (text: string) => (/^\s*\d+\s*$/.test(text) ? Number(text) : undefined);

/** An angle as it is typed: 20, 20°, −15. */
export const angleOf = (text: string) =>
  /^[-−]?\d+([.,]\d+)?\s*°?$/.test(text) ? Number(text.replace("−", "-").replace(",", ".").replace("°", "")) : undefined;
