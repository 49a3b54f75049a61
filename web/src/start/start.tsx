import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { useLocation } from "wouter";
import { type Project, type Starter, api, ask } from "../api/client";
import { useOpenFile } from "../shelf/open-file";
import { plural } from "../lib/format";
import { Icon } from "../ui/icons";
import { Failure, Loading, TopBar } from "../ui/ui";
import { groupsOf, matching } from "./search";

/** A frame with nothing in it. */
const blank: Project["frame"] = { format: 3, name: "My frame", units: "in", size: "3/4", mode: "cemented", root: {} };

/** Chooses how a frame begins. */
export function StartPage() {
  const list = useQuery({
    queryKey: ["starters"],
    queryFn: () => ask(api.GET("/api/starters")),
    staleTime: 30_000,
    refetchOnMount: "always",
  });
  const [, go] = useLocation();
  const file = useOpenFile();
  const [wanted, setWanted] = useState("");
  const found = matching(list.data ?? [], wanted);
  const begin = useMutation({
    mutationFn: async (s: Starter | undefined) => {
      if (s?.id.startsWith("own:")) {
        const mine = await ask(api.GET("/api/projects/{id}", { params: { path: { id: s.id.slice(4) } } }));
        return ask(api.POST("/api/projects", { body: { ...mine.project, template: false } }));
      }
      if (!s) {
        const taken = new Set((await ask(api.GET("/api/projects"))).map((p) => p.name));
        let name = "My frame";
        for (let n = 2; taken.has(name); n++) name = `My frame ${n}`;
        return ask(
          api.POST("/api/projects", {
            body: { name, units: "in", style: "inches", frame: blank, copies: 1, tool: "saw" },
          }),
        );
      }
      const answers = Object.fromEntries(s.prompts.map((p) => [p.key, { text: p.default, meaning: p.meanings?.[0] }]));
      const body: Project = {
        name: s.name,
        units: "in",
        style: "inches",
        starter: { id: s.id, answers },
        copies: 1,
        tool: "saw",
      };
      return ask(api.POST("/api/projects", { body }));
    },
    onSuccess: (p, s) => go(s ? `/p/${p.id}` : `/p/${p.id}/frame`),
  });
  return (
    <>
      <TopBar />
      <main className="mx-auto w-full max-w-6xl px-4 py-6">
        <div className="sheet-head flex-wrap">
          <h1 className="text-3xl">What are you building?</h1>
          <span className="pb-1">{file.button}</span>
        </div>
        {file.failure}
        {list.isPending && <Loading what="the starters" />}
        {(list.error || begin.error) && <Failure why="The server does not answer." retry={() => void list.refetch()} />}
        <input
          type="search"
          className="field mb-3 w-full text-lg"
          aria-label="Search the starters"
          placeholder="in your words: a wall, on wheels, hold a load up off the ground"
          value={wanted}
          autoComplete="off"
          spellCheck={false}
          onChange={(e) => setWanted(e.target.value)}
        />
        {list.data && (
          <p role="status" className={found.length === 0 && wanted.trim() ? "mb-3" : "sr-only"}>
            {found.length === 0
              ? "No starter is for that: begin from nothing, and say the frame line by line."
              : `${plural(found.length, "starter")} to begin from`}
          </p>
        )}
        {list.data && !wanted.trim() && (
          <button
            type="button"
            disabled={begin.isPending}
            onClick={() => begin.mutate(undefined)}
            className="card card-link flex w-full items-center gap-4 p-3 text-left"
          >
            <Icon name="plus" size={40} />
            <span>
              <span className="card-name">From nothing</span>
              <span className="block text-ink-2">Line by line: say which way and how long, or paste a page of lines.</span>
            </span>
          </button>
        )}
        {groupsOf(found).map(([name, some]) => (
          <section key={name} aria-label={name}>
            <h2 className="mt-4 mb-2 text-xl">{name}</h2>
            <ul className="shelf">
              {some.map((s) => (
                <li key={s.id} className="card">
                  <button type="button" disabled={begin.isPending} onClick={() => begin.mutate(s)} className="card-link text-left">
                    {/* drawn by our own server */}
                    <span className="card-picture" aria-hidden="true" dangerouslySetInnerHTML={{ __html: s.drawing }} />
                    <span className="card-name">
                      {s.name}
                      {s.id.startsWith("own:") && <span className="font-sans text-sm font-normal text-ink-2"> yours</span>}
                    </span>
                    <span className="block text-ink-2">{s.about}</span>
                  </button>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </main>
    </>
  );
}
