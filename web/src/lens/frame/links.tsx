import { useId, useState } from "react";
import type { Joint, Pipe, PlanFrame } from "../../api/client";
import { Len, text } from "../../lib/format";
import { Icon } from "../../ui/icons";
import { Pick } from "../../ui/pick";
import { intoView } from "../../lib/in-view";
import { Drawer } from "../../ui/drawer";
import { Why } from "../../ui/why";
import { pipeSizes } from "../sizes";
import { LineField, angleOf, wholeOf } from "./line-field";
import { Field, useFaults } from "../fields";
import { Refused, Sorry } from "../refused";
import { Named } from "../../frame/named";
import { named, namesOf, withIds } from "../../frame/names";
import { useFrame, useNames, useMarked, useRun, useStyle } from "../../desk/use";

type Link = PlanFrame["links"][number];

const kinds = [
  ["pivot", "pivot", "a bolt through two pipes: one turns"],
  ["hinge", "hinge", "a part that turns round a pipe"],
  ["tie", "tie", "cable ties round two pipes"],
  ["axle", "axle", "a rod across, with wheels"],
  ["rod", "rod or stake", "in a pipe or through a fitting"],
  ["clip", "clips", "cut from pipe, on a pipe"],
  ["sleeve", "sleeve", "a larger pipe round a pipe"],
] as const;
const two = ["pivot", "hinge", "tie", "axle"];

/** What holds together without a socket: what fits, how long, what turns and what it hits. */
export function Links({ joint, pipe }: { joint?: Joint; pipe?: Pipe }) {
  const frame = useFrame();
  const style = useStyle();
  const gesture = useRun();
  const names = useNames();
  const [making, setMaking] = useState(false);
  return (
    <Drawer
      id="links"
      title="Bolts, wheels, sliding parts"
      begin={frame.links.length > 0}
      force={making}
      told={frame.links.length > 0 ? frame.links.map((l) => l.id).join(", ") : "none yet"}
      action={
        <button type="button" className="btn btn-small" aria-expanded={making} onClick={() => setMaking(!making)}>
          Add one
        </button>
      }
    >
      {frame.links.length === 0 && !making && (
        <p className="text-sm text-ink-2">
          What holds together without a socket: a bolt to fold on, a leg that slides, wheels on an axle, ties, clips.
        </p>
      )}
      {making && <NewLink joint={joint} pipe={pipe} onMade={() => setMaking(false)} />}
      <ul className="mt-1 grid gap-2">
        {frame.links.map((l) => (
          <li key={l.id} className="link-row">
            <div className="flex items-start gap-2">
              <span className="min-w-0 flex-1">
                <strong>{l.id}</strong>: {l.words}
                <span className="block text-sm text-ink-2">{l.on.map((at) => named(at, names)).join(" and ")}</span>
                {l.fit && l.kind !== "sleeve" && l.kind !== "rod" && <span className="block text-sm">{l.fit.text}</span>}
              </span>
              <button
                type="button"
                className="icon-btn"
                aria-label={`Take away: ${l.id}`}
                onClick={() => void gesture.run({ link: { id: l.id, drop: true } }, { keep: true })}
              >
                <Icon name="close" />
              </button>
            </div>
            {l.sum && l.length ? (
              <p className="text-sm">
                length <Why label={`Length of ${l.id}`} sum={l.sum} total={l.length} of={<Len nm={l.length} style={style} step={16} />} />
              </p>
            ) : null}
            <Turning l={l} />
            {(l.moves?.length ?? 0) > 0 && (
              <p className="text-sm text-ink-2">
                turns:{" "}
                {l.moves?.slice(0, 8).map((id, i) => (
                  <span key={id}>
                    {i > 0 && ", "}
                    <Named id={id} />
                  </span>
                ))}
                {(l.moves?.length ?? 0) > 8 && " …"}
              </p>
            )}
          </li>
        ))}
      </ul>
      <Refused kinds={["link"]} />
    </Drawer>
  );
}

