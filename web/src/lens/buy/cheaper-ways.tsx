import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { Project } from "../../api/client";
import { shopFor } from "../../desk/scope";
import { planOf } from "../../desk/server";
import { useDesk, useNow, useOpen, usePlan } from "../../desk/use";
import { money, plural, text } from "../../lib/format";
import { NoAnswer } from "../../ui/ui";
import { useTools } from "../../ui/tool-pick";
import { pipeSizes } from "../sizes";
import { schools } from "../../lib/words";
import { cementedBy, cutWith, inSticksOf, ofSize } from "./changes";

/** No fitting is what costs most: what other sticks of its size, another tool, another cement or another size of pipe save. Each is planned whole. */
export function CheaperWays({ size }: { size: string }) {
  const open = useOpen();
  const desk = useDesk();
  const now = useNow();
  const plan = usePlan();
  const tools = useTools();
  const [asked, setAsked] = useState(false);
  const shop = shopFor(now.shop, now.project);
  const lengths = [
    ...new Set(shop.prices.prices.flatMap((p) => (p.ware === "pipe" && p.size === size && p.length ? [p.length] : []))),
  ].sort((a, b) => b - a);
  const found = useQuery({
    queryKey: ["cheaper ways", open.id, now.project, now.shop, plan.begun, size],
    enabled: asked,
    retry: false,
    staleTime: Number.POSITIVE_INFINITY,
    queryFn: async ({ signal }) => {
      const ways: [string, () => Promise<Project> | Project][] = [
        ...lengths.map(
          (l) => [`sticks of ${text(l, "feet-inches", 64)} alone`, () => inSticksOf(now.project, [l])] as [string, () => Project],
        ),
        ...(lengths.length > 1
          ? [
              [`sticks of ${lengths.map((l) => text(l, "feet-inches", 64)).join(" and ")}`, () => inSticksOf(now.project, lengths)] as [
                string,
                () => Project,
              ],
            ]
          : []),
        ...tools
          .filter((t) => t.id !== now.project.tool)
          .map((t) => [`cut with the ${t.name.toLowerCase()}`, () => cutWith(now.project, t.id)] as [string, () => Project]),
        ...schools
          .filter(([v]) => v !== (now.project.school ?? ""))
          .map(([v, words]) => [`joints with ${words}`, () => cementedBy(now.project, v)] as [string, () => Project]),
        ...(now.project.frame && !open.several
          ? pipeSizes
              .filter(([s]) => s !== size)
              .map(
                ([s, words]) =>
                  [`${words} pipe and its fittings`, () => ofSize(now.project, s, open.id)] as [string, () => Promise<Project>],
              )
          : []),
      ];
      const lacks = (p: typeof plan) => p.pipe.reduce((n, t) => n + (t.tooLong?.length ?? 0), p.bill.unpriced.length);
      const stops = (p: typeof plan) => p.findings.filter((f) => f.severity === "stop").length;
      const grave = (p: typeof plan) => p.findings.filter((f) => f.severity !== "note").length;
      const all: { words: string; project: Project; saves: number; sticks: number; more: number }[] = [];
      for (const [words, to] of ways) {
        try {
          const project = await to();
          const then = (await planOf({ project, shop: now.shop }, { of: open.id, signal })).plan;
          const saves = plan.bill.total - then.bill.total;
          // what lacks a price, or a stick that holds it, is not cheaper
          if (saves > 0 && lacks(then) <= lacks(plan) && stops(then) <= stops(plan))
            all.push({ words, project, saves, sticks: then.totals.sticks - plan.totals.sticks, more: grave(then) - grave(plan) });
        } catch (e) {
          if (signal.aborted || e instanceof TypeError) throw e; // it asks something, or cannot be: it is no answer to this
        }
      }
      // of several that come to the same, the first will do
      return all
        .sort((a, b) => b.saves - a.saves)
        .filter((w, i) => all.findIndex((x) => x.saves === w.saves && x.sticks === w.sticks) === i);
    },
  });
  if (!asked)
    return (
      <p>
        <button type="button" className="btn btn-small" onClick={() => setAsked(true)}>
          What other sticks, tools, cement or sizes save
        </button>
      </p>
    );
  return (
    <section aria-label="Other ways" className="grid gap-2" aria-live="polite">
      {found.isFetching && <p className="text-ink-2">Planning it in other sticks, with other tools and cement, and of other sizes …</p>}
      {found.error && <NoAnswer error={found.error} retry={() => void found.refetch()} />}
      {found.data?.length === 0 && (
        <p>Nothing costs less: neither the lengths that have a price, nor another tool, another cement or another size of pipe.</p>
      )}
      <ul className="grid gap-1">
        {found.data?.map((w) => (
          <li key={w.words} className="flex flex-wrap items-center justify-between gap-x-3 border-t border-rule pt-1">
            <span>
              {w.words.charAt(0).toUpperCase() + w.words.slice(1)}: <strong>{money(w.saves)} less</strong>
              {w.sticks !== 0 && `, ${plural(Math.abs(w.sticks), "stick")} ${w.sticks > 0 ? "more" : "fewer"}`}
              {w.more > 0 && <strong className="text-warn">, {w.more} more to look at</strong>}
            </span>
            <button
              type="button"
              className="btn btn-small btn-fix"
              aria-label={`Take it: ${w.words}`}
              onClick={() => {
                desk.edit(w.words.charAt(0).toUpperCase() + w.words.slice(1), () => w.project);
                setAsked(false);
              }}
            >
              Take it
            </button>
          </li>
        ))}
      </ul>
      {found.data?.some((w) => w.words.includes("its fittings")) && (
        <p className="text-sm text-ink-2">Thinner pipe is weaker and bends more: look at what the frame has to carry before you take it.</p>
      )}
      <p>
        <button type="button" className="btn btn-small" onClick={() => setAsked(false)}>
          Leave it
        </button>
      </p>
    </section>
  );
}
