import { useEffect } from "react";
import { Link } from "wouter";
import type { Plan, Project } from "../api/client";
import { aislesOf, nameOf } from "../lens/buy/list";
import { OfBar, barsOf } from "../lens/cut/of-bar";
import { Proof, Sticks, sticksWords } from "../lens/cut/sticks";
import { Len, type Style, feet, money, plural } from "../lib/format";
import { classWords, meaning, modeWords, pathWords, sizeWords } from "../lib/words";
import { Icon } from "../ui/icons";
import { Failure, Loading } from "../ui/ui";
import { useLettersFixed, usePrinted } from "./printed";
import { BackBar } from "../ui/back-bar";

/** The build sheet: all of a plan on paper, for the shop and the saw. */
export default function BuildSheet({ id }: { id: string }) {
  const q = usePrinted(id, "sheet");
  const name = q.data?.project.name;
  useLettersFixed(id, q.data);
  useEffect(() => {
    document.title = `${name ?? "Build sheet"} · Sturdy Elbow`;
  }, [name]);
  return (
    <>
      <BackBar project={id}>
        <Link href={`/p/${id}/labels`} className="btn btn-small">
          Labels for the pieces
        </Link>
        <button type="button" className="btn btn-small btn-main" disabled={!q.data} onClick={() => print()}>
          <Icon name="print" size={18} /> Print
        </button>
      </BackBar>
      {q.isPending && <Loading what="the sheet" />}
      {q.error && <Failure why={`The sheet cannot be made: ${q.error.message}.`} retry={() => void q.refetch()} />}
      {q.data && <Paper project={q.data.project} plan={q.data.answer.plan} drawing={q.data.answer.drawings[0] ?? ""} />}
    </>
  );
}

