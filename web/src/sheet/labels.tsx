import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link } from "wouter";
import { type Label, api, ask } from "../api/client";
import { Len, type Style, plural } from "../lib/format";
import { sizeWords } from "../lib/words";
import { Icon } from "../ui/icons";
import { Failure, Loading } from "../ui/ui";
import { useLettersFixed, usePrinted } from "./printed";
import { BackBar } from "../ui/back-bar";

/** A label for every piece of a project, or of several that are cut together (their ids with commas between), to cut out and wrap around it: its letter and length, what its ends go into, and where to mark them. */
export default function LabelsPage({ id }: { id: string }) {
  const several = id.includes(",");
  const q = usePrinted(id, "labels");
  const printed = q.data;
  const labels = useQuery({
    queryKey: ["label list", id, printed?.project],
    enabled: printed !== undefined,
    staleTime: 0,
    queryFn: () => ask(api.POST("/api/labels", { body: { project: printed?.project as never, of: several ? undefined : id } })),
  });
  useLettersFixed(id, printed);
  const names = printed?.answer.plan.frames.map((f) => f.name) ?? [];
  const waits = printed?.answer.plan.frames.filter((f) => f.waiting) ?? [];
  const name = printed?.project.name || names.join(", ");
  useEffect(() => {
    document.title = `Labels, ${name ?? ""} · Sturdy Elbow`;
  }, [name]);
  const style = (printed?.project.style || "inches") as Style;
  const all = labels.data ?? [];
  return (
    <>
      <BackBar project={several ? undefined : id}>
        <Link href={several ? `/together?of=${id}` : `/p/${id}/sheet`} className="btn btn-small">
          {several ? "Bought together" : "Build sheet"}
        </Link>
        <button type="button" className="btn btn-small btn-main" disabled={all.length === 0} onClick={() => print()}>
          <Icon name="print" size={18} /> Print
        </button>
      </BackBar>
      {(q.isPending || labels.isPending) && !q.error && <Loading what="the labels" />}
      {(q.error ?? labels.error) && (
        <Failure why={`The labels cannot be made: ${(q.error ?? labels.error)?.message}.`} retry={() => void q.refetch()} />
      )}
      {labels.data && (
        <main className="paper">
          <header className="paper-head">
            <h1>Labels: {name || "without a name"}</h1>
            <p>
              {plural(all.length, "piece")}, in the order of the cuts. {new Date().toLocaleDateString()}
            </p>
            {waits.map((f) => (
              <p key={f.name} className="paper-warn text-lg">
                <strong>
                  Unfinished: {f.waiting?.words} of {f.name || "the frame"}.
                </strong>{" "}
                These are the pieces of the part that is drawn.
              </p>
            ))}
          </header>
          <ul className="label-sheet">
            {all.map((l) => (
              <One key={`${l.frame} ${l.pipe} ${l.copy}`} of={l} project={several ? names[l.frame] : undefined} style={style} />
            ))}
          </ul>
        </main>
      )}
    </>
  );
}

function One({ of: l, project, style }: { of: Label; project?: string; style: Style }) {
  return (
    <li className={`label ${l.cut ? "is-cut" : ""}`}>
      <p className="label-top">
        <b>{l.letter}</b>
        <strong>
          <Len nm={l.length} style={style} step={64} />
        </strong>
        <span>
          {sizeWords(l.size)}
          {l.cut && <em> cut</em>}
        </span>
      </p>
      <p>
        {[project, l.where, l.copies > 1 ? `copy ${l.copy} of ${l.copies}` : "", l.stick ? `stick ${l.stick}` : ""]
          .filter(Boolean)
          .join(", ")}
      </p>
      <ul>
        {l.ends.map((e) => (
          <li key={`${e.joint} ${e.port}`}>
            into <strong>{e.joint}</strong>
            {e.port && ` ${e.port}`}
            {e.where && `, ${e.where}`}: mark <Len nm={e.depth} style={style} step={32} />, <Len nm={e.beyond} style={style} step={32} />
          </li>
        ))}
        {l.ends.length < 2 && <li>{l.ends.length === 0 ? "both ends" : "the other end"} in no fitting</li>}
      </ul>
    </li>
  );
}
