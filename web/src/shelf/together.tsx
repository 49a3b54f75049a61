import { useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link, useSearch } from "wouter";
import type { Together } from "../api/client";
import { OpenProject } from "../desk/open-project";
import { OpenProjectProvider, useOpenState, usePlanned, useProject } from "../desk/use";
import BuySheet from "../lens/buy/sheet";
import CutSheet from "../lens/cut/sheet";
import { money, plural } from "../lib/format";
import { Cautions } from "../ui/cautions";
import { Icon } from "../ui/icons";
import { Failure, Loading } from "../ui/ui";
import { type Bought, idOf, togetherBody, togetherServer } from "./together-server";
import { NewerSays } from "../editor/newer-figures";
import { BackBar } from "../ui/back-bar";

/** Several projects as one purchase: the same list for the shop and the same sticks for the saw as of one, shared with the record of each. */
export default function TogetherPage() {
  const of = new URLSearchParams(useSearch()).get("of") ?? "";
  const [variants, setVariants] = useState(false);
  return <Opened key={`${of} ${variants}`} of={of} variants={variants} onVariants={setVariants} />;
}

function Opened({ of, variants, onVariants }: { of: string; variants: boolean; onVariants: (on: boolean) => void }) {
  const client = useQueryClient();
  const [bought] = useState<Bought>(() => ({ ids: of.split(",").filter(Boolean), variants }));
  const [answer, setAnswer] = useState<Together>();
  const [open] = useState(() => new OpenProject(client, idOf(bought), togetherServer(bought, setAnswer), true));
  useEffect(() => {
    void open.open();
    return () => open.close();
  }, [open]);
  return (
    <>
      <BackBar />
      <OpenProjectProvider of={open}>
        <Page bought={bought} answer={answer} onVariants={onVariants} />
      </OpenProjectProvider>
    </>
  );
}

function Page({ bought, answer, onVariants }: { bought: Bought; answer?: Together; onVariants: (on: boolean) => void }) {
  const history = useOpenState((s) => s.history);
  const failed = useOpenState((s) => s.failed);
  const { plan, places, failure } = usePlanned();
  const why = failed?.message ?? failure ?? Object.values(places)[0];
  const alone = answer?.alone ?? [];
  const apart = { cost: alone.reduce((n, a) => n + a.cost, 0), sticks: alone.reduce((n, a) => n + a.sticks, 0) };
  return (
    <main className="mx-auto grid w-full max-w-6xl gap-6 px-4 py-6">
      <div className="sheet-head flex-wrap">
        <h1 className="text-3xl">Bought together</h1>
        {plan && history && <Files bought={bought} />}
      </div>
      {why && <Failure why={why} />}
      {!plan && !why && <Loading what="the lists" />}
      {plan && history && (
        <>
          <section aria-label="What is bought together">
            <ol>
              {alone.map((a, i) => (
                <li key={a.id} className="flex flex-wrap justify-between gap-x-4 border-b border-rule py-1">
                  <span>
                    {!bought.variants && alone.length > 1 && <strong className="pr-2">{i + 1}</strong>}
                    <Link href={`/p/${a.id}`} className="link">
                      {a.name || "Without a name"}
                    </Link>
                  </span>
                  <span className="text-ink-2">
                    {a.copies > 1 && `${a.copies} copies, `}alone {plural(a.sticks, "stick")}, {money(a.cost)}
                  </span>
                  {alone.length > 1 && (a.ownPrices || a.ownSticks) && (
                    <span className="w-full text-sm font-semibold text-warn">
                      {[a.ownPrices ? plural(a.ownPrices, "price") : "", a.ownSticks ? "its stick lengths" : ""]
                        .filter(Boolean)
                        .join(" and ")}{" "}
                      of its own do not count here: what is bought together is bought at the prices of every project.
                    </span>
                  )}
                </li>
              ))}
            </ol>
            {alone.length > 1 && !bought.variants && (
              <p className="pt-1 text-sm text-ink-2">
                A letter has its project’s number before it: 1A is the A of {alone[0]?.name || "the first"}, 2A that of{" "}
                {alone[1]?.name || "the second"}.
              </p>
            )}
            {alone.length > 1 && (
              <label className="no-print flex items-center gap-2 pt-2 text-sm">
                <input type="checkbox" checked={bought.variants} onChange={(e) => onVariants(e.target.checked)} />
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
          </section>
          {plan.newer.length > 0 && (
            <section aria-label="Newer figures of the shop" className="rounded-md border-2 border-rule bg-paper-2 p-3 text-sm">
              <NewerSays />
              <p>They are taken in the project itself, where it is seen first what they change.</p>
            </section>
          )}
          <div className="grid items-start gap-8 lg:grid-cols-2">
            <div className="rounded-md bg-paper p-4">
              <BuySheet />
            </div>
            <div className="lens-sheet-alone grid content-start gap-4 rounded-md bg-paper p-4">
              <CutSheet />
            </div>
          </div>
          <Cautions all={plan.cautions} />
        </>
      )}
    </main>
  );
}

/** The lists on paper and as files. */
function Files({ bought }: { bought: Bought }) {
  const project = useProject();
  const [why, setWhy] = useState<string>();
  const save = async (kind: string) => {
    setWhy(undefined);
    try {
      const r = await fetch(`/api/together/${kind}`, {
        method: "POST",
        headers: { "Content-Type": "application/json" },
        body: JSON.stringify(togetherBody(bought, project)),
      });
      if (!r.ok) throw new Error();
      const a = document.createElement("a");
      a.href = URL.createObjectURL(await r.blob());
      a.download = `together ${kind}`;
      a.click();
      setTimeout(() => URL.revokeObjectURL(a.href), 10_000);
    } catch {
      setWhy("It could not be saved; try again.");
    }
  };
  return (
    <span className="no-print flex flex-wrap items-center gap-2 pb-1">
      {why && (
        <span role="alert" className="text-sm font-semibold text-bad">
          {why}
        </span>
      )}
      <button type="button" className="btn btn-small" onClick={() => print()}>
        <Icon name="print" size={18} /> Print
      </button>
      <button type="button" className="btn btn-small" onClick={() => void save("shopping.csv")}>
        <Icon name="file" size={18} /> Shopping list, CSV
      </button>
      <button type="button" className="btn btn-small" onClick={() => void save("cuts.csv")}>
        <Icon name="file" size={18} /> Cut list, CSV
      </button>
    </span>
  );
}
