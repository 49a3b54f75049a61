import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useDeferredValue, useEffect, useRef, useState } from "react";
import { Link, useLocation } from "wouter";
import { type ProjectLine, api, ask } from "../api/client";
import { useKeys } from "../editor/use-keys";
import { follow } from "../desk/follow";
import { savesDone } from "../desk/saver";
import { plural } from "../lib/format";
import { Icon } from "../ui/icons";
import { Failure, Loading, TopBar } from "../ui/ui";
import { useOpenFile } from "./open-file";
import { ProjectCard } from "./project-card";
import { StillHere } from "./still-here";

/** The projects, the one changed last first. */
export function Shelf({ lost }: { lost?: boolean }) {
  const client = useQueryClient();
  const list = useQuery({
    queryKey: ["projects"],
    queryFn: () => savesDone().then(() => ask(api.GET("/api/projects"))),
    refetchOnMount: "always",
  });
  const file = useOpenFile();
  // those that were deleted here stay at their place until the page is left
  const [gone, setGone] = useState<ProjectLine[]>([]);
  useEffect(() => follow("", () => void client.invalidateQueries({ queryKey: ["projects"] })), [client]);
  const [typed, setTyped] = useState("");
  const words = useDeferredValue(typed).toLowerCase().split(/\s+/).filter(Boolean);
  const [chosen, setChosen] = useState<string[]>();
  const [, go] = useLocation();
  const search = useRef<HTMLInputElement>(null);
  useKeys({ "/": () => search.current?.focus() });
  const again = { onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }) };
  const remove = useMutation({
    mutationFn: (p: ProjectLine) => ask(api.DELETE("/api/projects/{id}", { params: { path: { id: p.id } } })).then(() => p),
    onSuccess: (p) => setGone((g) => [...g, p]),
    ...again,
  });
  const restore = useMutation({
    mutationFn: (p: ProjectLine) => ask(api.POST("/api/projects/{id}/restore", { params: { path: { id: p.id } } })),
    onSuccess: (_, p) => setGone((g) => g.filter((x) => x.id !== p.id)),
    ...again,
  });
  const copy = useMutation({
    mutationFn: async (p: ProjectLine) => {
      const { project } = await ask(api.GET("/api/projects/{id}", { params: { path: { id: p.id } } }));
      // a copy is built anew: what is in the cart or cut is the first one's
      return ask(
        api.POST("/api/projects", {
          body: { ...project, name: copyName(project.name, list.data ?? []) },
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
  const there = list.data ?? [];
  const all = [...there, ...gone.filter((g) => !there.some((p) => p.id === g.id))].sort((a, b) => b.updated.localeCompare(a.updated));
  const isGone = (p: ProjectLine) => gone.some((g) => g.id === p.id) && !there.some((t) => t.id === p.id);
  const shown = all.filter((p) => words.every((w) => p.name.toLowerCase().includes(w)));
  return (
    <>
      <TopBar>
        <Link href="/prices" className="btn btn-small">
          <Icon name="prices" size={18} /> Prices
        </Link>
        <Link href="/rack" className="btn btn-small">
          <Icon name="rack" size={18} /> Rack
        </Link>
      </TopBar>
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
            {file.button}
            <Link href="/new" className="btn btn-main">
              <Icon name="plus" size={18} /> New frame
            </Link>
          </span>
        </div>
        {file.failure}
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
        <StillHere names={there} />
        {list.isPending && <Loading what="the projects" />}
        {list.error && <Failure why="The server does not answer." retry={() => void list.refetch()} />}
        {all.length === 0 && list.data && (
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
          {shown.map((p) =>
            isGone(p) ? (
              <li key={p.id} className="card grid content-center justify-items-center gap-3 text-center" role="status">
                <span>“{p.name}” is deleted, with what was done to it.</span>
                <button
                  type="button"
                  className="btn btn-main"
                  // biome-ignore lint/a11y/noAutofocus: the focus was on what is gone
                  autoFocus
                  onClick={() => restore.mutate(p)}
                >
                  <Icon name="undo" size={18} /> Put it back
                </button>
                <span className="text-sm text-ink-2">It can be put back for a month.</span>
              </li>
            ) : (
              <ProjectCard
                key={p.id}
                line={p}
                onDelete={() => remove.mutate(p)}
                onCopy={() => copy.mutate(p)}
                onRename={(name) => rename.mutate({ p, name })}
                chosen={chosen?.includes(p.id)}
                onChoose={(on) => setChosen((c = []) => (on ? [...c, p.id] : c.filter((id) => id !== p.id)))}
              />
            ),
          )}
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
