import { Fragment } from "react";
import type { CutStick } from "../../api/client";
import { usePlan, useProject, useStyle } from "../../desk/use";
import { Len, type Style, plural, text } from "../../lib/format";
import { sizeWords } from "../../lib/words";
import { Icon } from "../../ui/icons";

/** Lengths, one after the other. */
const Lens = ({ all, style, between }: { all: number[]; style: Style; between: string }) =>
  all.map((l, i) => (
    <Fragment key={i}>
      {i > 0 && between}
      <Len nm={l} style={style} />
    </Fragment>
  ));

/** A slip for the counter: which sticks are cut in the shop, where, and what is carried. Sticks that are cut alike there are one line, whatever is cut from them at home. */
export function Slip() {
  const plan = usePlan();
  const name = useProject((p) => p.name) || plan.frames.map((f) => f.name).join(", ");
  const style = useStyle();
  const lines = new Map<string, { size: string; stick: CutStick; count: number }>();
  let many = 0;
  for (const t of plan.pipe)
    for (const stick of t.sticks) {
      const marks = stick.marks?.length ?? 0;
      if (stick.earlier || marks === 0) continue;
      many += marks;
      const key = JSON.stringify([t.size, stick.length, stick.marks, stick.parts?.map((p) => p.length)]);
      const line = lines.get(key) ?? { size: t.size, stick, count: 0 };
      line.count++;
      lines.set(key, line);
    }
  if (lines.size === 0) return null;
  const print = () => {
    document.body.classList.add("prints-slip");
    window.print();
    document.body.classList.remove("prints-slip");
  };
  return (
    <section className="slip" aria-label="Slip for the counter">
      <p className="flex flex-wrap items-center justify-between gap-2 pb-1">
        <strong>For the counter: please cut {plural(many, "time")}</strong>
        <button type="button" className="btn btn-small no-print" onClick={print}>
          <Icon name="print" size={18} /> Print the slip
        </button>
      </p>
      <ul>
        {[...lines].map(([key, { size, stick, count }]) => (
          <li key={key}>
            {count} × {sizeWords(size)} pipe of {text(stick.length, "feet-inches")}: cut at{" "}
            <strong>
              <Lens all={stick.marks ?? []} style={style} between=" and " />
            </strong>{" "}
            from one end; to carry <Lens all={stick.parts?.map((p) => p.length) ?? []} style={style} between=", " />
          </li>
        ))}
      </ul>
      <p className="only-print">
        {name}, {new Date().toLocaleDateString()}
      </p>
    </section>
  );
}
