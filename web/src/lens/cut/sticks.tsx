import type { PipeTotal } from "../../api/client";
import { Len, type Style, feet, plural, text } from "../../lib/format";
import { Icon } from "../../ui/icons";
import { Tick } from "../../ui/tick";
import { type DrawnStick, alike, tint } from "./alike";

interface Props<T extends DrawnStick> {
  sticks: T[];
  style: Style;
  /** Letters that are picked. */
  lit?: string;
  onPick?: (letter: string) => void;
  /** Whether a stick is cut. */
  isCut?: (s: T) => boolean;
  /** One is cut, or was not after all. */
  onCut?: (s: T, cut: boolean) => void;
  /** What is left of a stick goes to the rack. */
  onRack?: (id: string) => void;
  tinted?: boolean;
  /** How many sticks come before these. */
  before?: number;
  /** Letters that are not cut before they are measured on the frame. */
  waiting?: string[];
}

const fromWords: Record<string, string> = {
  rack: " from the rack",
  bought: " bought",
  offcut: " left of another",
  piece: " cut before",
};

/** Sticks to scale in cutting order with their pieces, kerfs and what is left; those cut alike are drawn once. */
export function Sticks<T extends DrawnStick>({ sticks, style, lit, onPick, isCut, onCut, onRack, tinted, before = 0, waiting }: Props<T>) {
  const longest = Math.max(...sticks.map((s) => s.length), 1);
  return (
    <ol className="long grid gap-3">
      {alike(sticks).map(({ key, all, stick, first: at }, n) => {
        const first = before + at;
        const count = all.length;
        const cut = isCut ? all.filter(isCut).length : 0;
        const trim = stick.origin === "piece" && stick.pieces.length === 1;
        const numbers = count > 1 ? `${first}–${first + count - 1}` : `${first}`;
        const name = trim ? `Trim ${stick.letter || "piece"} (${numbers})` : `${count > 1 ? "Sticks" : "Stick"} ${numbers}`;
        return (
          <li key={key} className={`flex items-center gap-2 ${cut === count ? "is-done" : ""}`}>
            {onCut && (
              <CutTick
                name={name}
                count={count}
                cut={cut}
                onMore={() => {
                  const next = all.find((s) => !isCut?.(s));
                  if (next) onCut(next, true);
                }}
                onLess={() => {
                  const last = all.filter((s) => isCut?.(s)).at(-1);
                  if (last) onCut(last, false);
                }}
              />
            )}
            <div className="min-w-0 flex-1">
              <div className="flex justify-between gap-2 text-sm">
                <span>
                  <strong>{name}</strong>, {text(stick.length, "feet-inches", 64)}
                  {trim ? " as it is" : (fromWords[stick.origin] ?? "")}
                  {count > 1 && `, ${count} cut alike`}
                  {cut > 0 && cut < count && `, ${count - cut} to go`}
                  {stick.edge && <strong className="text-warn">, on a knife edge</strong>}
                </span>
                <span className="whitespace-nowrap text-ink-2">
                  left <Len nm={stick.left} style={style} step={32} />
                  {onRack && (cut === count || stick.earlier) && stick.left >= worthKeeping && !trim && (
                    <Rack sticks={all} onRack={onRack} />
                  )}
                </span>
              </div>
              <div className="stick" style={{ width: `${(100 * stick.length) / longest}%` }}>
                {stick.pieces.map((p, i) => (
                  <button
                    key={i}
                    type="button"
                    disabled={!onPick}
                    title={`${p.name ?? ""} ${text(p.length, style, 64)}`}
                    onClick={() => p.name && onPick?.(p.name)}
                    style={{
                      flexBasis: `${(100 * p.length) / stick.length}%`,
                      background: lit !== undefined && p.name === lit ? undefined : `var(${tinted ? tint(n) : "--stick-1"})`,
                    }}
                    className={`stick-piece ${lit !== undefined && p.name === lit ? "is-lit" : ""} ${p.name && waiting?.includes(p.name) ? "is-waiting" : ""}`}
                  >
                    {p.name && waiting?.includes(p.name) && <span className="sr-only">held in reserve, </span>}
                    <span className="sr-only">Piece {cut === count && "cut already, "}</span>
                    <b>{p.name}</b>
                    <span>
                      <Len nm={p.length} style={style} step={64} />
                    </span>
                    {stick.earlier && p.fate !== "keep" && <i className="stick-fate">{p.fate ? fateWords[p.fate] : "used up"}</i>}
                  </button>
                ))}
                {stick.left > 0 && <span className="stick-left" title={`left ${text(stick.left, style)}`} />}
              </div>
              {(stick.marks?.length ?? 0) > 0 && (
                <p className="text-sm">
                  Cut in the shop at {stick.marks?.map((m) => text(m, style)).join(" and ")} from one end; carried as{" "}
                  {stick.parts?.map((p) => text(p.length, style)).join(", ")}.
                </p>
              )}
            </div>
          </li>
        );
      })}
    </ol>
  );
}

/** What is shorter holds next to nothing, and is under what a saw should cut by hand. */
const worthKeeping = 6 * 25_400_000; // nm

/** Puts what is left of sticks on the rack, where every project finds it. */
function Rack({ sticks, onRack }: { sticks: DrawnStick[]; onRack: (id: string) => void }) {
  const next = sticks.find((s) => s.id && !s.racked);
  if (!next?.id) return <span>, on the rack</span>;
  return (
    <>
      {" "}
      <button type="button" className="link" onClick={() => next.id && onRack(next.id)}>
        to the rack
      </button>
    </>
  );
}

const fateWords: Record<string, string> = { trim: "to trim", recut: "too short now", surplus: "not needed" };

/** One box for one stick; for several, a box that counts them off, and the way back. */
function CutTick({
  name,
  count,
  cut,
  onMore,
  onLess,
}: {
  name: string;
  count: number;
  cut: number;
  onMore: () => void;
  onLess: () => void;
}) {
  if (count === 1) return <Tick label={`${name} is cut`} done={cut === 1} onTick={(d) => (d ? onMore() : onLess())} />;
  return (
    <span className="grid justify-items-center">
      <button
        type="button"
        className={`tick tick-count ${cut === count ? "is-full" : ""}`}
        aria-label={`${cut} of ${count} cut: ${name}, one more`}
        disabled={cut === count}
        onClick={onMore}
      >
        {cut === count ? <Icon name="check" size={18} /> : cut}
      </button>
      {cut > 0 && (
        <button type="button" className="link text-xs" aria-label={`${name}, one less cut`} onClick={onLess}>
          less
        </button>
      )}
    </span>
  );
}

/** The sticks of a size, in words: how many of which, and how many of them are there. */
export const sticksWords = (t: PipeTotal) =>
  t.need.map((n) => `${n.count} × ${feet(n.length)} ft${n.got ? ` (${n.got === n.count ? "all" : n.got} at hand)` : ""}`).join(" and ") ||
  "nothing to buy";

/** What is known about a purchase, in a line. */
export function Proof({
  of,
  style,
}: {
  of: { proven: boolean; cuts: number; closest: number; edges?: number; net: number };
  style: Style;
}) {
  if (of.net === 0) return null;
  return (
    <p className="text-sm text-ink-2">
      {of.proven
        ? "Proven: nothing cheaper and no fewer sticks exist; cuts and leftovers are the best found."
        : "Best found; a better one is not ruled out."}{" "}
      {plural(of.cuts, "cut")}. The tightest stick has <Len nm={of.closest} style={style} step={32} /> left
      {of.edges ? `, and ${plural(of.edges, "stick is", "sticks are")} on a knife edge` : ""}.
    </p>
  );
}
