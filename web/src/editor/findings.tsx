import type { Finding, Fix } from "../api/client";

const look: Record<string, { sign: string; colour: string; word: string }> = {
  stop: { sign: "✕", colour: "border-bad text-bad", word: "Cannot be built so" },
  warn: { sign: "!", colour: "border-warn text-warn", word: "Mind this" },
  question: { sign: "?", colour: "border-accent text-accent", word: "A question" },
  note: { sign: "i", colour: "border-ink-2 text-ink-2", word: "Good to know" },
};

const sentence = (t: string) => `${t.charAt(0).toUpperCase()}${t.slice(1)}${/[.?!]$/.test(t) ? "" : "."}`;

export function FindingText({ of: f, onFix }: { of: Finding; onFix: (x: Fix) => void }) {
  const l = look[f.severity] ?? { sign: "i", colour: "", word: "" };
  return (
    <div className="flex items-start gap-2">
      <span className={`grid h-5 w-5 shrink-0 place-items-center rounded-full border-2 text-xs font-bold ${l.colour}`} title={l.word}>
        <span aria-hidden="true">{l.sign}</span>
        <span className="sr-only">{l.word}: </span>
      </span>
      <span>
        <strong>{sentence(f.text)}</strong> {sentence(f.hint)}
        {f.cases && (
          <details className="mt-1">
            <summary className="link">Each of them</summary>
            <ul className="mt-1 list-disc pl-5">
              {f.cases.map((c, i) => (
                <li key={`${i} ${c.text}`}>
                  {sentence(c.text)} {c.hint !== f.hint && sentence(c.hint)}
                </li>
              ))}
            </ul>
          </details>
        )}
        {(f.fixes?.length ?? 0) > 0 && (
          <span className="mt-1 flex flex-wrap gap-2">
            {f.fixes?.map((x) => (
              <button key={x.label} type="button" className="btn btn-small btn-fix" onClick={() => onFix(x)}>
                {x.label}
              </button>
            ))}
          </span>
        )}
      </span>
    </div>
  );
}

/** What the plan noticed, the gravest first, with fixes that apply at once. */
export function Findings({ of, onShow, onFix }: { of: Finding[]; onShow: (f: Finding) => void; onFix: (x: Fix) => void }) {
  if (of.length === 0) return <p className="text-sm">Nothing to look at: it goes together as planned.</p>;
  return (
    <ul aria-label="Findings" className="grid gap-3 text-sm">
      {of.map((f, i) => (
        <li key={`${f.code} ${f.text} ${i}`}>
          <FindingText of={f} onFix={onFix} />
          {f.subjects.length > 0 && f.frame >= 0 && (
            <button type="button" className="link ml-7 text-sm" onClick={() => onShow(f)}>
              Show where
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
