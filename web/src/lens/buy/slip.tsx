import { usePlan, useProject, useStyle } from "../../desk/use";
import { plural, text } from "../../lib/format";
import { sizeWords } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { alike } from "../cut/alike";

/** A slip for the counter: which sticks are cut in the shop, where, and what is carried. */
export function Slip() {
  const plan = usePlan();
  const name = useProject((p) => p.name);
  const style = useStyle();
  const cuts = plan.pipe.flatMap((t) =>
    alike(t.sticks.filter((s) => !s.earlier && (s.marks?.length ?? 0) > 0)).map((a) => ({ size: t.size, ...a })),
  );
  if (cuts.length === 0) return null;
  const many = cuts.reduce((n, c) => n + c.all.length * (c.stick.marks?.length ?? 0), 0);
  const print = () => {
    document.body.classList.add("prints-slip");
    window.print();
    document.body.classList.remove("prints-slip");
  };
  return (
    <section className="slip" aria-label="Slip for the counter">
      <p className="flex flex-wrap items-baseline justify-between gap-2">
        <strong>For the counter: please cut {plural(many, "time")}</strong>
        <button type="button" className="btn btn-small no-print" onClick={print}>
          <Icon name="print" size={18} /> Print the slip
        </button>
      </p>
      <ul>
        {cuts.map((c) => (
          <li key={`${c.size} ${c.key}`}>
            {c.all.length} × {sizeWords(c.size)} pipe of {text(c.stick.length, "feet-inches")}: cut at{" "}
            <strong>{c.stick.marks?.map((m) => text(m, style)).join(" and ")}</strong> from one end; to carry{" "}
            {c.stick.parts?.map((p) => text(p.length, style)).join(", ")}
          </li>
        ))}
      </ul>
      <p className="only-print">
        {name}, {new Date().toLocaleDateString()}
      </p>
    </section>
  );
}
