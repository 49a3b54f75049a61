import type { Fix, Repair, SizeSaving } from "../../api/client";
import { useOpen, usePlan, useStyle } from "../../desk/use";
import { Len, feet, money, plural } from "../../lib/format";
import { Head, NoAnswer } from "../../ui/ui";
import { useAsked, useSavings } from "./asked";

/**
 * What a little would do: what takes a stick off its knife edge, and what a target size a little smaller would save. It is
 * looked for at once where there is a knife edge, else when it is asked for: it takes some dozens of plans.
 */
export function LittleChanges() {
  const open = useOpen();
  const { savings: asked, typed, ask } = useAsked();
  const { found, edge } = useSavings();
  const name = useNameOf();
  const sizes = found.data?.sizes ?? [];
  return (
    <section aria-labelledby="little-head" className="no-print grid gap-2">
      <Head id="little-head" title="What a little would save" />
      {!asked && !edge && (
        <p>
          <button type="button" className="btn" onClick={() => ask({ savings: true })}>
            Try every size a little smaller
          </button>
        </p>
      )}
      {found.isFetching && (
        <p role="status" className="text-ink-2">
          Trying every size a little smaller, and larger …
        </p>
      )}
      {found.error && <NoAnswer error={found.error} retry={() => void found.refetch()} />}
      {found.data && (
        <ul className="grid gap-1" aria-label="Sizes that save">
          {sizes.map((s) => (
            <SizeRow key={`${s.frame} ${s.id}`} of={s} name={name(s)} onPress={(f) => open.fix(f, s.frame)} />
          ))}
          {sizes.length === 0 && <li className="text-ink-2">No size can move by itself.</li>}
        </ul>
      )}
      {found.data && (
        <label className="flex items-center gap-2 text-sm">
          <input type="checkbox" checked={typed} onChange={(e) => ask({ typed: e.target.checked })} />
          Cuts that I typed may give way, too
        </label>
      )}
    </section>
  );
}

const ways: Record<string, string> = { x: "wide", y: "deep", z: "high" };

/** A size as it was typed, and which one it is. */
const named = (s: SizeSaving) => (s.label ? `${s.label}, ${s.says}` : s.axis ? `${s.says}, ${ways[s.axis]}` : s.says);

/** The same, with the name of its project where there are several. */
function useNameOf(): (s: SizeSaving) => string {
  const frames = usePlan((p) => p.frames);
  return (s) => (frames.length > 1 ? `${named(s)} (${frames[s.frame]?.name || "without a name"})` : named(s));
}

const more = (cents: number) => (cents > 0 ? `${money(cents)} more` : cents < 0 ? `saves ${money(-cents)}` : "costs nothing more");

/** What takes the sticks of a size off their knife edge: it stands under such a stick. */
export function OffTheEdge({ size }: { size: string }) {
  const open = useOpen();
  const { found } = useSavings();
  const repairs = found.data?.repairs.filter((r) => r.size === size);
  return (
    <ul className="no-print grid gap-1 border-l-4 border-warn py-1 pl-2 text-sm" aria-label="Off the knife edge">
      {!found.data && <li className="text-ink-2">{found.isFetching ? "Looking for what takes it off the edge …" : ""}</li>}
      {repairs?.map((r) => (
        <RepairRow key={r.fix.label} of={r} onPress={(f) => open.fix(f, r.frames?.[0])} />
      ))}
      {repairs?.length === 0 && <li className="text-ink-2">No small change takes it off the edge. Measure that stick first.</li>}
    </ul>
  );
}

/** A size that saves with a little less, beside the pieces that it makes shorter. */
export function SavesBeside({ letter }: { letter: string }) {
  const open = useOpen();
  const style = useStyle();
  const { found } = useSavings();
  const name = useNameOf();
  const best = found.data?.sizes.find((s) => s.fix && s.less && s.letters?.[0] === letter);
  if (!best?.fix) return null;
  const { fix } = best;
  return (
    <button type="button" className="link text-left text-sm" onClick={() => open.fix(fix, best.frame)}>
      {name(best)} <Len nm={best.now - (best.less ?? 0)} style={style} /> less saves {best.saves ? money(best.saves) : "pipe"}
    </button>
  );
}

function RepairRow({ of: r, onPress }: { of: Repair; onPress: (f: Fix) => void }) {
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
      <span className="min-w-56 flex-1">
        {r.words}; {more(r.cost)}
        {r.edges > 0 && `, ${plural(r.edges, "stick is", "sticks are")} on an edge still`}
        {r.typed && <strong className="text-warn"> A cut that you typed gives way.</strong>}
      </span>
      {(r.frames?.length ?? 0) > 1 ? (
        <span className="text-ink-2">to be said in each of their projects</span>
      ) : (
        <button type="button" className="btn btn-small btn-fix" onClick={() => onPress(r.fix)}>
          {r.fix.label}
        </button>
      )}
    </li>
  );
}

function SizeRow({ of: s, name, onPress }: { of: SizeSaving; name: string; onPress: (f: Fix) => void }) {
  const style = useStyle();
  const saves = s.saves ? money(s.saves) : s.length ? `${feet(s.length)} ft of pipe` : "";
  return (
    <li className="flex flex-wrap items-center justify-between gap-x-3 gap-y-1">
      <span className="min-w-56 flex-1">
        {name}:{" "}
        {s.less && s.fix ? (
          <>
            <Len nm={s.now - s.less} style={style} /> less saves {saves}
            {s.sticks ? `, ${plural(s.sticks, "stick")}` : ""}
            {s.edges ? <strong className="text-warn">, {plural(s.edges, "stick is", "sticks are")} on a knife edge then</strong> : ""}
            {s.perInch ? <span className="text-ink-2"> ({money(s.perInch)} an inch)</span> : ""}
          </>
        ) : (
          <span className="text-ink-2">nothing within 2 in less</span>
        )}
        {s.most > s.now && (
          <span className="text-ink-2">
            ; up to <Len nm={s.most} style={style} /> for the same pipe
          </span>
        )}
      </span>
      {s.fix && (
        <button type="button" className="btn btn-small btn-fix" onClick={() => s.fix && onPress(s.fix)}>
          {s.fix.label}
        </button>
      )}
    </li>
  );
}
