import type { Finding, Project } from "../api/client";

const look: Record<string, { sign: string; colour: string; word: string }> = {
  stop: { sign: "✕", colour: "border-bad text-bad", word: "Cannot be built so" },
  warn: { sign: "!", colour: "border-warn text-warn", word: "Mind this" },
  question: { sign: "?", colour: "border-accent text-accent", word: "A question" },
  note: { sign: "i", colour: "border-ink-2 text-ink-2", word: "Good to know" },
};

/** What the plan noticed, with fixes that apply at once. */
export function Findings({ of, change }: { of: Finding[]; change: (edit: (p: Project) => Project) => void }) {
  if (of.length === 0) return null;
  return (
    <ul aria-label="Findings" className="no-print grid max-h-44 gap-1 overflow-auto border-t border-rule bg-paper p-3 text-sm">
      {of.map((f) => {
        const l = look[f.severity] ?? { sign: "i", colour: "", word: "" };
        return (
          <li key={f.code + f.text} className="flex items-start gap-2">
            <span className={`grid h-5 w-5 shrink-0 place-items-center rounded-full border-2 text-xs font-bold ${l.colour}`} title={l.word}>
              <span aria-hidden="true">{l.sign}</span>
              <span className="sr-only">{l.word}: </span>
            </span>
            <span>
              <strong>{sentence(f.text)}</strong> {sentence(f.hint)}
              {f.fixes?.map((x) => (
                <button key={x.label} type="button" className="ml-2 font-semibold text-accent underline" onClick={() => change((p) => x.edits.reduce(apply, p))}>
                  {x.label}
                </button>
              ))}
            </span>
          </li>
        );
      })}
    </ul>
  );
}

const sentence = (t: string) => `${t.charAt(0).toUpperCase()}${t.slice(1)}${/[.?!]$/.test(t) ? "" : "."}`;

/** Sets a member of the project by its JSON pointer. */
function apply(p: Project, edit: { path: string; value: unknown }): Project {
  const copy = structuredClone(p) as unknown as Record<string, unknown>;
  const keys = edit.path.split("/").slice(1);
  const last = keys.pop();
  let at: Record<string, unknown> = copy;
  for (const k of keys) at = at[k] as Record<string, unknown>;
  if (last !== undefined) at[last] = edit.value;
  return copy as unknown as Project;
}
