import { useId, useState } from "react";
import { text } from "../../lib/format";
import { Icon } from "../../ui/icons";
import { intoView } from "../../lib/in-view";
import { Pick } from "../../ui/pick";
import { Head } from "../../ui/ui";
import { Field, useFaults } from "../fields";
import { Refused, Sorry } from "../refused";
import { useFrame, useRun, useStyle } from "../../desk/use";

const kinds = [
  ["doorway", "passes a doorway", "32, or 32 x 80"],
  ["inside", "fits inside", "wide x deep x high"],
  ["over", "stands over", "wide x deep x high"],
  ["reach", "is within reach", "how high"],
] as const;
const sides: Record<string, string[]> = {
  doorway: ["wide", "high"],
  inside: ["wide", "deep", "high"],
  over: ["across", "in depth", "in height"],
  reach: ["in height"],
};
const usual: Record<string, string> = { doorway: "the hall door", inside: "the car", over: "the crate", reach: "Grandmother" };

/** Sizes that are not the frame's own: a door, a car, what stands under it, who reaches it. */
export function Envelopes() {
  const frame = useFrame();
  const style = useStyle();
  const gesture = useRun();
  const [open, setOpen] = useState(false);
  const [kind, setKind] = useState("doorway");
  const [name, setName] = useState("");
  const [say, setSay] = useState("");
  const id = useId();
  const faults = useFaults(id, ["name", "say"]);
  const add = async () => {
    if (!(await gesture.run({ check: { kind, name: name.trim() || (usual[kind] ?? kind), say } }, { keep: true, at: id }))) return;
    setName("");
    setSay("");
    setOpen(false);
  };
  return (
    <section aria-labelledby="envelope-head">
      <Head id="envelope-head" title="Doors, cars, people">
        <button type="button" className="btn btn-small" aria-expanded={open} onClick={() => setOpen(!open)}>
          Add a check
        </button>
      </Head>
      {frame.clearanceChecks.length === 0 && !open && (
        <p className="text-sm text-ink-2">
          Sizes that are not its own: must it pass a door, go into a car, stand over something, be within somebody's reach?
        </p>
      )}
      {open && (
        <form
          ref={intoView}
          className="trial grid gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            void add();
          }}
        >
          <Pick label="What is checked" className="w-full" value={kind} options={kinds} onChange={setKind} />
          <Field label="Called" hint={usual[kind]} value={name} why={faults.why("name")} onChange={setName} />
          <Field label="How large" hint={kinds.find(([k]) => k === kind)?.[2]} value={say} why={faults.why("say")} onChange={setSay} />
          <button type="submit" className="btn btn-small justify-self-start" disabled={!say.trim()}>
            Check it
          </button>
          {faults.rest && <Sorry what={faults.rest} />}
        </form>
      )}
      <ul>
        {frame.clearanceChecks.map((e) => (
          <li key={e.id} className={`driven ${e.fits ? "" : "is-bad"}`}>
            <span className="min-w-0 flex-1">
              <strong>{e.id}</strong>: <span className={e.fits ? "" : "font-semibold text-bad"}>{e.words}</span>
              {e.slack.length > 1 && (
                <span className="block text-sm text-ink-2">
                  {e.slack
                    .map((s, i) =>
                      Math.abs(s) > 7e12 ? undefined : `${sides[e.kind]?.[i]} ${s < 0 ? "−" : "+"}${text(Math.abs(s), style, 16)}`,
                    )
                    .filter(Boolean)
                    .join(", ")}
                </span>
              )}
            </span>
            <button
              type="button"
              className="icon-btn"
              aria-label={`No longer check: ${e.id}`}
              onClick={() => void gesture.run({ check: { name: e.id, drop: true } }, { keep: true })}
            >
              <Icon name="close" />
            </button>
          </li>
        ))}
      </ul>
      <Refused kinds={["check"]} />
    </section>
  );
}
