import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { useLocation } from "wouter";
import { type Project, Refusal, api, ask } from "../api/client";
import { Icon } from "../ui/icons";

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
        <Icon name="file" size={18} /> Open a file
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
              open.error.problem.errors?.slice(0, 6).map((e) => (
                <li key={`${e.line} ${e.within} ${e.message}`}>
                  {e.within || "/"}
                  {e.line ? `, line ${e.line}` : ""}: {e.message}
                </li>
              ))}
          </ul>
        </div>
      )}
    </>
  );
}
