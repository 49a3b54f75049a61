import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { type PlanAnswer, type Project, type Shop, api, ask } from "../api/client";
import { beginning } from "../desk/doing";
import { Recorder } from "../desk/record";
import { shelfOf } from "../desk/shelf";
import { savesDone } from "../desk/saver";
import { planOf, sayDone, sayTogether } from "../desk/server";

/** A project, or by its ids with commas between what stands for several that are bought together. */
const stored = async (id: string) =>
  (id.includes(",")
    ? await ask(api.GET("/api/purchases/{of}", { params: { path: { of: id } } }))
    : await ask(api.GET("/api/projects/{id}", { params: { path: { id } } }))
  ).project;

/** A project with its plan, as it is stored and saved. */
export const usePrinted = (id: string, kind: string) =>
  useQuery({
    queryKey: [kind, id],
    staleTime: 0,
    gcTime: 0,
    retry: false,
    queryFn: async () => {
      await savesDone();
      const [project, { shop }] = await Promise.all([stored(id), ask(api.GET("/api/shop"))]);
      return { project, shop, answer: await planOf({ project, shop }, { draw: true, of: id, more: { paper: true } }) };
    },
  });

/** The projects whose letters were fixed by printing, in this window. */
const fixed = new Set<string>();

/** What is printed is written on paper: its letters are fixed from then on. */
export function useLettersFixed(id: string, printed?: { project: Project; answer: PlanAnswer; shop: Shop }) {
  useEffect(() => {
    if (!printed) return;
    const fix = () => {
      const first = beginning(printed.answer.plan, printed.shop).filter((e) => e.kind === "lettered");
      const r = new Recorder(
        shelfOf(id),
        (events) => (printed.project.together ? sayTogether(printed.project, events) : sayDone(id, events)),
        () => undefined,
      );
      if (!fixed.has(id)) r.did(first);
      if (first.length > 0) fixed.add(id);
    };
    addEventListener("beforeprint", fix);
    return () => removeEventListener("beforeprint", fix);
  }, [printed, id]);
}