function Turning({ l }: { l: Link }) {
  const names = useNames();
  const style = useStyle();
  if (l.kind !== "pivot" && l.kind !== "hinge") return null;
  return (
    <>
      {(l.states?.length ?? 0) > 0 && (
        <table className="audit">
          <caption className="sr-only">Outside size of the frame, by state of {l.id}</caption>
          <tbody>
            {l.states?.map((s) => (
              <tr key={s.name}>
                <th scope="row">{s.name}</th>
                <td>{s.angle ? `${s.angle}°` : ""}</td>
                <td className="whitespace-nowrap">{s.size.map((v) => text(v, style, 16)).join(" × ")}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      {l.hits?.slice(0, 3).map((h) => (
        <p key={h.parts.join()} className="text-sm font-semibold text-warn">
          {names.full(h.parts[0] ?? "")} meets {names.full(h.parts[1] ?? "")} after {Math.abs(h.angle)}°
        </p>
      ))}
      <LineField
        label="Folds by"
        placeholder="60"
        press="Fold"
        keep
        edit={(t) => (angleOf(t) === undefined ? "Write an angle in degrees, as in 60" : { link: { id: l.id, fold: angleOf(t) } })}
        note="degrees; with a minus the other way"
      />
    </>
  );
}

/** Where it is, and its sizes, as they are typed. */
function NewLink({ joint, pipe, onMade }: { joint?: Joint; pipe?: Pipe; onMade: () => void }) {
  const gesture = useRun();
  const [marked] = useMarked();
  const [kind, setKind] = useState("pivot");
  const frame = useFrame();
  const names = namesOf(frame);
  const start = marked.length > 0 ? marked.map(names.full) : [pipe ? names.full(pipe.pipe) : joint ? names.full(joint.id) : ""];
  const id = useId();
  const [sorry, setSorry] = useState<Record<string, string>>({});
  const [a, setA] = useState(start[0] ?? "");
  const [b, setB] = useState(start[1] ?? "");
  const [more, setMore] = useState<Record<string, string>>({});
  const [size, setSize] = useState("1");
  const fields: Record<string, [key: string, label: string, hint: string][]> = {
    pivot: [
      ["rod", "Bolt", "1/4"],
      ["fold", "Folds by, degrees", "60"],
    ],
    hinge: [["fold", "Folds by, degrees", "90"]],
    tie: [["count", "How many", "1"]],
    axle: [
      ["rod", "Axle", "1/2"],
      ["wheel", "Wheels", "8"],
      ["hub", "Hub, wide", "1 1/2"],
      ["spacer", "Spacer", "none"],
    ],
    rod: [["rod", "Rod, thick", "3/4"]],
    clip: [["count", "How many", "1"]],
    sleeve: [
      ["count", "How many", "1"],
      ["length", "Each", "6"],
    ],
  };
  const faults = useFaults(id, ["on/0", "on/1", ...(fields[kind] ?? []).map(([key]) => key)]);
  /** What is wrong with a field, by its place in the gesture. */
  const why = (field: string) => sorry[field] ?? faults.why(field);
  const make = async () => {
    const { count, fold, ...sizes } = more;
    const said = (two.includes(kind) ? [a, b] : [a]).map((t) => withIds(frame, t));
    const on = said.flatMap((x) => ("text" in x ? [x.text] : []));
    const sorry: Record<string, string> = {};
    said.forEach((x, k) => {
      if ("several" in x) sorry[`on/${k}`] = x.several;
    });
    if (count?.trim() && !wholeOf(count)) sorry.count = "Write a whole number, as in 4";
    if (fold?.trim() && angleOf(fold.trim()) === undefined) sorry.fold = "Write an angle in degrees, as in 60";
    setSorry(sorry);
    if (Object.keys(sorry).length > 0) return;
    const done = await gesture.run(
      {
        link: {
          kind,
          on,
          ...sizes,
          count: wholeOf(count ?? ""),
          fold: angleOf(fold?.trim() ?? ""),
          size: kind === "sleeve" ? size : undefined,
        },
      },
      { keep: true, at: id },
    );
    if (done) onMade();
  };
  return (
    <form
      ref={intoView}
      className="trial mt-1 grid gap-1.5"
      onSubmit={(e) => {
        e.preventDefault();
        void make();
      }}
    >
      <Pick label="Kind of link" labelled className="w-full" value={kind} options={kinds} onChange={setKind} />
      <Field label={kind === "hinge" ? "Round the pipe" : "On"} hint="B, upper left at 12" value={a} why={why("on/0")} onChange={setA} />
      {two.includes(kind) && (
        <Field
          label={kind === "hinge" ? "turns the part of" : "and on"}
          hint={kind === "axle" ? "j2" : "C at 12 from j7"}
          value={b}
          why={why("on/1")}
          onChange={setB}
        />
      )}
      {kind === "sleeve" && (
        <Pick label="Size of the sleeve" labelled className="w-28" value={size} options={pipeSizes} onChange={setSize} />
      )}
      {fields[kind]?.map(([key, label, hint]) => (
        <Field
          key={key}
          label={label}
          hint={hint}
          value={more[key] ?? ""}
          why={why(key)}
          onChange={(v) => setMore({ ...more, [key]: v })}
        />
      ))}
      <button type="submit" className="btn btn-small justify-self-start" disabled={!a.trim() || (two.includes(kind) && !b.trim())}>
        Add it
      </button>
      {faults.rest && <Sorry what={faults.rest} />}
    </form>
  );
}
