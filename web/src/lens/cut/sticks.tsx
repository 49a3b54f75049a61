import type { ReactNode } from "react";
import type { PipeTotal } from "../../api/client";
import { Len, type Style, feet, plural, text } from "../../lib/format";
import { Icon } from "../../ui/icons";
import { InPlace } from "../../ui/in-place";
import { Tick } from "../../ui/tick";
import { type DrawnPiece, type DrawnStick, alike, tint } from "./alike";
import { type Run, carriedAs, runsOf } from "./runs";
import { usedWhole } from "./steps";

/** What is written under each stick. */
export type Under = "stops" | "marks" | "both" | "none";

/** What a piece of pipe is called that lies on the rack. */
const onRackWords = (s: DrawnStick) => (s.mark ? ` ${s.mark} from the rack` : " from the rack");

interface Props<T extends DrawnStick> {
  sticks: T[];
  style: Style;
  /** Letters that are picked. */
  lit?: string;
  onPick?: (letter: string) => void;
  /** Whether a piece is cut. */
  isCut?: (p: T["pieces"][number]) => boolean;
  /** A stick is cut, or was not after all. */
  onCut?: (s: T, cut: boolean) => void;
  /** What is left of a stick goes to the rack, unless it is scrap. */
  onRack?: (id: string) => void;
  /** Whether more is cut from what is left of a stick. */
  goesOn?: (s: T) => boolean;
  /** What is shorter is scrap, in nanometres. */
  scrap?: number;
  tinted?: boolean;
  /** What they are called, one and several: Stick, Sticks. */
  called?: readonly [string, string];
  /** How many sticks come before these. */
  before?: number;
  /** Letters that are not cut before they are measured on the frame. */
  waiting?: string[];
  /** Letters of pieces too short to be held by hand at the saw that cuts them. */
  short?: string[];
  under?: Under;
  /** What else there is to say of a stick. */
  note?: (s: T) => ReactNode;
  /** Says how a stick really came home: the lengths of its parts, as typed. */
  onCame?: (s: T, text: string) => Promise<void>;
  /** Cuts that cost most to spoil: the stick, and the letter. */
  fatal?: (s: T, letter: string) => boolean;
}

const fromWords: Record<string, string> = {
  bought: " bought",
  home: " from home",
  part: ", a part at home",
  offcut: " left of another",
  piece: " cut before",
};

/** Sticks to scale in cutting order with their pieces, kerfs and what is left; those cut alike are drawn once. */
export function Sticks<T extends DrawnStick>({ sticks, before = 0, ...p }: Props<T>) {
  const longest = Math.max(...sticks.map((s) => s.length), 1);
  return (
    <ol className="long grid gap-4">
      {alike(sticks).map(({ key, all, first }, n) => (
        <Row key={key} all={all} first={before + first} longest={longest} tinted={p.tinted ? tint(n) : undefined} of={p} />
      ))}
    </ol>
  );
}

/** Sticks that go by the length that they are sold as; of any other the length is a measure. */
export const asSold = ["shop", "bought", "home"];

/** What is shorter holds next to nothing, and is under what a saw should cut by hand. */
export const usualScrap = 6 * 25_400_000; // nm

