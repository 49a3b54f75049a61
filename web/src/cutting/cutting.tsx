import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useId, useState } from "react";
import { type CutAnswer, type Material, Refusal, api, ask } from "../api/client";
import type { DrawnStick } from "../lens/cut/alike";
import { Proof, Sticks } from "../lens/cut/sticks";
import { Len, feet, money, plural, text } from "../lib/format";
import { download } from "../lib/download";
import { sizeWords } from "../lib/words";
import { Icon } from "../ui/icons";
import { ToolPick } from "../ui/tool-pick";
import { ExampleMark } from "../ui/ui";
import { BackBar } from "../ui/back-bar";
import { FileButton, listFiles } from "../ui/file-button";

const kept = "sturdyelbow.cutting";

interface Typed {
  text: string;
  size: string;
  stock: string;
  tool: string;
  /** How many sticks of each sort are cut, by what is cut from what. */
  done: Record<string, number>;
}

const empty: Typed = { text: "", size: "", stock: "", tool: "saw", done: {} };

function load(): Typed {
  try {
    return { ...empty, ...JSON.parse(localStorage.getItem(kept) ?? "{}") };
  } catch {
    return empty;
  }
}

const request = (t: Typed) => ({
  text: t.text,
  units: "in" as const,
  size: t.size.trim() || undefined,
  stock: t.stock
    .split(/[,;\n]/)
    .map((s) => s.trim())
    .filter(Boolean),
  tool: t.tool,
});

