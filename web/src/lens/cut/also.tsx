import { useId, useState } from "react";
import { type Project, Refusal, api, ask } from "../../api/client";
import { planOf } from "../../desk/server";
import { useDesk, useNow, useOpen, usePlan, useProject, useStyle } from "../../desk/use";
import { Len, plural, text, unitOf } from "../../lib/format";
import { lengthName } from "../buy/list";
import { byLength } from "../../lib/words";
import { Pick } from "../../ui/pick";

type Piece = NonNullable<Project["also"]>[number];

/** What else is cut for it: rope, webbing, sleeves of foam, rod, as its builder says. */
export function AlsoCut() {
  const desk = useDesk();
  const style = useStyle();
  const all = useProject((p) => p.also) ?? [];
  const copies = useProject((p) => p.copies);
  const bars = usePlan((p) => p.bars);
  const whole = all.filter((a) => !bars.some((b) => b.kind === a.kind && (b.diameter ?? 0) === (a.diameter ?? 0)));
  return (
    <details className="care" open={all.length > 0 || undefined}>
      <summary>Rope, webbing, foam, rod</summary>
      <ul>
        {all.map((a, n) => (
          <li key={n} className="flex flex-wrap items-baseline justify-between gap-x-3 border-b border-rule py-1">
            <span>
              <strong>
                {a.count * Math.max(1, copies)} × <Len nm={a.length} style={style} step={64} />
              </strong>{" "}
              of {lengthName(a, style)}
              {a.for && `, for ${a.for}`}
              {copies > 1 && <span className="text-ink-2">; {plural(a.count, "piece")} a copy</span>}
            </span>
            <button
              type="button"
              className="link text-sm"
              aria-label={`Leave it out: ${lengthName(a, style)} of ${text(a.length, style, 64)}`}
              onClick={() =>
                desk.edit(`No ${lengthName(a, style)} of ${text(a.length, style, 64)}`, (p) => ({
                  ...p,
                  also: p.also?.filter((_, i) => i !== n),
                }))
              }
            >
              leave it out
            </button>
          </li>
        ))}
      </ul>
      {whole.length > 0 && (
        <p className="py-1 text-sm text-ink-2">
          {[...new Set(whole.map((a) => lengthName(a, style)))].join(", ")}: no length on sale is known, so each piece is bought as it is.
          The Buy lens has the lengths on sale.
        </p>
      )}
      <Add />
    </details>
  );
}

function Add() {
  const desk = useDesk();
  const open = useOpen();
  const now = useNow();
  const style = useStyle();
  const id = useId();
  const [kind, setKind] = useState<string>(byLength[0] ?? "");
  const [pieces, setPieces] = useState("");
  const [thick, setThick] = useState("");
  const [purpose, setPurpose] = useState("");
  const [why, setWhy] = useState<{ at: "pieces" | "thick"; words: string }>();
  const [busy, setBusy] = useState(false);
  const units = unitOf(style);
  const add = async () => {
    setBusy(true);
    setWhy(undefined);
    let at: "pieces" | "thick" = "pieces";
    try {
      const rows = await ask(api.POST("/api/pieces", { body: { text: pieces, units } }));
      const bad = rows.find((r) => r.fault)?.fault;
      if (bad) throw new Error(`${bad.what}; ${bad.hint}`);
      at = "thick";
      const [diameter] = thick.trim() ? await ask(api.POST("/api/lengths", { body: { texts: [thick], units, like: "1/4" } })) : [undefined];
      const more = rows.map(
        (r): Piece => ({
          kind,
          length: r.length ?? 0,
          count: r.count,
          ...(diameter ? { diameter } : {}),
          ...(purpose.trim() ? { for: purpose.trim() } : {}),
        }),
      );
      const put = (p: Project): Project => ({ ...p, also: [...(p.also ?? []), ...more] });
      at = "pieces";
      await planOf({ ...now, project: put(now.project) }, { of: open.id }); // what it refuses is said here
      desk.edit(`Also cut: ${kind}, ${pieces.trim()}`, put);
      setPieces("");
      setPurpose("");
    } catch (e) {
      const words =
        e instanceof Refusal
          ? (Object.values(e.places)[0] ?? e.message)
          : e instanceof TypeError
            ? "The server does not answer. What is typed stays."
            : (e as Error).message;
      setWhy({ at, words });
    }
    setBusy(false);
  };
  const field = (name: string, label: string, like: string, value: string, set: (v: string) => void, wide = "w-40") => (
    <label htmlFor={`${id}-${name}`} className="grid gap-0.5 text-sm">
      <span className="text-ink-2">{label}</span>
      <input
        id={`${id}-${name}`}
        className={`field ${wide}`}
        placeholder={like}
        autoComplete="off"
        aria-invalid={why?.at === name}
        aria-describedby={why?.at === name ? `${id}-why` : undefined}
        value={value}
        onChange={(e) => set(e.target.value)}
      />
    </label>
  );
  return (
    <form
      className="flex flex-wrap items-end gap-2 py-2"
      aria-label="Something else that is cut"
      onSubmit={(e) => {
        e.preventDefault();
        void add();
      }}
    >
      <Pick label="Of what" labelled className="w-36" value={kind} options={byLength.map((k) => [k, k] as const)} onChange={setKind} />
      {field("pieces", "Pieces for one copy", "4 @ 14, 2 @ 3 ft", pieces, setPieces)}
      {field("thick", "Thick or wide", "any", thick, setThick, "w-24")}
      {field("for", "For", "hinges", purpose, setPurpose, "w-32")}
      <button type="submit" className="btn" disabled={busy || !pieces.trim()}>
        Add
      </button>
      {why && (
        <p id={`${id}-why`} role="alert" className="basis-full font-semibold text-bad">
          {why.words}
        </p>
      )}
    </form>
  );
}
