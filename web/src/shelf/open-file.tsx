import { useMutation } from "@tanstack/react-query";
import { Link, useLocation } from "wouter";
import { Refusal, api, ask } from "../api/client";
import { Icon } from "../ui/icons";
import { FileButton } from "../ui/file-button";

/** Opening a file as a new project: a button for it, and what is wrong with a file that holds none. */
export function useOpenFile() {
  const [, go] = useLocation();
  const open = useMutation({
    mutationFn: async (file: File) => {
      if (file.size > mostBytes) throw new Error(`“${file.name}” is larger than a project ever is`);
      return ask(api.POST("/api/open", { body: { name: file.name.slice(-400), text: await file.text() } }));
    },
    onSuccess: (p) => go(`/p/${p.id}`),
  });
  const button = (
    <FileButton
      label="Project, frame, wireframe or a text of lines"
      accept=".json,.txt,application/json,text/plain"
      disabled={open.isPending}
      onFile={(f) => open.mutate(f)}
    />
  );
  const failure = open.error && <NotOpened file={open.variables?.name ?? ""} error={open.error} onClose={() => open.reset()} />;
  return { button, failure };
}

const mostBytes = 4_000_000;

function NotOpened({ file, error, onClose }: { file: string; error: Error; onClose: () => void }) {
  const faults = error instanceof Refusal ? (error.problem.errors ?? []) : [];
  const cutList = faults.some((e) => e.message.includes("Cut a list"));
  return (
    <div role="alert" className="my-3 flex items-start gap-3 rounded-md border-2 border-bad bg-paper p-3">
      <div className="min-w-0 flex-1">
        <strong className="break-words">“{file}” was not opened.</strong>
        {faults.length === 0 && <p>{error.message}</p>}
        <ul>
          {faults.slice(0, 6).map((e) => (
            <li key={`${e.line} ${e.within} ${e.message}`} className="break-words">
              {e.within || e.line ? `${e.within || "/"}${e.line ? `, line ${e.line}` : ""}: ` : "It is "}
              {e.message}.
            </li>
          ))}
        </ul>
        {cutList && (
          <Link href="/cut" className="link">
            To Cut a list
          </Link>
        )}
      </div>
      <button type="button" className="icon-btn" aria-label="Close" onClick={onClose}>
        <Icon name="close" />
      </button>
    </div>
  );
}