/** A cutting plan from a list, without a frame: typed, pasted or opened. Each line says how it was read. */
export default function CuttingPage() {
  const [typed, setTyped] = useState(load);
  const asked = useDeferredValue(typed);
  const [lit, setLit] = useState<string>();
  const set = (t: Partial<Typed>) => {
    const next = { ...typed, ...t };
    setTyped(next);
    localStorage.setItem(kept, JSON.stringify(next));
  };
  const q = useQuery({
    queryKey: ["cut", asked.text, asked.size, asked.stock, asked.tool],
    enabled: asked.text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async (): Promise<CutAnswer | Refusal> => {
      try {
        return await ask(api.POST("/api/cut", { body: request(asked) }));
      } catch (e) {
        if (e instanceof Refusal && e.status === 422) return e;
        throw e;
      }
    },
  });
  const csv = useMutation({
    mutationFn: async () => {
      const r = await fetch("/api/cut.csv", {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify(request(typed)),
      });
      if (!r.ok) throw new Error("The file cannot be written now.");
      download(await r.blob(), "cuts.csv");
    },
  });
  const refusal = q.data instanceof Refusal ? q.data : undefined;
  const found = typed.text.trim() !== "" && q.data && !(q.data instanceof Refusal) ? q.data : undefined;
  const bad = found?.rows.filter((r) => r.fault) ?? [];
  const unsized = found?.lines.some((l) => l.material === "pipe");
  const id = useId();
  const places = refusal?.places ?? {};
  const stockWhy = Object.entries(places).find(([p]) => p.startsWith("/stock"))?.[1];
  return (
    <>
      <BackBar />
      <main className="mx-auto grid max-w-6xl gap-6 p-4 md:grid-cols-[23rem_1fr]">
        <section className="no-print grid content-start gap-4">
          <h1 className="text-3xl">Cut a list</h1>
          <label htmlFor={`${id}-l`} className="font-semibold">
            Pieces, a line each, as you write them
            <textarea
              id={`${id}-l`}
              className="field mt-1 h-64 py-2 font-[inherit] text-lg font-normal"
              spellCheck={false}
              placeholder={"4 @ 23 5/8\nlegs: 2 pcs 30 in 3/4 pipe\n3/4, 47 15/16, 1\n5'7\" x2"}
              value={typed.text}
              onChange={(e) => set({ text: e.target.value })}
            />
          </label>
          <p className="flex flex-wrap gap-2">
            <FileButton label="A file of pieces" accept={listFiles} onFile={async (f) => set({ text: await f.text(), done: {} })} />
            <button type="button" className="btn" disabled={!found?.materials.length} onClick={() => window.print()}>
              <Icon name="print" size={18} /> Print
            </button>
            <button type="button" className="btn" disabled={!found?.materials.length} onClick={() => csv.mutate()}>
              <Icon name="file" size={18} /> Save as CSV
            </button>
          </p>
          {csv.error && (
            <p role="alert" className="font-semibold text-bad">
              {csv.error.message}
            </p>
          )}
          <div className="grid grid-cols-2 gap-3">
            <label htmlFor={`${id}-p`} className="text-sm font-semibold">
              Size, where a line says none
              <input
                id={`${id}-p`}
                className="field text-lg font-normal"
                placeholder="3/4"
                value={typed.size}
                onChange={(e) => set({ size: e.target.value })}
              />
            </label>
            <ToolPick value={typed.tool} onChange={(tool) => set({ tool })} />
          </div>
          <label htmlFor={`${id}-s`} className="text-sm font-semibold">
            Sticks to cut from
            <input
              id={`${id}-s`}
              className="field text-lg font-normal"
              placeholder="what your shop sells"
              aria-invalid={Boolean(stockWhy)}
              aria-describedby={`${id}-sw`}
              value={typed.stock}
              onChange={(e) => set({ stock: e.target.value })}
            />
            <span id={`${id}-sw`} className={`block font-normal ${stockWhy ? "text-bad" : "text-ink-2"}`}>
              {stockWhy ? <strong role="alert">{stockWhy}</strong> : "Left empty: your sticks and prices. Else like 10 ft @ 4.98, 5 ft."}
            </span>
          </label>
          {refusal && !stockWhy && (
            <ul role="alert" className="grid gap-1 rounded-md border-2 border-bad bg-paper p-3 text-sm">
              {refusal.problem.errors?.slice(0, 8).map((e) => (
                <li key={`${e.pointer} ${e.message}`}>{e.message}</li>
              ))}
            </ul>
          )}
          {q.error && (
            <p role="alert" className="font-semibold text-bad">
              The server does not answer; the list is kept here.
            </p>
          )}
          {found && <Read of={found} />}
          <p className="text-sm text-ink-2">Lengths are never rounded here. The list stays in this browser.</p>
        </section>
        <section aria-label="Cutting plan" className={`grid content-start gap-6 ${refusal ? "opacity-60" : ""}`}>
          {!found && !refusal && (
            <p className="text-lg text-ink-2">Paste or type a list, and the sticks to buy and how to cut them appear here.</p>
          )}
          {bad.length > 0 && (
            <p role="status" className="font-semibold text-bad">
              {plural(bad.length, "line")} cannot be read, and {bad.length === 1 ? "is" : "are"} left out.
            </p>
          )}
          {found && found.lines.length > 0 && <Letters of={found} lit={lit} onPick={(l) => setLit(lit === l ? undefined : l)} />}
          {unsized && !typed.size && (
            <p className="no-print text-sm text-ink-2">A size gives the pipe its price: say it on the line, or for all of them.</p>
          )}
          {found?.materials.map((m) => (
            <Cutting
              key={m.key}
              of={m}
              found={found}
              typed={typed}
              lit={lit}
              onPick={(l) => setLit(lit === l ? undefined : l)}
              onSet={set}
            />
          ))}
          {found && found.materials.length > 0 && found.priced && (
            <p className="text-right text-xl font-semibold">
              {money(found.cost)}
              {found.example && <ExampleMark />}
            </p>
          )}
        </section>
      </main>
    </>
  );
}

/** How each line was read, the ones that cannot be first. */
function Read({ of }: { of: CutAnswer }) {
  const bad = of.rows.filter((r) => r.fault);
  const good = of.rows.filter((r) => !r.fault);
  if (of.rows.length === 0) return null;
  return (
    <details open={bad.length > 0 || good.some((r) => r.other)}>
      <summary className="cursor-pointer font-semibold">How the lines were read</summary>
      <ul className="grid gap-1 py-1 text-sm">
        {[...bad, ...good].map((r) => (
          <li key={r.line} className="border-b border-rule pb-1">
            <span className="text-ink-2">
              line {r.line}: {r.text}
            </span>
            {r.fault ? (
              <strong className="block text-bad">
                {r.fault.what}; {r.fault.hint}
              </strong>
            ) : (
              <strong className="block">{r.words}</strong>
            )}
            {r.other && <span className="block text-warn">{r.other}</span>}
          </li>
        ))}
      </ul>
    </details>
  );
}

