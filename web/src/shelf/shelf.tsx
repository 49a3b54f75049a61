import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useRef, useState } from "react";
import { Link, useLocation } from "wouter";
import { type Project, Refusal, api, ask } from "../api/client";
import { Failure, Loading, TopBar } from "../ui/ui";

/** The projects, the one changed last first. */
export function Shelf({ lost }: { lost?: boolean }) {
  const client = useQueryClient();
  const list = useQuery({ queryKey: ["projects"], queryFn: () => ask(api.GET("/api/projects")), refetchOnMount: "always" });
  const [gone, setGone] = useState<Project>();
  const remove = useMutation({
    mutationFn: async (id: string) => {
      const p = await ask(api.GET("/api/projects/{id}", { params: { path: { id } } }));
      await ask(api.DELETE("/api/projects/{id}", { params: { path: { id } } }));
      return p.project;
    },
    onSuccess: setGone,
    onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }),
  });
  const putBack = useMutation({
    mutationFn: (p: Project) => ask(api.POST("/api/projects", { body: p })),
    onSuccess: () => setGone(undefined),
    onSettled: () => client.invalidateQueries({ queryKey: ["projects"] }),
  });
  return (
    <>
      <TopBar />
      <main className="mx-auto max-w-3xl px-4 py-8">
        {lost && <Failure why="There is no such page. Here is everything you have." />}
        <div className="sheet-head">
          <h1 className="text-3xl">Projects</h1>
          <span className="flex flex-wrap gap-2 pb-2">
            <Link href="/new" className="btn btn-main">
              New frame
            </Link>
            <OpenFile />
            <Link href="/cut" className="btn">
              Cut a list
            </Link>
          </span>
        </div>
        {gone && (
          <p role="status" className="my-3 flex items-center gap-3 rounded-md bg-paper-2 p-2">
            “{gone.name}” is deleted.
            <button type="button" className="btn" onClick={() => putBack.mutate(gone)}>
              Put it back
            </button>
          </p>
        )}
        {remove.error && <Failure why={remove.error.message} />}
        {list.isPending && <Loading what="the projects" />}
        {list.error && <Failure why="The server does not answer." retry={() => void list.refetch()} />}
        {list.data?.length === 0 && (
          <p className="py-8 text-lg">
            Nothing here yet. <Link href="/new" className="font-semibold text-accent underline">Begin a frame</Link> from a few sizes:
            what to cut, which fittings and how many sticks follow at once.
          </p>
        )}
        <ul>
          {list.data?.map((p) => (
            <li key={p.id} className="flex items-center border-b border-rule">
              <Link href={`/p/${p.id}`} className="flex-1 rounded py-3 font-display text-xl font-semibold hover:text-accent">
                {p.name || "Without a name"}
                <span className="ml-3 font-sans text-sm font-normal text-ink-2">changed {new Date(p.updated).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" })}</span>
              </Link>
              <button type="button" className="btn btn-bare text-ink-2" aria-label={`Delete ${p.name}`} onClick={() => remove.mutate(p.id)}>
                Delete
              </button>
            </li>
          ))}
        </ul>
      </main>
    </>
  );
}

/** Opens a wireframe file as a new project. */
export function OpenFile() {
  const input = useRef<HTMLInputElement>(null);
  const [, go] = useLocation();
  const open = useMutation({
    mutationFn: async (file: File) => {
      const frame = await ask(api.POST("/api/read", { body: { text: await file.text() } }));
      const name = frame.name || file.name.replace(/(\.wireframe)?\.json$/, "");
      const style = frame.units === "mm" ? "metric" : "inches";
      const body: Project = { name, units: frame.units, style, frame: { ...frame, name }, copies: 1, tool: "saw", work: { bought: [] } };
      return ask(api.POST("/api/projects", { body }));
    },
    onSuccess: (p) => go(`/p/${p.id}`),
  });
  return (
    <>
      <button type="button" className="btn" onClick={() => input.current?.click()}>
        Open a file
      </button>
      <input
        ref={input}
        type="file"
        accept=".json,application/json"
        className="hidden"
        aria-label="Wireframe file"
        tabIndex={-1}
        onChange={(e) => {
          const f = e.target.files?.[0];
          if (f) open.mutate(f);
          e.target.value = "";
        }}
      />
      {open.error && (
        <div role="alert" className="w-full rounded-md border-2 border-bad bg-paper p-3 text-sm">
          <strong>{open.error.message}</strong>
          <ul>
            {open.error instanceof Refusal &&
              Object.entries(open.error.places)
                .slice(0, 6)
                .map(([where, what]) => (
                  <li key={where}>
                    {where.replace("body.text", "") || "/"}, line {String((open.error as Refusal).value(where))}: {what}
                  </li>
                ))}
          </ul>
        </div>
      )}
    </>
  );
}
