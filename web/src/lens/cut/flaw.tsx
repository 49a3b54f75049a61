import { useState } from "react";
import { partsOf, readLengths } from "../../api/lengths";
import { newId } from "../../desk/device";
import { partedInto, withOutgoing } from "../../desk/doing";
import { useOpen, useOpenState, useStyle } from "../../desk/use";
import { INCH, text } from "../../lib/format";
import { Unanswered } from "../../lib/touch";
import { partAt } from "./left-over";
import type { Step } from "./steps";

/** What is wrong with a stick besides a cut: it has a flaw, and where; or it is not as long as it was to be. What is good of it is planned anew. */
export function Flaw({ step: s, onSaid }: { step: Step; onSaid: (stick: string) => void }) {
  const open = useOpen();
  const style = useStyle();
  const out = useOpenState((x) => x.outgoing.events);
  const [asked, setAsked] = useState(false);
  const [good, setGood] = useState("");
  const [why, setWhy] = useState("");
  // what is left to say it of: the part that the piece is on, or what is left of the stick
  const part = partAt(s.stick, s.at);
  const done = withOutgoing(out);
  const begun = s.stick.pieces.some((p) => p.pipe && done.isCut(p));
  if (out.length > 0) return null; // what was cut is on its way: what is left is known in a moment
  const whole = { id: part?.id ?? s.stick.id ?? newId(), origin: part ? "part" : s.stick.origin };
  const on = part ? s.stick.pieces.slice(s.at - piecesBefore(s, part), s.at) : s.stick.pieces;
  const cut = on.filter((p) => p.pipe && done.isCut(p)).reduce((n, p) => n + p.length + p.kerf, 0);
  const left = (part?.length ?? (s.stick.true || s.stick.length)) - cut;
  if (part && !part.id) return null; // it is not in parts yet
  // a flaw for an example, a third of the way along it
  const unit = style === "metric" ? 10_000_000 : INCH;
  const from = Math.floor(left / 3 / unit) * unit;
  const [to, rest] = [from + 3 * unit, Math.max(0, left - from - 3 * unit)];
  const take = async () => {
    try {
      const lengths = await readLengths(partsOf(good), style, "40, 37 1/2");
      if (lengths.reduce((n, l) => n + l, 0) > left) {
        setWhy(`It is ${text(left, style, 64)} long: the good lengths come to more`);
        return;
      }
      open.did(partedInto(s.of.size, { ...whole, length: left }, lengths));
      setAsked(false);
      onSaid(whole.id);
    } catch (e) {
      setWhy(e instanceof Unanswered ? "The server does not answer. Nothing was changed." : (e as Error).message);
    }
  };
  if (!asked)
    return (
      <button type="button" className="btn" onClick={() => setAsked(true)}>
        The stick is not right …
      </button>
    );
  return (
    <form
      className="saw-flaw"
      onSubmit={(e) => {
        e.preventDefault();
        void take();
      }}
    >
      <label className="font-semibold">
        Good lengths {begun ? "of what is left" : "of it"}, from the end cut first
        <input
          className="field mt-1 block w-56 text-xl"
          // biome-ignore lint/a11y/noAutofocus: it is what was asked for
          autoFocus
          autoComplete="off"
          placeholder={text(left, style, 64)}
          aria-invalid={Boolean(why)}
          aria-describedby="flaw-help"
          value={good}
          onChange={(e) => {
            setGood(e.target.value);
            setWhy("");
          }}
        />
      </label>
      <button type="submit" className="btn" disabled={!good.trim()}>
        Plan with these
      </button>
      <button type="button" className="btn" onClick={() => setAsked(false)}>
        Leave it
      </button>
      <p id="flaw-help" role={why ? "alert" : undefined} className={why ? "font-semibold text-bad" : "text-ink-2"}>
        {why ||
          `It has ${text(left, style, 64)}. A flaw from ${text(from, style)} to ${text(to, style)}: write ${text(from, style)}, ${text(rest, style, 64)}. Shorter than it says: write how long it is.`}
      </p>
    </form>
  );
}

/** How many pieces of a part come before a step. */
function piecesBefore(s: Step, part: { id?: string }): number {
  let from = 0;
  for (const p of s.stick.parts ?? []) {
    if (p.id === part.id) break;
    from += p.pieces;
  }
  return s.at - from;
}
