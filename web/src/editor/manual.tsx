import type { ReactNode } from "react";
import manual from "../../../docs/lines.md?raw";

/** A text with `code` in it. */
const words = (text: string): ReactNode => text.split("`").map((t, i) => (i % 2 === 1 ? <kbd key={`${i} ${t}`}>{t}</kbd> : t));

/** The line language, as docs/lines.md tells it: headings, paragraphs, and a row for each way to say something. */
export function Manual() {
  const [intro = "", ...sections] = manual.split(/^## /m);
  return (
    <section aria-labelledby="manual-head" className="mt-6">
      <h3 id="manual-head" className="text-xl">
        What can be said in a line
      </h3>
      <p className="mb-2 text-sm">{words(intro.replace(/^#.*$/m, "").trim().replace(/\n/g, " "))}</p>
      <div className="grid gap-x-8 gap-y-4 sm:grid-cols-2">
        {sections.map((s) => {
          const [title = "", ...rest] = s.split("\n");
          const blocks = rest.join("\n").trim().split(/\n\n+/);
          return (
            <section key={title} aria-label={title}>
              <h4 className="aisle">{title}</h4>
              {blocks.map((b) =>
                b.startsWith("- ") ? (
                  <ul key={b} className="text-sm">
                    {b.split(/^- /m).map(
                      (row) =>
                        row.trim() && (
                          <li key={row} className="py-0.5">
                            {words(row.trim().replace(/\n/g, " "))}
                          </li>
                        ),
                    )}
                  </ul>
                ) : (
                  <p key={b} className="py-1 text-sm">
                    {words(b.replace(/\n/g, " "))}
                  </p>
                ),
              )}
            </section>
          );
        })}
      </div>
    </section>
  );
}
