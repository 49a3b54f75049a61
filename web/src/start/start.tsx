import { useMutation, useQuery } from "@tanstack/react-query";
import { useLocation } from "wouter";
import { type Project, type Starter, api, ask } from "../api/client";
import { OpenFile } from "../shelf/shelf";
import { Failure, Loading, TopBar } from "../ui/ui";

// One sketch a starter, so that the choice is made by eye.
const sketches: Record<string, string> = {
  jump: "M14 8v50M66 8v50M4 62l20-8M56 62l20-8M14 50h52M10 32h60",
  screen: "M8 12v44M40 12v44M72 12v44M8 14h64M8 46h64M2 60l12-8M34 60l12-8M66 60l12-8",
  table: "M10 20l16-10h46L58 20zM10 20v40M58 20v40M26 10v36M72 10v38M10 46l16-10M58 46l14-10M10 46h48",
};

/** Chooses how a frame begins. */
export function StartPage() {
  const list = useQuery({ queryKey: ["starters"], queryFn: () => ask(api.GET("/api/starters")), staleTime: Number.POSITIVE_INFINITY });
  const [, go] = useLocation();
  const begin = useMutation({
    mutationFn: (s: Starter) => {
      const answers = Object.fromEntries(s.prompts.map((p) => [p.key, { text: p.default, meaning: p.meanings?.[0] }]));
      const body: Project = { name: s.name, units: "in", style: "inches", starter: { id: s.id, answers }, copies: 1, tool: "saw", work: { bought: [] } };
      return ask(api.POST("/api/projects", { body }));
    },
    onSuccess: (p) => go(`/p/${p.id}`),
  });
  return (
    <>
      <TopBar />
      <main className="mx-auto max-w-4xl px-4 py-8">
        <div className="sheet-head">
          <h1 className="text-3xl">What are you building?</h1>
          <span className="pb-2">
            <OpenFile />
          </span>
        </div>
        {list.isPending && <Loading what="the starters" />}
        {(list.error || begin.error) && <Failure why="The server does not answer." retry={() => void list.refetch()} />}
        <ul className="grid gap-4 pt-3 sm:grid-cols-3">
          {list.data?.map((s) => (
            <li key={s.id}>
              <button
                type="button"
                disabled={begin.isPending}
                onClick={() => begin.mutate(s)}
                className="h-full w-full rounded-md border-2 border-ink bg-paper p-4 text-left hover:bg-paper-2"
              >
                <svg viewBox="0 0 80 68" className="mb-3 h-32 w-full" aria-hidden="true">
                  <path d={sketches[s.id]} fill="none" stroke="var(--edge)" strokeWidth="5" strokeLinecap="round" strokeLinejoin="round" />
                  <path d={sketches[s.id]} fill="none" stroke="var(--pipe)" strokeWidth="3" strokeLinecap="round" strokeLinejoin="round" />
                </svg>
                <span className="font-display text-xl font-bold">{s.name}</span>
                <span className="mt-1 block text-ink-2">{s.about}</span>
              </button>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}
