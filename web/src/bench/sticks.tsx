import type { Material, Stick } from "../api/client";
import { Len, type Style, plural, text } from "../lib/format";

/** Sticks to scale with their pieces, kerfs and what is left. */
export function Sticks({ of, style, lit, onPick }: { of: Material; style: Style; lit?: string; onPick?: (letter: string) => void }) {
  const longest = Math.max(...of.sticks.map((s) => s.length), 1);
  const alike: { stick: Stick; count: number; first: number }[] = [];
  of.sticks.forEach((s, i) => {
    const last = alike.at(-1);
    if (last && same(last.stick, s)) last.count++;
    else alike.push({ stick: s, count: 1, first: i + 1 });
  });
  return (
    <ol className="grid gap-2">
      {alike.map(({ stick, count, first }) => (
        <li key={first}>
          <div className="flex justify-between text-sm">
            <span>
              <strong>{count > 1 ? `Sticks ${first}–${first + count - 1}` : `Stick ${first}`}</strong>, {text(stick.length, "feet-inches")}
              {stick.origin === "rack" && " from the rack"}
              {stick.origin === "bought" && " bought before"}
              {count > 1 && `, ${count} cut alike`}
            </span>
            <span className="text-ink-2">
              left <Len nm={stick.left} style={style} step={32} />
            </span>
          </div>
          <div className="flex h-9 overflow-hidden rounded-sm border-[1.5px] border-ink bg-paper" style={{ width: `${(100 * stick.length) / longest}%` }}>
            {stick.pieces.map((p, i) => (
              <button
                key={i}
                type="button"
                disabled={!onPick}
                title={`${p.name ?? ""} ${text(p.length, style, 64)}`}
                aria-label={`Piece ${p.name ?? ""}, ${text(p.length, style, 64)}`}
                onClick={() => p.name && onPick?.(p.name)}
                style={{ flexBasis: `${(100 * p.length) / stick.length}%` }}
                className={`min-w-0 shrink-0 overflow-hidden border-r-2 border-ink text-center text-xs leading-tight font-bold ${
                  lit !== undefined && p.name === lit ? "bg-accent text-accent-ink" : "bg-wood/40"
                }`}
              >
                {p.name || <Len nm={p.length} style={style} step={64} />}
              </button>
            ))}
            {stick.left > 0 && <span className="hatched flex-1" title={`left ${text(stick.left, style)}`} />}
          </div>
        </li>
      ))}
    </ol>
  );
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
