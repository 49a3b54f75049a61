import { useQueries } from "@tanstack/react-query";
import { useState } from "react";
import { type Plan, type Project, Refusal, api, ask } from "../../api/client";
import { hold } from "../../desk/mode-rules";
import { planOf } from "../../desk/server";
import { useDesk, useNow, useOpen, usePlan, usePlanned, useProject, useStarters, useStyle } from "../../desk/use";
import { Len, feet, money, plural, unitOf } from "../../lib/format";
import { pipeSizes } from "../sizes";
import { Pick } from "../../ui/pick";
import { useTools } from "../../ui/tool-pick";
import { schools } from "../../lib/words";
import { type Target, targetsOf } from "../size/targets";

/** One thing that would be otherwise. */
interface Change {
  key: string;
  label: string;
  /** The project with it. */
  to: (p: Project) => Promise<Project>;
}

/** A thing that can be otherwise: a few ways to choose among, or something to type. */
interface Choice {
  key: string;
  label: string;
  options?: readonly (readonly [string, string])[];
  like?: string;
  make: (value: string, words: string) => Change;
}

const most = 3;

/** What if: up to three variants beside what is planned, each with what it comes to; one press takes one. */
export function WhatIf() {
  const [all, setAll] = useState<Change[]>([]);
  return (
    <details className="care mt-2">
      <summary>What if …</summary>
      <Asks onAdd={(c) => setAll((was) => [...was.filter((x) => x.key !== c.key), c].slice(-most))} full={all.length >= most} />
      <Table all={all} onDrop={(key) => setAll((was) => was.filter((x) => x.key !== key))} />
    </details>
  );
}

/** What can be otherwise with this project. */
function useChoices(): Choice[] {
  const project = useProject();
  const planned = usePlanned();
  const starters = useStarters();
  const tools = useTools();
  const style = useStyle();
  const { id, several } = useOpen();
  const targets = several ? [] : targetsOf(project, starters, planned.plan, planned.places, planned.repeats);
  const simple = (key: string, label: string, options: Choice["options"], to: (p: Project, v: string) => Project): Choice => ({
    key,
    label,
    options,
    make: (v, words) => ({ key: `${key} ${v}`, label: `${label}: ${words}`, to: async (p) => to(p, v) }),
  });
  const of = (t: Target): Choice => ({
    key: t.key,
    label: t.label,
    options: t.prompt.options?.map((o) => [o.value, o.label] as const),
    like: t.answer.text,
    make: (v, words) => ({
      key: `${t.key} ${v}`,
      label: `${t.label}: ${words}`,
      to: async (p) => t.set(p, { ...t.answer, text: v, unit: t.answer.unit || unitOf(style) }),
    }),
  });
  const size: Choice[] = project.frame
    ? [
        {
          key: "usual size",
          label: "Pipe size",
          options: pipeSizes,
          make: (v, words) => ({
            key: `usual size ${v}`,
            label: `Pipe size: ${words}`,
            to: async (p) => {
              const a = await ask(api.POST("/api/edit", { body: { project: p, edit: { usual: { size: v } }, of: id } }));
              if (a.question) throw new Error("That asks which size gives way: change it in the Size lens.");
              return a.project;
            },
          }),
        },
      ]
    : [];
  const joints = simple(
    "joints",
    "Every joint",
    [
      ["cemented", "cemented"],
      ["slip", "dry"],
    ],
    (p, v) => hold({ ...p, modeRules: [] }, {}, v as "cemented" | "slip"),
  );
  const copies: Choice = {
    key: "copies",
    label: "How many copies",
    like: "4",
    make: (v) => ({
      key: `copies ${v}`,
      label: plural(Number(v) || 1, "copy", "copies"),
      to: async (p) => ({ ...p, copies: Math.max(1, Math.min(500, Math.round(Number(v)) || 1)) }),
    }),
  };
  return [
    ...targets.map(of),
    ...size,
    ...(several ? [] : [joints, copies]), // of several, each says for itself
    simple(
      "tool",
      "Cut with",
      tools.map((t) => [t.id, t.name] as const),
      (p, v) => ({ ...p, tool: v }),
    ),
    simple(
      "school",
      "Cement",
      schools.map(([v, words]) => [v, words] as const),
      (p, v) => ({ ...p, school: (v || undefined) as Project["school"] }),
    ),
    {
      key: "sticks",
      label: "Sticks of",
      like: "20 ft",
      make: (v) => ({
        key: `sticks ${v}`,
        label: `Sticks of ${v}`,
        to: async (p) => {
          const texts = v
            .split(/[,;]/)
            .map((t) => t.trim())
            .filter(Boolean);
          const lengths = await ask(api.POST("/api/lengths", { body: { texts, units: unitOf(style) } }));
          return { ...p, sale: { ...p.sale, stock: lengths.map((length) => ({ length })) } };
        },
      }),
    },
  ];
}

