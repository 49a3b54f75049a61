import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearch } from "wouter";
import { Refusal, api, ask } from "../api/client";
import { aislesOf, nameOf } from "../lens/buy/list";
import { Proof, Sticks, sticksWords } from "../lens/cut/sticks";
import { Len, money, plural } from "../lib/format";
import { sizeWords } from "../lib/words";
import { Cautions } from "../ui/cautions";
import { Icon } from "../ui/icons";
import { Picture, Ware } from "../ui/picture";
import { ToolPick } from "../ui/tool-pick";
import { ExampleMark, Failure, Head, Loading, TopBar } from "../ui/ui";

/** Several projects as one purchase: one list for the shop, one set of sticks for the saw. */
export default function TogetherPage() {
  const ids = (new URLSearchParams(useSearch()).get("of") ?? "").split(",").filter(Boolean);
  const [tool, setTool] = useState<string>();
  const [lit, setLit] = useState<string>();
  const [variants, setVariants] = useState(false);
  const q = useQuery({
    queryKey: ["together", ids, tool, variants],
    retry: false,
    placeholderData: keepPreviousData,
    queryFn: () => ask(api.POST("/api/together", { body: { projects: ids, tool, variants } })),
  });
  const why =
    q.error instanceof Refusal
      ? (Object.values(q.error.places)[0] ?? q.error.problem.detail ?? q.error.message)
      : q.error
        ? "The server does not answer."
        : undefined;
  const plan = q.data?.plan;
  const alone = q.data?.alone ?? [];
  const apart = { cost: alone.reduce((n, a) => n + a.cost, 0), sticks: alone.reduce((n, a) => n + a.sticks, 0) };
  return (
    <>
      <TopBar
        title={
          <Link href="/" className="btn btn-small">
            <Icon name="left" size={18} /> To the shelf
          </Link>
        }
      />
      <main className="mx-auto grid w-full max-w-5xl gap-6 px-4 py-6">
        <div className="sheet-head flex-wrap">
          <h1 className="text-3xl">Bought together</h1>
          {plan && (
            <span className="font-display text-3xl font-bold">
              {money(plan.bill.total)}
              {plan.bill.example && <ExampleMark />}
            </span>
          )}
        </div>
        {q.isPending && <Loading what="the lists" />}
        {why && <Failure why={why} retry={() => void q.refetch()} />}
        {plan && (
          <>
            <section aria-label="What is bought together" className="grid gap-3 sm:grid-cols-[1fr_16rem]">
              <div>
                <ul>
                  {alone.map((a) => (
                    <li key={a.id} className="flex justify-between gap-4 border-b border-rule py-1">
                      <Link href={`/p/${a.id}`} className="link">
                        {a.name || "Without a name"}
                      </Link>
                      <span className="text-ink-2">
                        {a.copies > 1 && `${a.copies} copies, `}alone {plural(a.sticks, "stick")}, {money(a.cost)}
                      </span>
                    </li>
                  ))}
                </ul>
                {alone.length > 1 && (
                  <label className="flex items-center gap-2 pt-2 text-sm">
                    <input type="checkbox" checked={variants} onChange={(e) => setVariants(e.target.checked)} />
                    Variants of one thing: put together from the same parts, one at a time
                  </label>
                )}
                {alone.length > 1 && (
                  <p className="pt-2 text-lg" role="status">
                    <strong>
                      {apart.cost > plan.bill.total ? `${money(apart.cost - plan.bill.total)} less than apart` : "No cheaper than apart"}
                    </strong>
                    {apart.sticks !== plan.totals.sticks && `: ${plural(plan.totals.sticks, "stick")} instead of ${apart.sticks}`}.
                  </p>
                )}
              </div>
              <ToolPick value={q.data?.tool ?? "saw"} onChange={setTool} />
            </section>
            <div className="grid gap-8 md:grid-cols-2">
              <section aria-labelledby="t-buy" className="rounded-md bg-paper p-4">
                <Head id="t-buy" title="What to buy" />
                {aislesOf(plan).map((a) => (
                  <div key={a.name} className="pt-2">
                    <h3 className="aisle">{a.name}</h3>
                    <ul>
                      {a.wares.map(({ key, line }) => (
                        <li key={key} className="ware">
                          {line.ware === "fitting" ? <Picture kind={line.kind ?? ""} size={36} /> : <Ware ware={line.ware} size={36} />}
                          <span className="ware-count">{line.count}×</span>
                          <span className="flex-1 font-semibold">{nameOf(line)}</span>
                          <span>{line.priced ? money(line.amount) : "no price"}</span>
                        </li>
                      ))}
                    </ul>
                  </div>
                ))}
              </section>
              <section aria-labelledby="t-cut" className="grid content-start gap-4 rounded-md bg-paper p-4">
                <div>
                  <Head id="t-cut" title="Where to cut" />
                  <ul>
                    {plan.cuts.map((g) => (
                      <li key={g.letter} className={`cut-row ${lit === g.letter ? "is-lit" : ""}`}>
                        <button
                          type="button"
                          className="letter"
                          aria-pressed={lit === g.letter}
                          aria-label={`Show ${g.letter} on the sticks`}
                          onClick={() => setLit(lit === g.letter ? undefined : g.letter)}
                        >
                          {g.letter}
                        </button>
                        <span className="min-w-8 text-right text-lg">{g.count}×</span>
                        <span className="flex-1 font-display text-xl font-semibold">
                          <Len nm={g.cut} style="inches" step={64} />
                        </span>
                        <span className="text-right text-sm text-ink-2">
                          {sizeWords(g.size)}
                          <span className="block">{[...new Set(g.pipes.map((p) => plan.frames[p.frame]?.name))].join(", ")}</span>
                        </span>
                      </li>
                    ))}
                  </ul>
                </div>
                {plan.pipe.map((t) => (
                  <div key={t.size} className="grid gap-2">
                    <h3 className="aisle">
                      {sizeWords(t.size)} pipe: {sticksWords(t)}
                    </h3>
                    <Sticks sticks={t.sticks} style="inches" lit={lit} onPick={(l) => setLit(lit === l ? undefined : l)} />
                    <Proof of={t.stock} style="inches" />
                  </div>
                ))}
              </section>
            </div>
            <Cautions all={plan.cautions} />
          </>
        )}
      </main>
    </>
  );
}