/** A stick, or several that are cut alike. */
function Row<T extends DrawnStick>({
  all,
  first,
  longest,
  tinted,
  of: {
    style,
    lit,
    onPick,
    isCut,
    onCut,
    onRack,
    goesOn,
    scrap = usualScrap,
    called = ["Stick", "Sticks"],
    waiting,
    short,
    under = "none",
    note,
    onCame,
    fatal,
  },
}: {
  all: T[];
  first: number;
  longest: number;
  tinted?: string;
  of: Omit<Props<T>, "sticks">;
}) {
  const stick = all[0] as T;
  const whole = (s: T) => s.pieces.every((p) => isCut?.(p));
  const count = all.length;
  const cut = isCut ? all.filter(whole).length : 0;
  // the one at the saw: some of its pieces are cut
  const begun = isCut ? all.find((s) => !whole(s) && s.pieces.some((p) => isCut(p))) : undefined;
  const trim = stick.origin === "piece" && stick.pieces.length === 1;
  const numbers = numbersOf(all.map((s, i) => s.number ?? first + i));
  const name = trim ? `Trim ${stick.letter || "piece"} (${numbers})` : `${called[count > 1 ? 1 : 0]} ${numbers}`;
  const runs = runsOf(stick);
  const parts = carriedAs(stick, runs);
  const tooShort = [...new Set(runs.map((r) => r.name).filter((l): l is string => l !== undefined && Boolean(short?.includes(l))))];
  return (
    <li className={`flex items-start gap-2 ${cut === count ? "is-done" : ""}`}>
      {onCut && (
        <CutTick
          name={name}
          count={count}
          cut={cut}
          onMore={() => {
            const next = all.find((s) => !whole(s));
            if (next) onCut(next, true);
          }}
          onLess={() => {
            const last = all.filter((s) => isCut && s.pieces.some((p) => isCut(p))).at(-1);
            if (last) onCut(last, false);
          }}
        />
      )}
      <div className="min-w-0 flex-1">
        <div className="flex flex-wrap justify-between gap-x-2 text-sm">
          <span>
            <strong>{name}</strong>,{" "}
            {text(
              stick.origin === "part" ? (stick.true ?? stick.length) : stick.length,
              asSold.includes(stick.origin) ? "feet-inches" : style,
              64,
            )}
            {stick.true && stick.origin !== "part" ? ` (it measures ${text(stick.true, style, 64)})` : ""}
            {trim ? " as it is" : stick.origin === "rack" ? onRackWords(stick) : (fromWords[stick.origin] ?? "")}
            {count > 1 && `, ${plural(count, "stick")} cut alike`}
            {count > 1 && cut > 0 && `: ${cut} of ${count} cut`}
            {begun && `, at the saw: ${begun.pieces.filter((p) => isCut?.(p)).length} of ${begun.pieces.length} pieces`}
            {stick.edge && <strong className="text-warn">, on a knife edge</strong>}
          </span>
          <span className="whitespace-nowrap text-ink-2">
            left <Len nm={stick.left} style={style} step={32} />
            {goesOn?.(stick) && ", more is cut from it below"}
            {onRack && !stick.parts?.[0]?.id && !goesOn?.(stick) && (cut === count || stick.earlier) && stick.left >= scrap && !trim && (
              <Rack sticks={all} onRack={onRack} />
            )}
          </span>
        </div>
        <div className="stick-parts" style={{ width: `${Math.max(40, (100 * stick.length) / longest)}%` }}>
          {parts.map((part, k) => (
            <div key={k} className="min-w-0" style={{ flex: `${part.length / stick.length} 1 0` }}>
              <div className="stick">
                {part.runs.map((r) => (
                  <Piece
                    key={r.first}
                    run={r}
                    of={part.length}
                    style={style}
                    lit={lit !== undefined && r.name === lit}
                    tint={tinted ?? "--stick-1"}
                    waits={Boolean(r.name && waiting?.includes(r.name))}
                    done={begun ? begun.pieces.slice(r.first, r.first + r.pieces.length).filter((p) => isCut?.(p)).length : 0}
                    all={cut === count}
                    earlier={Boolean(stick.earlier)}
                    fatal={Boolean(r.name && fatal?.(stick, r.name))}
                    onPick={onPick}
                  />
                ))}
                {part.left > 0 && (
                  <span className="stick-left" style={{ flexGrow: part.left / part.length }}>
                    {part.left > longest / 5 && (
                      <span>
                        left <Len nm={part.left} style={style} step={32} />
                      </span>
                    )}
                  </span>
                )}
              </div>
              {parts.length > 1 && (
                <p className="stick-part">
                  <Len nm={part.length} style={style} step={64} /> {part.id ? "at home" : "to carry"}
                  {onRack && part.id && (cut === count || stick.earlier) && part.left >= scrap && (
                    <Rack sticks={[{ ...stick, id: part.id, racked: part.racked }]} onRack={onRack} />
                  )}
                </p>
              )}
            </div>
          ))}
        </div>
        {under !== "none" && !trim && usedWhole(stick) && <p className="stick-under">Used whole: nothing is cut of it</p>}
        {(under === "stops" || under === "both") && !trim && !usedWhole(stick) && <Stops runs={runs} style={style} />}
        {(under === "marks" || under === "both") && !trim && !usedWhole(stick) && <Marks runs={runs} style={style} />}
        {(stick.marks?.length ?? 0) > 0 && (
          <p className="text-sm">
            Cut in the shop at {stick.marks?.map((m) => text(m, style)).join(" and ")} from one end; carried as{" "}
            {stick.parts?.map((p) => text(p.length, style)).join(", ")}.
          </p>
        )}
        {tooShort.length > 0 && (
          <p className="text-sm font-semibold text-warn">
            {tooShort.join(", ")} under 6″: clamp {tooShort.length > 1 ? "them" : "it"}, and never hold{" "}
            {tooShort.length > 1 ? "them" : "it"} by hand at a powered saw.
          </p>
        )}
        {(stick.lent?.length ?? 0) > 0 && (
          <p className="text-sm">
            Also cut from it: {stick.lent?.map((l) => `${text(l.takes, style, 64)} for ${l.for || "another project"}`).join(", ")}.
          </p>
        )}
        {onCame && stick.id && ["shop", "bought"].includes(stick.origin) && !stick.earlier && cut === 0 && (
          <p className="flex flex-wrap items-baseline gap-x-2 text-sm">
            It came home as
            <InPlace
              label={`${name} came home as`}
              shown={
                stick.parts?.length
                  ? stick.parts.map((p) => text(p.length, style, 64)).join(", ")
                  : text(stick.true ?? stick.length, style, 64)
              }
              start={
                stick.parts?.length
                  ? stick.parts.map((p) => text(p.length, style, 64)).join(", ")
                  : text(stick.true ?? stick.length, style, 64)
              }
              className="w-48"
              take={(t) => onCame(stick, t)}
            />
          </p>
        )}
        {note?.(stick)}
      </div>
    </li>
  );
}

