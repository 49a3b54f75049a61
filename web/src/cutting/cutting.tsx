import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useDeferredValue, useId, useState } from "react";
import { type Material, Refusal, api, ask } from "../api/client";
import { Proof, Sticks } from "../lens/cut/sticks";
import { feet, plural } from "../lib/format";
import { ToolPick } from "../ui/tool-pick";
import { TopBar } from "../ui/ui";

const kept = "sturdyelbow.cutting";

interface Typed {
  text: string;
  stock: string;
  tool: string;
}

function load(): Typed {
  try {
    return { text: "", stock: "10 ft", tool: "saw", ...JSON.parse(localStorage.getItem(kept) ?? "{}") };
  } catch {
    return { text: "", stock: "10 ft", tool: "saw" };
  }
}

/** A cutting plan from a pasted list, without a frame. */
export default function CuttingPage() {
  const [typed, setTyped] = useState(load);
  const asked = useDeferredValue(typed);
  const set = (t: Partial<Typed>) => {
    const next = { ...typed, ...t };
    setTyped(next);
    localStorage.setItem(kept, JSON.stringify(next));
  };
  const q = useQuery({
    queryKey: ["cut", asked],
    enabled: asked.text.trim() !== "",
    placeholderData: keepPreviousData,
    retry: false,
    queryFn: async (): Promise<Material[] | Refusal> => {
      try {
        const stock = asked.stock
          .split(/[,;\n]/)
          .map((s) => s.trim())
          .filter(Boolean);
        return await ask(api.POST("/api/cut", { body: { text: asked.text, units: "in", stock, tool: asked.tool } }));
      } catch (e) {
        if (e instanceof Refusal && e.status === 422) return e;
        throw e;
      }
    },
  });
  const refusal = q.data instanceof Refusal ? q.data : undefined;
  const materials = typed.text.trim() !== "" && Array.isArray(q.data) ? q.data : undefined;
  const id = useId();
  return (
    <>
      <TopBar title={<h1 className="text-lg">Cut a list</h1>} />
      <main className="mx-auto grid max-w-6xl gap-6 p-4 md:grid-cols-[22rem_1fr]">
        <section className="no-print grid content-start gap-4">
          <label htmlFor={`${id}-l`} className="font-semibold">
            Pieces, one length a line: size, length, count
            <textarea
              id={`${id}-l`}
              className="field mt-1 h-72 py-2 font-[inherit] text-lg"
              spellCheck={false}
              aria-invalid={refusal !== undefined}
              aria-describedby={`${id}-e`}
              placeholder={"3/4, 23 5/8, 4\n3/4, 47 15/16, 1\n1, 5'7, 2"}
              value={typed.text}
              onChange={(e) => set({ text: e.target.value })}
            />
          </label>
          <div className="grid grid-cols-2 gap-3">
            <label htmlFor={`${id}-s`} className="text-sm font-semibold">
              Sticks on sale
              <input id={`${id}-s`} className="field text-lg" value={typed.stock} onChange={(e) => set({ stock: e.target.value })} />
            </label>
            <ToolPick value={typed.tool} onChange={(tool) => set({ tool })} />
          </div>
          <p className="text-sm text-ink-2">
            Several stick lengths: 10 ft, 5 ft. Lengths are never rounded here. The list stays in this browser.
          </p>
          <div id={`${id}-e`}>
            {refusal && (
              <ul role="alert" className="grid gap-1 rounded-md border-2 border-bad bg-paper p-3 text-sm">
                {refusal.problem.errors?.slice(0, 8).map((e) => (
                  <li key={`${e.line} ${e.within} ${e.message}`}>
                    <strong>
                      {e.line
                        ? `line ${e.line}${e.within ? `, ${e.within}` : ""}`
                        : e.pointer === "/stock" || e.pointer.startsWith("/stock/")
                          ? "sticks"
                          : e.pointer.slice(1)}
                      :
                    </strong>{" "}
                    {e.message}
                  </li>
                ))}
              </ul>
            )}
            {q.error && (
              <p role="alert" className="text-bad">
                The server does not answer; the list is kept here.
              </p>
            )}
          </div>
        </section>
        <section aria-label="Cutting plan" className={`grid content-start gap-6 ${refusal ? "opacity-60" : ""}`}>
          {!materials && !refusal && (
            <p className="text-lg text-ink-2">Paste or type a list, and the sticks to buy and how to cut them appear here.</p>
          )}
          {materials?.map((m) => (
            <div key={m.key} className="grid gap-2 rounded-md bg-paper p-4">
              <div className="sheet-head">
                <h2 className="text-2xl">
                  {m.key === "pipe" ? "Pipe" : `${m.key} pipe`}: {plural(m.count, "stick")}
                </h2>
                <span className="text-ink-2">{m.buy.map((b) => `${b.count} × ${feet(b.length)} ft`).join(" and ")}</span>
              </div>
              {(m.lacking?.length ?? 0) > 0 && (
                <p role="alert" className="font-semibold text-bad">
                  {plural(m.lacking?.reduce((n, l) => n + l.count, 0) ?? 0, "piece", "pieces")} left out: no stick on sale holds so much.
                </p>
              )}
              <Sticks sticks={m.sticks} style="inches" />
              <Proof of={m} style="inches" />
            </div>
          ))}
        </section>
      </main>
    </>
  );
}
