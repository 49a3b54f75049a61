import type { Material, Stick } from "../../api/client";
import { Len, type Style, plural, text } from "../../lib/format";
import { Tick } from "../../ui/tick";
import { stickTint } from "./paint";

interface Props {
  of: Material;
  style: Style;
  /** Letters that are picked. */
  lit?: string;
  onPick?: (letter: string) => void;
  /** Which sticks are cut already, by {@link stickKeys}. */
  sawn?: Record<string, number>;
  onTick?: (key: string, done: boolean) => void;
  tinted?: boolean;
}

/** A name for each stick that outlives a change elsewhere in the plan: what is cut from what, and which of those alike. */
export function stickKeys(of: Material): string[] {
  const seen = new Map<string, number>();
  return of.sticks.map((s) => {
    const k = [of.key, s.length, ...s.pieces.map((p) => p.length)].join("|");
    const n = (seen.get(k) ?? 0) + 1;
    seen.set(k, n);
    return `${k}#${n}`;
  });
}

/** Sticks to scale in cutting order with their pieces, kerfs and what is left. */
export function Sticks({ of, style, lit, onPick, sawn, onTick, tinted }: Props) {
  const longest = Math.max(...of.sticks.map((s) => s.length), 1);
  const keys = stickKeys(of);
  return (
    <ol className="grid gap-3">
      {alike(of.sticks, onTick !== undefined).map(({ stick, count, first }) => {
        const key = keys[first - 1] ?? "";
        const done = sawn?.[key] !== undefined;
        return (
          <li key={first} className={`flex items-center gap-2 ${done ? "is-done" : ""}`}>
            {onTick && <Tick label={`Stick ${first} is cut`} done={done} onTick={(d) => onTick(key, d)} />}
            <div className="min-w-0 flex-1">
              <div className="flex justify-between gap-2 text-sm">
                <span>
                  <strong>{count > 1 ? `Sticks ${first}–${first + count - 1}` : `Stick ${first}`}</strong>, {text(stick.length, "feet-inches", 64)}
                  {stick.origin === "rack" && " from the rack"}
                  {stick.origin === "bought" && " bought before"}
                  {count > 1 && `, ${count} cut alike`}
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
                    style={{ flexBasis: `${(100 * p.length) / stick.length}%`, background: lit !== undefined && p.name === lit ? undefined : `var(${tinted ? stickTint(first) : "--stick-1"})` }}
                    className={`stick-piece ${lit !== undefined && p.name === lit ? "is-lit" : ""}`}
                  >
                    <span className="sr-only">Piece {done && "cut already, "}</span>
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

function alike(sticks: Stick[], apart: boolean) {
  const out: { stick: Stick; count: number; first: number }[] = [];
  sticks.forEach((s, i) => {
    const last = out.at(-1);
    // a stick to be ticked off stands by itself
    if (last && !apart && same(last.stick, s)) last.count++;
    else out.push({ stick: s, count: 1, first: i + 1 });
  });
  return out;
}

function same(a: Stick, b: Stick) {
  return a.length === b.length && a.origin === b.origin && a.pieces.length === b.pieces.length && a.pieces.every((p, i) => p.length === b.pieces[i]?.length && p.name === b.pieces[i]?.name);
}

/** What is known about a purchase, in a line. */
export function Proof({ of }: { of: Material }) {
  return (
    <p className="text-sm text-ink-2">
      {of.proven ? "Proven: nothing cheaper and no fewer sticks exist." : "Best found; a better one is not ruled out."} {plural(of.cuts, "cut")}. Tightest stick has{" "}
      {text(of.slack, "inches", 32)} to spare.
    </p>
  );
}
