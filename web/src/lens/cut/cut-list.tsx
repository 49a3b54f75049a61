import type { CutLine } from "../../api/client";
import { useOpen, usePlan, useStyle } from "../../desk/use";
import { Len } from "../../lib/format";
import { classWords, pathWords, sizeWords } from "../../lib/words";
import { Why } from "../../ui/why";
import { SavesBeside } from "./savings";

/** The cut list: a line for each letter, with how many there are and how many are cut. */
export function CutList({ lit, onPick }: { lit?: string; onPick: (letter: string) => void }) {
  const plan = usePlan();
  const waits = plan.cuts.filter((g) => g.waits).map((g) => g.letter);
  return (
    <>
      <ul className="long grid gap-x-6 sm:grid-cols-2">
        {plan.cuts.map((g) => (
          <Line key={g.letter} of={g} lit={lit === g.letter} onPick={onPick} />
        ))}
      </ul>
      {waits.length > 0 && (
        <p className="mt-1 text-sm font-semibold text-warn">
          Leave {waits.join(", ")} uncut until the rest stands: the length shown is held in reserve. Pick the pipe in the Frame lens and
          type what you measure.
        </p>
      )}
      {plan.cuts.some((g) => g.hidden) && <p className="mt-1 text-sm text-ink-2">A hidden nipple: the fittings touch and no pipe shows.</p>}
    </>
  );
}

function Line({ of: g, lit, onPick }: { of: CutLine; lit: boolean; onPick: (letter: string) => void }) {
  const style = useStyle();
  const { several } = useOpen();
  return (
    <li className={`cut-row ${lit ? "is-lit" : ""}`}>
      <button
        type="button"
        className="letter"
        aria-pressed={lit}
        aria-label={`Show ${g.letter} on the ${several ? "sticks" : "frame"}`}
        onClick={() => onPick(g.letter)}
      >
        {g.letter}
      </button>
      <span className="min-w-8 text-right text-lg">{g.count}×</span>
      <span className="flex-1 font-display text-2xl leading-tight font-semibold">
        <Why label={`Cut ${g.letter}`} sum={g.sum} total={g.cut} of={<Len nm={g.cut} style={style} step={64} />} />
        <span className="block font-sans font-normal">
          <SavesBeside letter={g.letter} />
        </span>
      </span>
      <span className="text-right text-sm leading-tight text-ink-2">
        {(g.done ?? 0) > 0 && (
          <strong className="block whitespace-nowrap">{(g.done ?? 0) >= g.count ? "all cut" : `${g.done} of ${g.count} cut`}</strong>
        )}
        {(g.trims ?? 0) > 0 && <strong className="block text-warn">{g.trims} to trim</strong>}
        {sizeWords(g.size)}
        {g.hidden && <span className="block">hidden nipple</span>}
        {g.path && <span className="block">{pathWords(g.path)}</span>}
        {g.waits ? <strong className="block text-warn">at most</strong> : g.class && <span className="block">{classWords(g.class)}</span>}
        {g.typed && <span className="block">typed {g.typed}</span>}
        {g.tooShort && <strong className="block text-bad">too short</strong>}
      </span>
    </li>
  );
}
