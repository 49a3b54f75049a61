import { Len, meaning, text } from "../../lib/format";
import { Pick } from "../../ui/pick";
import { Head } from "../../ui/ui";
import { Icon } from "../../ui/icons";
import type { LensProps } from "../lens";
import { LineField } from "./line-field";
import { Refused } from "./refused";

/** Sizes that something else gives way to: which, and what it became. */
export function Driven({ frame, style, gesture, onPick, marked }: LensProps) {
  const [a, b] = marked;
  const two = marked.length === 2 && a && b ? ([a, b] as [string, string]) : undefined;
  if (frame.drives.length === 0 && !two) return null;
  return (
    <section aria-labelledby="driven-head">
      <Head id="driven-head" title="Sizes that others give way to" level={3} />
      <ul>
        {frame.drives.map((d) => (
          <li key={d.id} className={`driven ${d.contra ? "is-bad" : ""}`}>
            <span className="min-w-0 flex-1">
              <button type="button" className="link font-semibold" onClick={() => onPick(d.pipe ? { is: "pipe", id: d.pipe } : { is: "joint", id: d.ends?.[0] ?? "" })}>
                {d.pipe || d.ends?.join(" to ")}
              </button>{" "}
              {meaning(d.meaning)} <Len nm={d.value} style={style} step={64} />
              {d.contra && <span className="block text-sm font-semibold text-bad">comes out at {text(d.out, style, 64)}</span>}
            </span>
            <Pick
              label={`What gives way to ${d.pipe || "it"}`}
              className="w-44"
              value={d.gives ?? "none"}
              options={[["none", "nothing: a check"], ...frame.sizes.filter((s) => !d.contra || d.lead.length === 0 || d.lead.includes(s.path) || s.path === d.gives).map((s) => [s.path, `${s.label || `${s.from} to ${s.to}`} gives way`, `now ${text(s.value, style, 64)} ${meaning(s.meaning)}`] as const)]}
              onChange={(gives) => void gesture.run({ drive: { id: d.id, length: "", gives } }, { keep: true })}
            />
            <button type="button" className="icon-btn" aria-label={`Take this size away: ${d.pipe || d.ends?.join(" to ")}`} onClick={() => void gesture.run({ drive: { id: d.id, length: "" } }, { keep: true })}>
              <Icon name="close" />
            </button>
          </li>
        ))}
      </ul>
      {two && <LineField label={`${two[0]} to ${two[1]}`} placeholder="48 outside" press="Set" onRun={(t) => gesture.run({ drive: { ends: two, length: t } }, { keep: true })} note="the nearest stated size gives way" />}
      <Refused gesture={gesture} kinds={["drive"]} />
    </section>
  );
}
