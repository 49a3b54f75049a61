import type { Material } from "../../api/client";
import { Len, type Style, plural, text } from "../../lib/format";
import { Icon } from "../../ui/icons";
import { Tick } from "../../ui/tick";
import { alike, tint } from "./alike";

interface Props {
  of: Material;
  style: Style;
  /** Letters that are picked. */
  lit?: string;
  onPick?: (letter: string) => void;
  /** How many sticks are cut already, by {@link stickKey}. */
  sawn?: Record<string, number>;
  onSawn?: (key: string, cut: number) => void;
  tinted?: boolean;
  /** Letters that are not cut before they are measured on the frame. */
  waiting?: string[];
}

/** Sticks to scale in cutting order with their pieces, kerfs and what is left; those cut alike are drawn once. */
export function Sticks({ of, style, lit, onPick, sawn, onSawn, tinted, waiting }: Props) {
  const longest = Math.max(...of.sticks.map((s) => s.length), 1);
  return (
    <ol className="long grid gap-3">
      {alike(of).map(({ key, stick, count, first }, n) => {
        const cut = Math.min(count, sawn?.[key] ?? 0);
        const name = count > 1 ? `Sticks ${first}–${first + count - 1}` : `Stick ${first}`;
        return (
          <li key={key} className={`flex items-center gap-2 ${cut === count ? "is-done" : ""}`}>
            {onSawn && <SawnTick name={name} count={count} cut={cut} onSawn={(n) => onSawn(key, n)} />}
            <div className="min-w-0 flex-1">
              <div className="flex justify-between gap-2 text-sm">
                <span>
                  <strong>{name}</strong>, {text(stick.length, "feet-inches", 64)}
                  {stick.origin === "rack" && " from the rack"}
                  {stick.origin === "bought" && " bought before"}
                  {count > 1 && `, ${count} cut alike`}
                  {cut > 0 && cut < count && `, ${count - cut} to go`}
                </span>
                <span className="whitespace-nowrap text-ink-2">
                  left <Len nm={stick.left} style={style} step={32} />
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
                  </button>
                ))}
                {stick.left > 0 && <span className="stick-left" title={`left ${text(stick.left, style)}`} />}
              </div>
            </div>
          </li>
        );
      })}
    </ol>
  );
}

/** One box for one stick; for several, a box that counts them off, and the way back. */
function SawnTick({ name, count, cut, onSawn }: { name: string; count: number; cut: number; onSawn: (n: number) => void }) {
  if (count === 1) return <Tick label={`${name} is cut`} done={cut === 1} onTick={(d) => onSawn(d ? 1 : 0)} />;
  return (
    <span className="grid justify-items-center">
      <button
        type="button"
        className={`tick tick-count ${cut === count ? "is-full" : ""}`}
        aria-label={`${cut} of ${count} cut: ${name}, one more`}
        disabled={cut === count}
        onClick={() => onSawn(cut + 1)}
      >
        {cut === count ? <Icon name="check" size={18} /> : cut}
      </button>
      {cut > 0 && (
        <button type="button" className="link text-xs" aria-label={`${name}, one less cut`} onClick={() => onSawn(cut - 1)}>
          less
        </button>
      )}
    </span>
  );
}

/** What is known about a purchase, in a line. */
export function Proof({ of, style }: { of: Material; style: Style }) {
  return (
    <p className="text-sm text-ink-2">
      {of.proven ? "Proven: nothing cheaper and no fewer sticks exist." : "Best found; a better one is not ruled out."}{" "}
      {plural(of.cuts, "cut")}. Pieces and cuts take all but <Len nm={of.slack} style={style} step={32} /> of the tightest stick.
    </p>
  );
}
