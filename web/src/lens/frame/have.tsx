import { useId, useState } from "react";
import type { Plan, Project } from "../../api/client";
import { Len, feet, plural, text } from "../../lib/format";
import { kindWords, sizeWords } from "../../lib/words";
import { Picture } from "../../ui/picture";
import { Drawer } from "../../ui/drawer";
import { useDesk, usePlan, useProject, useStyle } from "../../desk/use";

type Budget = NonNullable<Plan["budget"]>;
type Item = Budget["items"][number];

/** Somebody's list of parts: read, asked about where it is ambiguous, and then the budget while the frame is drawn. */
export function Have() {
  const desk = useDesk();
  const project = useProject();
  const plan = usePlan();
  const id = useId();
  const [open, setOpen] = useState(false);
  const said = project.described?.text ?? "";
  const b = plan.budget;
  const write = (t: string) =>
    desk.edit("The list of parts", (p) => ({ ...p, described: t ? { ...p.described, text: t } : undefined }), "described");
  return (
    <Drawer
      id="have"
      title="Parts you have, or a build you read"
      begin={said !== ""}
      force={open}
      told={said ? `${plural(said.trim().split("\n").length, "line")}` : undefined}
      action={
        !said && (
          <button type="button" className="btn btn-small" aria-expanded={open} onClick={() => setOpen(!open)}>
            Write the list
          </button>
        )
      }
    >
      {!said && !open && (
        <p className="text-sm text-ink-2">
          A list from a shop, a drawer or a description: how much of it the frame takes, and whether it goes together at all.
        </p>
      )}
      {(said || open) && (
        <>
          <label htmlFor={id} className="text-sm text-ink-2">
            One item a line, in sentences, or columns with commas
          </label>
          <textarea
            id={id}
            className="field mt-1 w-full"
            rows={Math.min(10, Math.max(4, said.split("\n").length + 1))}
            value={said}
            spellCheck={false}
            placeholder={'10 3/4" elbows, 6 tees and four caps\n4 pieces at 16"\n3 ten foot sticks of 3/4 pipe'}
            onChange={(e) => write(e.target.value)}
          />
          {said && b && <Asked b={b} />}
          {said && b && b.balance.length > 0 && <Goes b={b} />}
          {said && b && <Left b={b} />}
        </>
      )}
    </Drawer>
  );
}

const answer = (p: Project, it: Item, a: { kind?: string; other?: number }): Project => {
  const d = p.described ?? { text: "" };
  return {
    ...p,
    described: {
      ...d,
      ...(a.kind ? { kinds: { ...d.kinds, [it.text]: a.kind } } : {}),
      ...(a.other !== undefined ? { others: { ...d.others, [it.text]: a.other } } : {}),
    },
  };
};

/** What has to be asked, with small pictures; what could not be read is kept. */
function Asked({ b }: { b: Budget }) {
  const desk = useDesk();
  const style = useStyle();
  const ask = b.items.filter((it) => it.ask);
  if (ask.length === 0) return null;
  return (
    <ul className="mt-2 grid gap-2">
      {ask.map((it) => (
        <li key={`${it.line} ${it.text}`} className="asked">
          <p>
            <strong>{it.text || `line ${it.line}`}</strong>: {it.ask}
          </p>
          {it.kinds && (
            <div className="mt-1 flex flex-wrap gap-2">
              {it.kinds.map((k) => (
                <button
                  key={k}
                  type="button"
                  className="btn btn-small"
                  onClick={() => desk.edit(`${it.text} is a ${kindWords(k)}`, (p) => answer(p, it, { kind: k }))}
                >
                  <Picture kind={k} size={40} /> {kindWords(k)}
                </button>
              ))}
            </div>
          )}
          {it.others && (
            <div className="mt-1 flex flex-wrap gap-2">
              {[it, ...it.others].map((o, n) => (
                <button
                  key={`${o.count} ${o.size}`}
                  type="button"
                  className="btn btn-small"
                  onClick={() => desk.edit(`${it.text} is ${o.count} of ${o.size}`, (p) => answer(p, it, { other: n }))}
                >
                  {o.count} of {sizeWords(o.size ?? "")}
                </button>
              ))}
            </div>
          )}
          {it.length ? <Len nm={it.length} style={style} step={16} /> : null}
        </li>
      ))}
    </ul>
  );
}

/** Do the described parts go together: sockets against pipe ends, pieces against sticks. */
function Goes({ b }: { b: Budget }) {
  return (
    <table className="audit mt-2">
      <caption className="sr-only">Sockets against pipe ends, and pieces against sticks</caption>
      <tbody>
        {b.balance.map((s) => (
          <tr key={s.size}>
            <th scope="row">{sizeWords(s.size)}</th>
            <td>{plural(s.sockets, "socket")}</td>
            <td>{plural(s.ends, "pipe end")}</td>
            <td className={s.ends > 0 && s.sockets !== s.ends ? "font-semibold text-warn" : ""}>
              {s.ends === 0
                ? "no pieces listed"
                : s.sockets === s.ends
                  ? "go together"
                  : s.sockets > s.ends
                    ? `${s.sockets - s.ends} sockets over`
                    : `${s.ends - s.sockets} ends over`}
            </td>
            <td className={s.bought > 0 && s.net > s.bought ? "font-semibold text-warn" : ""}>
              {s.net > 0 || s.bought > 0 ? `${feet(s.net)} ft of pieces, ${feet(s.bought)} ft of sticks` : ""}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** What of the list the frame takes, and what is left. */
function Left({ b }: { b: Budget }) {
  const style = useStyle();
  const lines = b.lines.filter((l) => l.have > 0 || l.what === "fitting");
  if (lines.length === 0) return null;
  const name = (l: Budget["lines"][number]) =>
    l.what === "piece" ? `${sizeWords(l.size)} cut ${text(l.length ?? 0, style, 16)}` : `${kindWords(l.kind ?? "")} ${l.size}`;
  const left = lines.filter((l) => l.have > l.used);
  return (
    <>
      <p className="mt-2 font-semibold" role="status">
        {left.length > 0 ? `${left.map((l) => `${l.have - l.used} ${name(l)}`).join(", ")} left` : "Nothing of the list is left."}
      </p>
      <table className="audit mt-1">
        <caption className="sr-only">The list beside what the frame takes</caption>
        <thead className="sr-only">
          <tr>
            <th>part</th>
            <th>on the list</th>
            <th>in the frame</th>
            <th>left</th>
          </tr>
        </thead>
        <tbody>
          {lines.map((l) => (
            <tr key={name(l)}>
              <th scope="row">{name(l)}</th>
              <td>{l.have} listed</td>
              <td>{l.used} in the frame</td>
              <td className={l.have < l.used ? "font-semibold text-warn" : ""}>
                {l.have < l.used ? `${l.used - l.have} missing` : `${l.have - l.used} left`}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  );
}
