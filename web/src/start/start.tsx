import { useMutation, useQuery } from "@tanstack/react-query";
import { useLocation } from "wouter";
import { type Project, type Starter, api, ask } from "../api/client";
import { OpenFile } from "../shelf/open-file";
import { Failure, Loading, TopBar } from "../ui/ui";

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
      <main className="mx-auto w-full max-w-6xl px-4 py-6">
        <div className="sheet-head flex-wrap">
          <h1 className="text-3xl">What are you building?</h1>
          <span className="pb-1">
            <OpenFile />
          </span>
        </div>
        {list.isPending && <Loading what="the starters" />}
        {(list.error || begin.error) && <Failure why="The server does not answer." retry={() => void list.refetch()} />}
        <ul className="shelf">
          {list.data?.map((s) => (
            <li key={s.id} className="card">
              <button type="button" disabled={begin.isPending} onClick={() => begin.mutate(s)} className="card-link text-left">
                {/* drawn by our own server */}
                <span className="card-picture" aria-hidden="true" dangerouslySetInnerHTML={{ __html: s.drawing }} />
                <span className="card-name">{s.name}</span>
                <span className="block text-ink-2">{s.about}</span>
              </button>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}