function Piece({
  run: r,
  of,
  style,
  lit,
  tint,
  waits,
  done,
  all,
  earlier,
  fatal,
  onPick,
}: {
  run: Run;
  /** How long what it is on is, nm: the stick, or the part of it that is carried. */
  of: number;
  style: Style;
  lit: boolean;
  tint: string;
  waits: boolean;
  /** How many of the run are cut, where the stick is at the saw. */
  done: number;
  all: boolean;
  earlier: boolean;
  fatal: boolean;
  onPick?: (letter: string) => void;
}) {
  const n = r.pieces.length;
  const fate = r.pieces[0]?.fate;
  const shown = (
    <>
      {waits && <span className="sr-only">held in reserve, </span>}
      {(all || done > 0) && <span className="sr-only">{all || done === n ? "cut already, " : `${done} of ${n} cut, `}</span>}
      <b>
        {done > 0 && !all && <span aria-hidden="true">✓</span>}
        {r.name}
        {n > 1 && <i className="stick-times">×{n}</i>}
        {fatal && <i className="stick-fatal">!</i>}
      </b>
      <span className="stick-length">
        <Len nm={r.length} style={style} step={64} />
      </span>
      {fatal && <span className="sr-only">, the worst to spoil</span>}
      {earlier && fate !== "keep" && <i className="stick-fate">{fate ? fateWords[fate] : "used up"}</i>}
    </>
  );
  const looks = {
    className: `stick-piece ${lit ? "is-lit" : ""} ${waits ? "is-waiting" : ""} ${n > 1 ? "is-run" : ""} ${done === n && !all ? "is-cut" : ""}`,
    style: { flexGrow: (r.length * n) / of, backgroundColor: lit ? undefined : `var(${tint})`, "--n": n } as React.CSSProperties,
  };
  const name = r.name;
  if (!onPick || !name) return <span {...looks}>{shown}</span>;
  return (
    <button type="button" {...looks} onClick={() => onPick(name)}>
      {shown}
    </button>
  );
}

/** How the stop is set, and how many pieces are cut in each setting. */
function Stops({ runs, style }: { runs: Run[]; style: Style }) {
  return (
    <p className="stick-under">
      Stop at{" "}
      {runs.map((r, i) => (
        <span key={r.first}>
          {i > 0 && ", then "}
          <Len nm={r.length} style={style} step={64} />
          {r.pieces.length > 1 && ` (${r.pieces.length} cuts)`}
        </span>
      ))}
    </p>
  );
}

/** Where the cuts are on the whole stick, all measured from the same end. */
function Marks({ runs, style }: { runs: Run[]; style: Style }) {
  const parts: DrawnPiece[][] = [];
  for (const r of runs) {
    if (parts.length === 0 || r.part) parts.push([]);
    parts.at(-1)?.push(...r.pieces);
  }
  // what is cut has no mark any more: the others are measured from the end that is left
  const begun = parts.some((all) => all.some((p) => p.cut));
  const left = parts.map((all) => all.filter((p) => !p.cut)).filter((all) => all.length > 0);
  if (left.length === 0) return null;
  return (
    <p className="stick-under">
      {left.map((pieces, i) => (
        <span key={`${i} ${pieces[0]?.at}`}>
          {i > 0 && "; of the next part "}
          {i === 0 && (begun ? "Marks from the end that is left: " : "Marks from the same end: ")}
          {pieces.map((p, k) => (
            <span key={p.at}>
              {k > 0 && ", "}
              <Len nm={p.at ?? 0} style={style} step={64} />
            </span>
          ))}
        </span>
      ))}
    </p>
  );
}

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
        aria-label={`${cut}/${count} cut: ${name}, one more`}
        disabled={cut === count}
        onClick={onMore}
      >
        {cut === count ? <Icon name="check" size={18} /> : `${cut}/${count}`}
      </button>
      <button
        type="button"
        className="link text-xs"
        // it keeps its place, so that the first tick moves nothing
        style={{ visibility: cut > 0 ? undefined : "hidden" }}
        aria-label={`${name}, one less cut`}
        onClick={onLess}
      >
        less
      </button>
    </span>
  );
}

/** The sticks of a size, in words: how many of which, and how many of them are there. */
export const sticksWords = (t: PipeTotal) =>
  t.need
    .map(
      (n) =>
        `${n.count + (n.home ?? 0)} × ${feet(n.length)} ft${n.home ? ` (${n.home} from home)` : ""}${n.got ? ` (${n.got === n.count ? "all" : n.got} bought)` : ""}`,
    )
    .join(" and ") || "nothing to buy";

/** Numbers that follow each other as one span: 1–3, 7. */
function numbersOf(all: number[]): string {
  const spans: [number, number][] = [];
  for (const n of [...all].sort((a, b) => a - b)) {
    const last = spans.at(-1);
    if (last && n === last[1] + 1) last[1] = n;
    else if (!last || n !== last[1]) spans.push([n, n]);
  }
  return spans.map(([a, b]) => (a === b ? `${a}` : `${a}–${b}`)).join(", ");
}

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