function Asks({ onAdd, full }: { onAdd: (c: Change) => void; full: boolean }) {
  const choices = useChoices();
  const [key, setKey] = useState<string>();
  const [typed, setTyped] = useState("");
  const chosen = choices.find((c) => c.key === key) ?? choices[0];
  if (!chosen) return null;
  return (
    <form
      className="flex flex-wrap items-end gap-2 py-2"
      onSubmit={(e) => {
        e.preventDefault();
        if (typed.trim()) onAdd(chosen.make(typed.trim(), typed.trim()));
        setTyped("");
      }}
    >
      <Pick
        label="What is otherwise"
        labelled
        className="w-52"
        value={chosen.key}
        options={choices.map((c) => [c.key, c.label] as const)}
        onChange={(v) => {
          setKey(v);
          setTyped("");
        }}
      />
      {chosen.options ? (
        <Pick
          label="Were it"
          labelled
          className="w-52"
          value=""
          options={chosen.options}
          onChange={(v) => onAdd(chosen.make(v, chosen.options?.find(([x]) => x === v)?.[1] ?? v))}
        >
          choose
        </Pick>
      ) : (
        <>
          <label className="grid gap-0.5 text-sm">
            <span className="text-ink-2">Were it</span>
            <input
              className="field w-36"
              aria-label="Were it"
              placeholder={chosen.like}
              autoComplete="off"
              value={typed}
              onChange={(e) => setTyped(e.target.value)}
            />
          </label>
          <button type="submit" className="btn" disabled={!typed.trim()}>
            Set beside
          </button>
        </>
      )}
      {full && <span className="text-sm text-ink-2">Three at most: the first goes when another comes.</span>}
    </form>
  );
}

/** What is compared: its name, how it is shown, and what is less of it. */
type Row = [string, (p: Plan) => React.ReactNode, (p: Plan) => number];

/** The variants beside what is planned. */
function Table({ all, onDrop }: { all: Change[]; onDrop: (key: string) => void }) {
  const open = useOpen();
  const desk = useDesk();
  const now = useNow();
  const plan = usePlan();
  const style = useStyle();
  const answers = useQueries({
    queries: all.map((c) => ({
      queryKey: ["what if", open.id, now.project, now.shop, plan.begun, c.key],
      retry: false,
      staleTime: Number.POSITIVE_INFINITY,
      queryFn: async ({ signal }: { signal: AbortSignal }) => {
        const project = await c.to(now.project);
        return { project, plan: (await planOf({ project, shop: now.shop }, { of: open.id, signal })).plan };
      },
    })),
  });
  if (all.length === 0)
    return <p className="text-sm text-ink-2">Set a variant beside what is planned: nothing changes until one is taken.</p>;
  const columns: { key: string; label: string; plan?: Plan; why?: string; take?: () => void }[] = [
    { key: "now", label: "As planned", plan },
    ...all.map((c, i) => {
      const a = answers[i];
      const why = a?.error
        ? a.error instanceof Refusal
          ? (Object.values(a.error.places)[0] ?? a.error.message)
          : a.error instanceof TypeError
            ? "The server does not answer."
            : a.error.message
        : undefined;
      return {
        key: c.key,
        label: c.label,
        plan: a?.data?.plan,
        why,
        take: a?.data
          ? () => {
              const { project } = a.data;
              desk.edit(c.label, () => project);
              onDrop(c.key);
            }
          : undefined,
      };
    }),
  ];
  const grave = (p: Plan) => p.findings.filter((f) => f.severity !== "note").length;
  const weight = (p: Plan) => p.frames.reduce((n, f) => n + f.weight.total * (open.several ? f.copies : 1), 0);
  const outside: Row = [
    "Outside",
    (p) =>
      p.frames[0]?.overall.map((e, i) => (
        <span key={e.axis}>
          {i > 0 && " × "}
          <Len nm={e.size} style={style} />
        </span>
      )),
    () => 0,
  ];
  const rows: Row[] = [
    ["Cost", (p) => money(p.bill.total), (p) => p.bill.total],
    ["Sticks", (p) => p.totals.sticks, (p) => p.totals.sticks],
    ["Pipe", (p) => `${feet(p.totals.net)} ft`, (p) => p.totals.net],
    ["Fittings", (p) => p.totals.fittings, (p) => p.totals.fittings],
    ["Weight", (p) => `${weight(p).toFixed(1)} lb`, weight],
    ...(open.several ? [] : [outside]),
    ["To look at", (p) => grave(p) || "nothing", grave],
  ];
  return (
    // biome-ignore lint/a11y/noNoninteractiveTabindex: it scrolls, and keys scroll it
    <section className="what-if" aria-label="Variants side by side" tabIndex={0}>
      <table>
        <thead>
          <tr>
            <td />
            {columns.map((c) => (
              <th key={c.key} scope="col">
                {c.label}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(([name, shown, value]) => (
            <tr key={name}>
              <th scope="row">{name}</th>
              {columns.map((c) => (
                <td key={c.key} className={c.plan && value(c.plan) < value(plan) ? "is-less" : ""}>
                  {c.plan ? shown(c.plan) : name === "Cost" ? c.why ? <span className="text-bad">{c.why}</span> : "…" : ""}
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <td />
            {columns.map((c) => (
              <td key={c.key}>
                {c.key !== "now" && (
                  <span className="flex flex-wrap gap-1">
                    <button
                      type="button"
                      className="btn btn-small btn-fix"
                      disabled={!c.take}
                      aria-label={`Take it: ${c.label}`}
                      onClick={c.take}
                    >
                      Take it
                    </button>
                    <button type="button" className="btn btn-small" aria-label={`Let go: ${c.label}`} onClick={() => onDrop(c.key)}>
                      Let go
                    </button>
                  </span>
                )}
              </td>
            ))}
          </tr>
        </tbody>
      </table>
    </section>
  );
}
