import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { Link } from "wouter";
import { Refusal, api, ask } from "../api/client";
import type { Style } from "../lib/format";
import { usePlan } from "../lib/use-plan";
import { type Bench, useProject } from "../lib/use-project";
import { Failure, Loading, TopBar } from "../ui/ui";
import { ExportMenu } from "./export-menu";
import { Findings } from "./findings";
import { FrameView } from "./frame-view";
import { CostSheet, CutSheet, FittingSheet, JointSheet, StickSheet } from "./sheets";
import { Sizes } from "./sizes";
import { Tape } from "./tape";

const styles: [Style, string][] = [
  ["inches", "23 5/8″"],
  ["feet-inches", "1′ 11 5/8″"],
  ["decimal", "23.625″"],
  ["metric", "600 mm"],
];

/** One project: the frame on the left, its sheet on the right, the tape below. */
export function Workbench({ id }: { id: string }) {
  const bench = useProject(id);
  const client = useQueryClient();
  const shop = useQuery({ queryKey: ["shop"], queryFn: () => ask(api.GET("/api/shop")) });
  const planned = usePlan(bench.project, shop.data?.revision ?? 0);
  const [lit, setLit] = useState<string>();
  const shopSaved = () => void client.invalidateQueries({ queryKey: ["shop"] });
  useKeys(bench);
  useEffect(() => {
    document.title = bench.project ? `${bench.project.name} · Sturdy Elbow` : "Sturdy Elbow";
  }, [bench.project]);

  if (bench.loading)
    return (
      <>
        <TopBar />
        <Failure why={bench.loading instanceof Refusal ? bench.loading.problem.detail ?? bench.loading.message : "The server does not answer."} />
        <Link href="/" className="btn ml-6">
          To the projects
        </Link>
      </>
    );
  const p = bench.project;
  if (!p) return <Loading what="the project" />;
  const style = (p.style || "inches") as Style;
  const a = planned.answer;
  const general = Object.entries(planned.places).filter(([k]) => !k.startsWith("body.project.starter.answers.") && !k.startsWith("body.project.sizes."));
  return (
    <div className="print-flow flex min-h-screen flex-col lg:h-screen">
      <TopBar
        title={
          <>
          <h1 className="sr-only">{p.name}</h1>
          <input
            aria-label="Project name"
            className="min-w-40 flex-1 rounded border-b-2 border-transparent bg-transparent px-1 font-display text-lg font-semibold hover:border-rule"
            value={p.name}
            onChange={(e) => bench.change((x) => ({ ...x, name: e.target.value }))}
          />
          </>
        }
      >
        <SaveNote bench={bench} />
        <button type="button" className="btn btn-bare" disabled={!bench.canUndo} onClick={bench.undo} title="Ctrl Z">
          Undo
        </button>
        <button type="button" className="btn btn-bare" disabled={!bench.canRedo} onClick={bench.redo} title="Ctrl Shift Z">
          Redo
        </button>
        <select aria-label="How lengths are shown" className="pick" value={style} onChange={(e) => bench.change((x) => ({ ...x, style: e.target.value }))}>
          {styles.map(([v, l]) => (
            <option key={v} value={v}>
              {l}
            </option>
          ))}
        </select>
        <ExportMenu project={p} disabled={planned.old || !a} />
      </TopBar>
      <p className="hidden p-2 font-display text-2xl font-bold print:block">{p.name}</p>
      {bench.save.is === "stale" && <Stale bench={bench} />}
      <main className="print-flow grid min-h-0 flex-1 lg:grid-cols-[minmax(0,1fr)_32rem]">
        <section aria-label="The frame" className="flex min-h-0 flex-col">
          <div className={`relative min-h-72 flex-1 bg-paper p-2 ${planned.old ? "opacity-60" : ""}`}>
            {a?.drawings[0] ? <FrameView svg={a.drawings[0]} lit={lit} onPick={setLit} /> : <Loading what="the drawing" />}
            <Legend />
          </div>
          {planned.old && (
            <p role="status" className="bg-paper px-4 py-1 text-sm font-semibold text-warn">
              Shown as it was before the size that cannot be read.
            </p>
          )}
          {planned.failure && <Failure why={planned.failure} retry={planned.retry} />}
          {general.map(([where, what]) => (
            <p key={where} role="alert" className="bg-paper px-4 py-1 text-sm font-semibold text-bad">
              {what}
            </p>
          ))}
          {a && <Findings of={a.plan.findings} change={bench.change} />}
        </section>
        <div className="print-flow relative grid content-start gap-7 overflow-y-auto border-rule bg-paper p-4 lg:border-l-2">
          <div className="no-print">
            <Sizes project={p} plan={a?.plan} places={planned.places} change={bench.change} />
          </div>
          {a && (
            <>
              <CutSheet plan={a.plan} style={style} lit={lit} onPick={setLit} />
              <FittingSheet plan={a.plan} />
              <StickSheet plan={a.plan} style={style} lit={lit} onPick={setLit} shop={shop.data} onSaved={shopSaved} />
              <JointSheet plan={a.plan} style={style} />
              <CostSheet plan={a.plan} shop={shop.data} onSaved={shopSaved} />
              <section aria-labelledby="care-head">
                <div className="sheet-head">
                  <h2 id="care-head" className="text-xl">
                    Take care
                  </h2>
                </div>
                <ul className="list-disc pl-5 text-sm">
                  {a.plan.cautions.map((c) => (
                    <li key={c}>{c}</li>
                  ))}
                </ul>
              </section>
            </>
          )}
        </div>
      </main>
      {a && <Tape plan={a.plan} style={style} old={planned.old} />}
    </div>
  );
}

