import { useState } from "react";
import { type Project, pointer } from "../../api/client";
import { Len, isShown, plural, text } from "../../lib/format";
import { Drawer } from "../../ui/drawer";
import { readPasted } from "./pasted";
import { pipeTitle } from "../../frame/items";
import { Named } from "../../frame/named";
import { useDesk, useFrame, useNames, usePicked, usePlan, usePlanned, useProject, useStyle } from "../../desk/use";

const axes = ["across", "in depth", "in height"];

/** Does it close? As planned, and cut to a list that someone gave or to what was really cut. */
export function Closing() {
  const desk = useDesk();
  const project = useProject();
  const frame = useFrame();
  const style = useStyle();
  const names = useNames();
  const [open, setOpen] = useState(false);
  const given = project.given ?? {};
  const some = Object.values(given).some((g) => g?.text.trim());
  const c = frame.check;
  const misfits = c?.loops.length ?? 0;
  const off = frame.loops.reduce((m, l) => Math.max(m, l.off), 0);
  return (
    <Drawer
      id="closing"
      title="Does it close?"
      force={open || some ? "the list" : misfits > 0}
      told={
        misfits > 0
          ? `${plural(misfits, "loop")} open, as cut`
          : frame.loops.length === 0
            ? "no loop"
            : `${plural(frame.loops.length, "loop")}, as planned`
      }
      action={
        <button type="button" className="btn btn-small" aria-expanded={open || some} onClick={() => setOpen(!open)} disabled={some}>
          Check a list
        </button>
      }
    >
      <p className="text-sm">
        {frame.loops.length === 0 ? (
          "There is no loop in it: nothing has to meet."
        ) : (
          <>
            As planned {plural(frame.loops.length, "loop")} {frame.loops.length === 1 ? "closes" : "close"},{" "}
            {frame.loops.every((l) => l.hair) ? (
              "to a hair"
            ) : (
              <>
                the worst to <Len nm={off} style={style} step={64} />
              </>
            )}{" "}
            after rounding.
          </>
        )}
      </p>
      {c && (
        <div className="mt-2 grid gap-2">
          {c.loops.length === 0 ? (
            <p className="font-semibold">Cut to the list, every loop closes.</p>
          ) : (
            <ul className="grid gap-1">
              {c.loops.slice(0, 5).map((l) => (
                <li key={l.pipes.join()} className="misfit">
                  <strong className="text-bad">
                    <Len nm={l.off} style={style} step={64} /> open
                  </strong>{" "}
                  {l.residual
                    .flatMap((r, a) => (isShown(r, style, 64) ? [`${r > 0 ? "+" : "−"}${text(Math.abs(r), style, 64)} ${axes[a]}`] : []))
                    .join(", ")}
                  , through{" "}
                  {l.joints.slice(0, 5).map((id, i) => (
                    <span key={id}>
                      {i > 0 && " – "}
                      <Named id={id} short />
                    </span>
                  ))}
                  {l.joints.length > 5 && " …"}
                </li>
              ))}
              {c.loops.length > 5 && <li className="text-sm">and {c.loops.length - 5} more</li>}
            </ul>
          )}
          {c.mends.length > 0 && (
            <div>
              <p className="text-sm">
                {c.mends[0]?.changes.length === 1 ? "One piece closes it." : `No single piece closes it; ${c.mends[0]?.changes.length} do.`}
                {c.mends.length > 1 && " The least change first:"}
              </p>
              <ul className="long mt-1 grid gap-1.5">
                {c.mends.map((m) => (
                  <li key={m.changes.map((x) => x.pipe).join()}>
                    <button
                      type="button"
                      className="btn btn-small"
                      onClick={() =>
                        desk.edit("A piece cut anew", (p) =>
                          set(
                            p,
                            m.changes.map((x) => [x.pipe, plain(x.to)]),
                          ),
                        )
                      }
                    >
                      Cut {m.changes.map((x) => `${names.full(x.pipe)} to ${text(x.to, style, 64)}`).join(", ")}
                    </button>{" "}
                    <span className="text-sm text-ink-2">instead of {m.changes.map((x) => text(x.from, style, 64)).join(", ")}</span>
                  </li>
                ))}
              </ul>
            </div>
          )}
          {c.stuck && (
            <p className="text-sm font-semibold text-bad">
              No four pieces or fewer close it: compare the list with the plan, piece by piece.
            </p>
          )}
          {c.levels.slice(0, 4).map((l) => (
            <p key={`${l.axis} ${l.at}`} className="text-sm font-semibold text-warn">
              {names.full(l.low)} and {names.full(l.high)} are level in the plan and end <Len nm={l.spread} style={style} step={64} /> apart{" "}
              {axes[l.axis]}.
            </p>
          ))}
          {c.pieces
            .filter((p) => p.faceToFace)
            .map((p) => (
              <p key={p.pipe} className={`text-sm ${p.tooShort ? "font-semibold text-bad" : ""}`}>
                <Named id={p.pipe} /> is shorter than its two sockets:{" "}
                {p.tooShort ? "less than half a socket on each side, it will not hold" : "the fittings meet face to face"},{" "}
                <Len nm={p.spacing} style={style} step={64} /> between centres.
              </p>
            ))}
          {c.unknown.length > 0 && <p className="text-sm font-semibold text-warn">The frame has no {c.unknown.join(", ")}.</p>}
          <table className="audit">
            <caption className="text-left text-sm text-ink-2">The size that comes out, cut to the list</caption>
            <tbody>
              {c.seated.map((s) => (
                <tr key={s.state}>
                  <th scope="row" title={s.text}>
                    {{ "hand-tight": "by hand", driven: "driven", finished: "finished" }[s.state] ?? s.text}
                  </th>
                  <td className="whitespace-nowrap">{s.size.map((v) => text(v, style, 16)).join(" × ")}</td>
                  <td className={`whitespace-nowrap ${!s.meets ? "font-semibold text-warn" : ""}`}>
                    {!s.meets ? `off ${text(s.gap, style, 16)}` : "meets"}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {(open || some) && <List />}
    </Drawer>
  );
}

/** A length as it is typed, in inches. */
const plain = (nm: number) => `${text(nm, "inches", 64).replaceAll("⁄", "/").replaceAll("″", "")} in`;

/** The project with some cuts of the list typed over; an empty one takes it away. */
function set(p: Project, cuts: [pipe: string, text: string][]): Project {
  const given = { ...p.given };
  for (const [id, t] of cuts) {
    if (t.trim()) given[id] = { text: t, unit: p.units };
    else delete given[id];
  }
  return { ...p, given };
}

/** The cuts of the list, by letter: one for all pieces of a letter, or piece by piece. */
function List() {
  const names = useNames();
  const desk = useDesk();
  const project = useProject();
  const plan = usePlan();
  const frame = useFrame();
  const style = useStyle();
  const { places } = usePlanned();
  const [, onPick] = usePicked();
  const given = project.given ?? {};
  const planned = (id = "") => frame.pipes.find((p) => p.pipe === id)?.cut ?? 0;
  const letters = plan.cuts.filter((g) => g.cut > 0);
  const [pasted, setPasted] = useState("");
  const [lost, setLost] = useState(0);
  // what names no piece stays in the field
  const put = () => {
    const { cuts, rest } = readPasted(pasted, [
      ...letters.map((g) => ({ name: g.letter, pipes: g.pipes.map((x) => x.pipe) })),
      ...frame.pipes.flatMap((p) => [p.pipe, pipeTitle(p)].map((name) => ({ name, pipes: [p.pipe] }))),
    ]);
    if (cuts.length > 0) desk.edit("A list put on the pieces", (p) => set(p, cuts));
    setPasted(rest.join("\n"));
    setLost(rest.length);
  };
  return (
    <div className="mt-2">
      <p className="text-sm text-ink-2">
        Type what a piece is cut to in the list you have, or was really cut to. Left empty, it is as planned.
      </p>
      <ul className="mt-1 grid gap-1.5">
        {letters.map((g) => {
          const pipes = g.pipes.map((x) => x.pipe).filter((id) => frame.pipes.some((p) => p.pipe === id));
          const texts = [...new Set(pipes.map((id) => given[id]?.text ?? ""))];
          const wrong = pipes.map((id) => places[pointer("project", "given", id)]).find(Boolean);
          return (
            <li key={g.letter} className="given">
              <button
                type="button"
                className="letter"
                aria-label={`Show ${g.letter} on the frame`}
                onClick={() => onPick({ is: "letter", id: g.letter })}
              >
                {g.letter}
              </button>
              <Cut
                label={`${g.letter}, ${plural(pipes.length, "piece")}, cut to`}
                value={texts.length === 1 ? (texts[0] ?? "") : ""}
                placeholder={texts.length > 1 ? "not all alike" : text(planned(pipes[0]), style, 64)}
                wrong={wrong}
                onSet={(t) =>
                  desk.edit(
                    `${g.letter} cut to ${t || "the plan"}`,
                    (p) =>
                      set(
                        p,
                        pipes.map((id) => [id, t]),
                      ),
                    `given ${g.letter}`,
                  )
                }
              />
              {pipes.length > 1 ? (
                <details className="more min-w-0 flex-1" open={texts.length > 1}>
                  <summary>{plural(pipes.length, "piece")}</summary>
                  <ul className="grid gap-1">
                    {pipes.map((id) => (
                      <li key={id} className="flex items-center gap-2">
                        <Named id={id} className="min-w-16 text-left" />
                        <Cut
                          label={`${names.full(id)} cut to`}
                          value={given[id]?.text ?? ""}
                          placeholder={text(planned(id), style, 64)}
                          wrong={places[pointer("project", "given", id)]}
                          onSet={(t) => desk.edit(`${names.full(id)} cut to ${t || "the plan"}`, (p) => set(p, [[id, t]]), `given ${id}`)}
                        />
                      </li>
                    ))}
                  </ul>
                </details>
              ) : (
                <span className="text-sm text-ink-2">{frame.pipes.find((p) => p.pipe === pipes[0])?.where}</span>
              )}
            </li>
          );
        })}
      </ul>
      <details className="more mt-2">
        <summary>Paste a whole list</summary>
        <textarea
          className="field w-full"
          rows={4}
          aria-label="A whole list, a letter or a pipe and its length on each line"
          placeholder={`${letters[0]?.letter ?? "A"} 23 1/2`}
          value={pasted}
          spellCheck={false}
          onChange={(e) => setPasted(e.target.value)}
        />
        <button type="button" className="btn btn-small mt-1" disabled={!pasted.trim()} onClick={put}>
          Put them on the pieces
        </button>
        {lost > 0 && pasted.trim() && (
          <p role="status" className="mt-1 text-sm font-semibold text-warn">
            {plural(lost, "line")} named no piece of this frame and stayed here.
          </p>
        )}
      </details>
      {Object.keys(given).length > 0 && (
        <button type="button" className="btn btn-small mt-2" onClick={() => desk.edit("The list forgotten", (p) => ({ ...p, given: {} }))}>
          Forget the list
        </button>
      )}
    </div>
  );
}

function Cut({
  label,
  value,
  placeholder,
  wrong,
  onSet,
}: {
  label: string;
  value: string;
  placeholder: string;
  wrong?: string;
  onSet: (t: string) => void;
}) {
  return (
    <span className="grid">
      <input
        className="field w-28"
        aria-label={label}
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        aria-invalid={!!wrong}
        onChange={(e) => onSet(e.target.value)}
      />
      {wrong && <span className="text-sm font-semibold text-bad">{wrong}</span>}
    </span>
  );
}