function Paper({ project, plan, drawing }: { project: Project; plan: Plan; drawing: string }) {
  const f = plan.frames[0];
  const style = (project.style || "inches") as Style;
  if (!f) return null;
  const grave = plan.findings.filter((x) => x.severity !== "note");
  return (
    <main className="paper">
      <header className="paper-head">
        <h1>{project.name || "Without a name"}</h1>
        <p>
          {f.overall.map((e, i) => (
            <span key={e.axis}>
              {i > 0 && " × "}
              <Len nm={e.size} style={style} />
            </span>
          ))}{" "}
          outside
          {project.copies > 1 && `, ${plural(project.copies, "copy", "copies")}`}. {feet(plan.totals.net)} ft of pipe,{" "}
          {plural(plan.totals.sticks, "stick")}, {plural(plan.totals.fittings, "fitting")}, {money(plan.bill.total)}
          {plan.bill.example && " with example prices"}. {new Date().toLocaleDateString()}
        </p>
      </header>
      {f.waiting && (
        <p className="paper-warn text-lg">
          <strong>Unfinished: {f.waiting.words}.</strong> All of this is of the part that is drawn.
        </p>
      )}
      {grave.length > 0 && (
        <ul className="paper-warn">
          {grave.map((x) => (
            <li key={x.text}>
              <strong>{x.text}.</strong> {x.hint}.
            </li>
          ))}
        </ul>
      )}
      <div className="paper-top">
        {/* drawn by our own server */}
        <div className="paper-picture" dangerouslySetInnerHTML={{ __html: drawing }} />
        <section aria-labelledby="p-cut">
          <h2 id="p-cut">Cut</h2>
          <table>
            <tbody>
              {plan.cuts.map((g) => (
                <tr key={g.letter}>
                  <th scope="row">
                    <span className="letter">{g.letter}</span>
                  </th>
                  <td className="num">{g.count} ×</td>
                  <td className="big">
                    <Len nm={g.cut} style={style} step={64} />
                  </td>
                  <td>
                    {sizeWords(g.size)} pipe{g.hidden ? ", hidden nipple" : ""}
                    {g.tooShort ? ", too short" : ""}
                    {g.short ? ", clamp it" : ""}
                    {g.path ? `, ${pathWords(g.path)}` : ""}
                    {g.waits ? ", at most: measure on the frame" : g.class ? `, ${classWords(g.class)}` : ""}
                    {g.typed ? `, typed ${g.typed}` : ""}
                    <Boxes count={g.count} done={g.done ?? 0} />
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="small">
            Cut with: {plan.tool.name.toLowerCase()}. {plan.tool.note}
          </p>
        </section>
      </div>
      <section aria-labelledby="p-sticks">
        <h2 id="p-sticks">Sticks, in cutting order</h2>
        {plan.pipe.map((t) => (
          <div key={t.size} className="paper-sticks">
            <h3>
              {sizeWords(t.size)} pipe: {sticksWords(t)}
            </h3>
            <Sticks
              sticks={t.sticks}
              style={style}
              waiting={plan.cuts.filter((g) => g.waits).map((g) => g.letter)}
              isCut={(p) => Boolean(p.cut)}
              under="both"
            />
            <Proof of={t.stock} style={style} />
          </div>
        ))}
        {barsOf(plan).map((b) => (
          <div key={b.label} className="paper-sticks">
            <OfBar of={b} under="marks" style={style} />
          </div>
        ))}
      </section>
      <div className="paper-two">
        <section aria-labelledby="p-buy">
          <h2 id="p-buy">Buy</h2>
          {aislesOf(plan).map((a) => (
            <div key={a.name}>
              <h3>{a.name}</h3>
              <table>
                <tbody>
                  {a.wares.map((w) => (
                    <tr key={w.key}>
                      <td>
                        <span className="box">{(w.line.got ?? 0) >= w.line.count ? "✓" : ""}</span>
                      </td>
                      <td className="num">{w.line.count} ×</td>
                      <td className="wide">
                        {nameOf(w.line)}
                        {thereWords(w.line)}
                      </td>
                      <td className="num">{w.line.priced ? money(w.line.amount) : ""}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </div>
          ))}
          <p className="small">
            Tax {money(plan.bill.tax)}. Total <strong>{money(plan.bill.total)}</strong>
            {plan.bill.example && " with example prices"}.
            {plan.bill.unpriced.length > 0 && ` Without a price: ${plan.bill.unpriced.join(", ")}.`}
          </p>
        </section>
        {plan.frames.some((f) => f.links.length > 0) && (
          <section aria-labelledby="p-links">
            <h2 id="p-links">Bolts, wheels, sliding parts</h2>
            <ul>
              {plan.frames.flatMap((f) =>
                f.links.map((l) => (
                  <li key={`${f.name} ${l.id}`}>
                    <strong>{l.id}</strong>: {l.words}
                  </li>
                )),
              )}
            </ul>
          </section>
        )}
        <section aria-labelledby="p-join">
          <h2 id="p-join">Join</h2>
          <p>
            {plan.joinery.cemented} sockets cemented, {plan.joinery.dry} dry
            {plan.joinery.cemented > 0 &&
              `; about ${plan.joinery.cement.ounces.toFixed(1)} fl oz of cement and ${plan.joinery.primer.ounces.toFixed(1)} of primer`}
            .
          </p>
          <Dry plan={plan} />
          <table>
            <tbody>
              {f.seated.map((s) => (
                <tr key={s.state}>
                  <td>{s.text}</td>
                  {s.size.map((v, i) => (
                    <td key={i} className="num">
                      <Len nm={v} style={style} />
                    </td>
                  ))}
                </tr>
              ))}
            </tbody>
          </table>
          <h2>As asked for</h2>
          <table>
            <tbody>
              {f.sizes
                .filter((s) => s.label || !s.starters)
                .map((s) => (
                  <tr key={s.id}>
                    <td>{s.label || `${s.from} → ${s.to}, ${["wide", "deep", "high"][s.axis] ?? "along the pipe"}`}</td>
                    <td className="num">
                      <Len nm={s.holds ? s.value : s.out} style={style} step={64} />
                    </td>
                    <td>
                      {meaning(s.meaning)}
                      {!s.holds && (
                        <>
                          , in the place of <Len nm={s.value} style={style} step={64} />
                        </>
                      )}
                    </td>
                  </tr>
                ))}
            </tbody>
          </table>
        </section>
      </div>
      <section aria-labelledby="p-care" className="paper-care">
        <h2 id="p-care">Take care</h2>
        <ul>
          {plan.cautions.map((c) => (
            <li key={c}>{c}</li>
          ))}
        </ul>
      </section>
    </main>
  );
}

/** A box for each piece, ticked where it is cut already; of very many only the count. */
function Boxes({ count, done }: { count: number; done: number }) {
  if (count > 40) return <span className="block">{done} of them cut</span>;
  return (
    <span className="boxes" role="img" aria-label={`${done} of ${count} cut`}>
      {Array.from({ length: count }, (_, i) => (
        <span key={i} className={`box ${i < done ? "is-ticked" : ""}`} />
      ))}
    </span>
  );
}

/** Where nothing is to be cemented, by joint. */
function Dry({ plan }: { plan: Plan }) {
  const f = plan.frames[0];
  if (!f || plan.joinery.dry === 0 || plan.joinery.cemented === 0) return null;
  const letter = (pipe: string) => f.pipes.find((p) => p.pipe === pipe)?.letter ?? pipe;
  return (
    <p className="small">
      <strong>Not cemented:</strong>{" "}
      {f.insertions
        .filter((i) => i.mode !== "cemented")
        .map((i) => `${letter(i.spigot)} in ${i.joint} (${modeWords(i.mode)})`)
        .join("; ")}
      .
    </p>
  );
}

/** What of a line is there already. */
function thereWords(l: { home?: number; got?: number; count: number }): string {
  const home = Math.min(l.home ?? 0, l.count);
  const bought = Math.max(0, (l.got ?? 0) - home);
  const words = [home > 0 ? `${home} at home` : "", bought > 0 ? `${bought} bought` : ""].filter(Boolean);
  const left = l.count - home - bought;
  return words.length > 0 ? ` (${words.join(", ")}${left > 0 ? `, ${left} to buy` : ""})` : "";
}