function Legend() {
  return (
    <ul className="absolute bottom-2 left-3 flex gap-4 text-xs text-ink-2" aria-label="How joints are drawn">
      <li className="flex items-center gap-1">
        <span className="inline-block h-3 w-1.5 bg-cement" aria-hidden="true" /> cemented
      </li>
      <li className="flex items-center gap-1">
        <span className="inline-block h-3 w-1.5 border border-ink bg-paper" aria-hidden="true" /> dry
      </li>
    </ul>
  );
}

function SaveNote({ bench }: { bench: Bench }) {
  const s = bench.save;
  const words = { saved: "Saved", saving: "Saving …", waiting: "Saving …", failed: "Not saved yet", stale: "Not saved" }[s.is];
  return (
    <span role="status" className={`text-sm ${s.is === "failed" || s.is === "stale" ? "font-semibold text-bad" : "text-ink-2"}`} title={s.is === "failed" ? `${s.why}; it is tried again` : undefined}>
      {words}
    </span>
  );
}

function Stale({ bench }: { bench: Bench }) {
  return (
    <div role="alert" className="no-print flex flex-wrap items-center gap-3 border-b-2 border-bad bg-paper-2 px-4 py-2">
      <span>
        <strong>This project was changed in another window.</strong> Nothing was overwritten: what you see here is yours, the other is stored. After a look at the other, Undo brings yours back.
      </span>
      <button type="button" className="btn" onClick={bench.takeTheirs}>
        Show the other
      </button>
      <button type="button" className="btn btn-main" onClick={bench.keepMine}>
        Keep mine
      </button>
    </div>
  );
}

function useKeys(bench: Bench) {
  useEffect(() => {
    const press = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey) return;
      const key = e.key.toLowerCase();
      if (key === "z" && !e.shiftKey) bench.undo();
      else if (key === "y" || (key === "z" && e.shiftKey)) bench.redo();
      else return;
      e.preventDefault();
    };
    addEventListener("keydown", press);
    return () => removeEventListener("keydown", press);
  }, [bench.undo, bench.redo]);
}
