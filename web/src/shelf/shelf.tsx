import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useRef, useState } from "react";
import { Link, useLocation } from "wouter";
import { type ProjectLine, api, ask } from "../api/client";
import { useKeys } from "../editor/use-keys";
import { savesDone } from "../desk/saver";
import { plural } from "../lib/format";
import { Icon } from "../ui/icons";
import { Failure, Loading, TopBar } from "../ui/ui";
import { OpenFile } from "./open-file";
import { ProjectCard } from "./project-card";

/** The projects, the one changed last first. */
export function Shelf({ lost }: { lost?: boolean }) {
  const client = useQueryClient();
  const list = useQuery({
    queryKey: ["projects"],
    queryFn: () => savesDone().then(() => ask(api.GET("/api/projects"))),
    refetchOnMount: "always",
  });
  const [gone, setGone] = useState<ProjectLine>();
  const [typed, setTyped] = useState("");
  const words = useDeferredValue(typed).toLowerCase().split(/\s+/).filter(Boolean);
  const [chosen, setChosen] = useState<string[]>();
  const [, go] = useLocation();
  const search = useRef<HTMLInputElement>(null);
  useKeys({ "/": () => search.current?.focus() });
  const again = { onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }) };
  const remove = useMutation({
    mutationFn: (p: ProjectLine) => ask(api.DELETE("/api/projects/{id}", { params: { path: { id: p.id } } })).then(() => p),
    onSuccess: setGone,
    ...again,
  });
  const restore = useMutation({
    mutationFn: (p: ProjectLine) => ask(api.POST("/api/projects/{id}/restore", { params: { path: { id: p.id } } })),
    onSuccess: () => setGone(undefined),
    ...again,
  });
  const copy = useMutation({
    mutationFn: async (p: ProjectLine) => {
      const { project } = await ask(api.GET("/api/projects/{id}", { params: { path: { id: p.id } } }));
      // a copy is built anew: what is in the cart or cut is the first one's
      return ask(
        api.POST("/api/projects", {
          body: { ...project, name: copyName(project.name, list.data ?? []), marks: undefined, work: { bought: [] } },
        }),
      );
    },
    ...again,
  });
  const rename = useMutation({
    mutationFn: async ({ p, name }: { p: ProjectLine; name: string }) => {
      const stored = await ask(api.GET("/api/projects/{id}", { params: { path: { id: p.id } } }));
      return ask(
        api.PUT("/api/projects/{id}", {
          params: { path: { id: p.id } },
          body: { revision: stored.revision, project: { ...stored.project, name } },
        }),
      );
    },
    ...again,
  });
  const failed = remove.error ?? restore.error ?? copy.error ?? rename.error;
  const all = list.data ?? [];
  const shown = all.filter((p) => words.every((w) => p.name.toLowerCase().includes(w)));
  return (
    <>
      <TopBar />
      <main className="mx-auto w-full max-w-6xl px-4 py-6">
        {lost && <Failure why="There is no such page. Here is everything you have." />}
        <div className="sheet-head flex-wrap">
          <h1 className="text-3xl">On the shelf</h1>
          <span className="flex flex-wrap items-center gap-2 pb-1">
            {all.length > 0 && (
              <label className="search">
                <Icon name="search" size={18} />
                <input
                  ref={search}
                  type="search"
                  aria-label="Search the projects"
                  placeholder="Search"
                  value={typed}
                  onChange={(e) => setTyped(e.target.value)}
                  onKeyDown={(e) => e.key === "Escape" && setTyped("")}
                />
              </label>
            )}
            {all.length > 1 && (
              <button type="button" className="btn" aria-pressed={chosen !== undefined} onClick={() => setChosen(chosen ? undefined : [])}>
                <Icon name="buy" size={18} /> Buy together
              </button>
            )}
            <Link href="/cut" className="btn">
              <Icon name="list" size={18} /> Cut a list
            </Link>
            <OpenFile />
            <Link href="/new" className="btn btn-main">
              <Icon name="plus" size={18} /> New frame
            </Link>
          </span>
        </div>
        {gone && (
          <p role="status" className="my-3 flex items-center gap-3 rounded-md bg-paper-2 p-2 pl-4">
            “{gone.name}” is deleted.
            <button type="button" className="btn btn-small" onClick={() => restore.mutate(gone)}>
              Put it back
            </button>
          </p>
        )}
        {chosen && (
          <p
            role="status"
            className="sticky top-0 z-10 my-3 flex flex-wrap items-center gap-3 rounded-md border-2 border-ink bg-paper p-2 pl-4"
          >
            {chosen.length === 0
              ? "Tick what you buy in one go: pieces share sticks, and you pay for one can."
              : `${plural(chosen.length, "project")} chosen`}
            <button
              type="button"
              className="btn btn-small btn-main"
              disabled={chosen.length === 0}
              onClick={() => go(`/together?of=${chosen.join(",")}`)}
            >
              To the list
            </button>
            <button type="button" className="btn btn-small" onClick={() => setChosen(undefined)}>
              Not now
            </button>
          </p>
        )}
        {failed && <Failure why={failed.message} />}
        {list.isPending && <Loading what="the projects" />}
        {list.error && <Failure why="The server does not answer." retry={() => void list.refetch()} />}
        {list.data?.length === 0 && (
          <p className="py-8 text-lg">
            Nothing here yet.{" "}
            <Link href="/new" className="link">
              Begin a frame
            </Link>{" "}
            from a few sizes: what to cut, which fittings and how many sticks follow at once.
          </p>
        )}
        {words.length > 0 && (
          <p role="status" className="py-2 text-sm text-ink-2">
            {shown.length === 0 ? `No project is called “${typed}”.` : plural(shown.length, "project")}
          </p>
        )}
        <ul className="shelf">
          {shown.map((p) => (
            <ProjectCard
              key={p.id}
              line={p}
              onDelete={() => remove.mutate(p)}
              onCopy={() => copy.mutate(p)}
              onRename={(name) => rename.mutate({ p, name })}
              chosen={chosen?.includes(p.id)}
              onChoose={(on) => setChosen((c = []) => (on ? [...c, p.id] : c.filter((id) => id !== p.id)))}
            />
          ))}
        </ul>
      </main>
    </>
  );
}

function copyName(name: string, all: ProjectLine[]): string {
  const stem = name.replace(/ \(copy( \d+)?\)$/, "");
  const taken = new Set(all.map((p) => p.name));
  for (let n = 1; ; n++) {
    const next = n === 1 ? `${stem} (copy)` : `${stem} (copy ${n})`;
    if (!taken.has(next)) return next;
  }
}