/** The pieces by letter. */
function Letters({ of, lit, onPick }: { of: CutAnswer; lit?: string; onPick: (l: string) => void }) {
  return (
    <ul aria-label="Pieces" className="grid gap-x-6 rounded-md bg-paper p-4 sm:grid-cols-2">
      {of.lines.map((l) => (
        <li key={l.letter} className={`cut-row ${lit === l.letter ? "is-lit" : ""}`}>
          <button
            type="button"
            className="letter"
            aria-pressed={lit === l.letter}
            aria-label={`Show ${l.letter} on the sticks`}
            onClick={() => onPick(l.letter)}
          >
            {l.letter}
          </button>
          <span className="min-w-8 text-right text-lg">{l.count}×</span>
          <span className="flex-1 font-display text-2xl leading-tight font-semibold">
            <Len nm={l.length} style="inches" step={64} />
          </span>
          <span className="text-right text-sm leading-tight text-ink-2">
            {l.material !== "pipe" && sizeWords(l.material)}
            {l.names.length > 0 && <span className="block">{l.names.join(", ")}</span>}
            {l.least ? <span className="block">or as short as {text(l.least, "inches", 64)}</span> : null}
          </span>
        </li>
      ))}
    </ul>
  );
}

type ListStick = Material["sticks"][number] & DrawnStick;

/** The sticks of one material, ticked off in this browser. */
function Cutting({
  of: m,
  found,
  typed,
  lit,
  onPick,
  onSet,
}: {
  of: Material;
  found: CutAnswer;
  typed: Typed;
  lit?: string;
  onPick: (l: string) => void;
  onSet: (t: Partial<Typed>) => void;
}) {
  // of sticks that are cut alike the first so many are
  const seen = new Map<string, number>();
  const sticks: ListStick[] = m.sticks.map((s) => {
    const n = seen.get(s.key) ?? 0;
    seen.set(s.key, n + 1);
    const cut = n < (typed.done[s.key] ?? 0) ? "cut" : undefined;
    return { ...s, pieces: s.pieces.map((p) => ({ ...p, cut })) };
  });
  const cut = sticks.filter((s) => s.pieces.every((p) => "cut" in p && p.cut)).length;
  const lacking = m.lacking?.reduce((n, l) => n + l.count, 0) ?? 0;
  return (
    <div className="grid gap-2 rounded-md bg-paper p-4">
      <div className="sheet-head">
        <h2 className="text-2xl">
          {m.key === "pipe" ? "Pipe" : `${m.key} pipe`}: {plural(m.count, "stick")}
        </h2>
        <span className="text-ink-2">
          {m.buy.map((b) => `${b.count} × ${feet(b.length)} ft`).join(" and ")}
          {m.priced && `, ${money(m.cost)}`}
        </span>
      </div>
      <p role="status" className="text-sm">
        {cut} of {plural(sticks.length, "stick")} cut
      </p>
      {lacking > 0 && (
        <p role="alert" className="font-semibold text-bad">
          {plural(lacking, "piece")} left out: no stick holds so much.
        </p>
      )}
      <Sticks
        sticks={sticks}
        style="inches"
        tinted
        under="marks"
        lit={lit}
        onPick={onPick}
        short={found.lines.filter((l) => l.short).map((l) => l.letter)}
        isCut={(p) => "cut" in p && Boolean(p.cut)}
        onCut={(s, is) => onSet({ done: { ...typed.done, [s.key]: Math.max(0, (typed.done[s.key] ?? 0) + (is ? 1 : -1)) } })}
      />
      <Proof of={m} style="inches" />
    </div>
  );
}
