import { useQuery } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useId, useState } from "react";
import { type Joint, type PlanFrame, api, ask } from "../../api/client";
import { marksOf } from "../../frame/marks";
import { Icon } from "../../ui/icons";
import { Pick as PickOne } from "../../ui/pick";
import { Drawer } from "../../ui/drawer";
import { LineField, wholeOf } from "./line-field";
import { useFaults } from "../fields";
import { Refused, Sorry } from "../refused";
import { useFrame, useMarked, useRun } from "../../desk/use";
import { Menu } from "../../ui/menu";

type Part = PlanFrame["instances"][number];

/** The parts of the frame: repeat, mirror or turn one, make one different, use one again. */
export function Parts() {
  const frame = useFrame();
  const top = frame.instances.filter((p) => !p.path.includes("/"));
  // an array is one part with copies
  const shown = top.filter((p) => !/#([2-9]|\d\d+)$/.test(p.path));
  return (
    <Drawer
      id="parts"
      title="Parts"
      begin={shown.length > 0}
      told={shown.length > 0 ? shown.map((p) => p.path.replace(/#1$/, "")).join(", ") : "none yet: mark joints to make one"}
    >
      {shown.length === 0 && (
        <p className="text-sm text-ink-2">
          None yet. A foot, a post or a section drawn once and grouped can be repeated, mirrored and turned; all its uses follow it.
        </p>
      )}
      <ul>
        {shown.map((p) => (
          <PartRow key={p.path} part={p} copies={top.filter((q) => q.path.startsWith(`${p.path.replace(/#1$/, "")}#`)).length || 1} />
        ))}
      </ul>
      <Refused kinds={["repeat", "mirror", "turn", "unique"]} />
    </Drawer>
  );
}

/** What can be put on the joint that is picked: a part again, one of another project, a pipe that slides. */
export function PutOn({ joint }: { joint: Joint }) {
  const frame = useFrame();
  const gesture = useRun();
  const groups = [...new Map(frame.instances.map((p) => [p.group, p.name])).entries()];
  const free = !joint.kind && joint.ports.length === 1;
  return (
    <>
      {groups.length > 0 && (
        <div className="mt-2 flex flex-wrap gap-2">
          {groups.map(([group, name]) => (
            <button
              key={group}
              type="button"
              className="btn btn-small"
              onClick={() => void gesture.run({ place: { group, on: joint.id } })}
            >
              Another {name} here
            </button>
          ))}
        </div>
      )}
      {free && (
        <LineField
          label={`Slide a pipe out of ${joint.name}`}
          placeholder="10"
          press="Slide"
          edit={(t) => ({ slide: { joint: joint.id, say: t } })}
          note="how far it shows; holes every 2: 10 pitch 2; the size that fits best is taken"
        />
      )}
      <Bring joint={joint} />
      <Refused kinds={["place", "bring", "slide"]} />
    </>
  );
}

/** A group of another project, put on the joint that is picked. */
function Bring({ joint }: { joint: Joint }) {
  const gesture = useRun();
  const [open, setOpen] = useState(false);
  const [id, setId] = useState("");
  const list = useQuery({ queryKey: ["projects"], enabled: open, queryFn: () => ask(api.GET("/api/projects")) });
  // the frame as it is to be planned, whatever it was begun from
  const other = useQuery({
    queryKey: ["document", id],
    enabled: id !== "",
    queryFn: async () => {
      const p = await ask(api.GET("/api/projects/{id}", { params: { path: { id } } }));
      const kept = await ask(api.POST("/api/edit", { body: { project: p.project, edit: { keep: {} } } }));
      // how its joints are held is kept beside the frame
      return kept.project.frame && { ...kept.project.frame, modeRules: kept.project.modeRules };
    },
  });
  const groups = other.data?.groups ?? [];
  return (
    <details className="more mt-2" onToggle={(e) => setOpen(e.currentTarget.open)}>
      <summary>From another project, at {joint.name}</summary>
      <PickOne
        label="Which project"
        className="mt-1 w-full"
        value={id}
        options={[["", "choose a project"], ...(list.data ?? []).map((p) => [p.id, p.name] as const)]}
        onChange={setId}
      />
      {other.data && (
        <div className="mt-2 flex flex-wrap gap-2">
          {groups.map((g) => (
            <button
              key={g.id}
              type="button"
              className="btn btn-small"
              onClick={() => other.data && void gesture.run({ bring: { from: other.data, group: g.id ?? "", on: joint.id } })}
            >
              {g.name || g.id}
            </button>
          ))}
          <button
            type="button"
            className="btn btn-small"
            onClick={() => other.data && void gesture.run({ bring: { from: other.data, group: "", on: joint.id } })}
          >
            the whole frame
          </button>
        </div>
      )}
    </details>
  );
}

function PartRow({ part: p, copies }: { part: Part; copies: number }) {
  const frame = useFrame();
  const [marked, onMark] = useMarked();
  const [open, setOpen] = useState(false);
  const inside = frame.joints.filter((j) => j.id.startsWith(`${p.path}/`)).map((j) => j.id);
  const all = inside.length > 0 && inside.every((j) => marked.includes(j));
  return (
    <li className="border-b border-rule py-1.5">
      <div className="flex items-center gap-2">
        <button type="button" className="min-w-0 flex-1 text-left" aria-expanded={open} onClick={() => setOpen(!open)}>
          <strong className="font-semibold">{p.path.replace(/#1$/, "")}</strong>
          <span className="ml-2 text-sm text-ink-2">
            {p.name}
            {copies > 1 && `, ${copies} times`}
          </span>
        </button>
        <button
          type="button"
          className="btn btn-small"
          onClick={() => onMark(all ? marked.filter((m) => !inside.includes(m)) : [...new Set([...marked, ...inside])])}
        >
          {all ? "Unmark" : "Mark"}
        </button>
        <button
          type="button"
          className="btn btn-small"
          aria-expanded={open}
          aria-label={`Repeat, turn or mirror ${p.path}`}
          onClick={() => setOpen(!open)}
        >
          Repeat, turn <Icon name="chevron" size={14} />
        </button>
      </div>
      {open && <PartTools part={p} copies={copies} />}
    </li>
  );
}

const axes = [
  ["0", "to the right"],
  ["1", "away"],
  ["2", "upward"],
] as const;

function PartTools({ part: p, copies }: { part: Part; copies: number }) {
  const frame = useFrame();
  const gesture = useRun();
  const [count, setCount] = useState(copies > 1 ? String(copies) : "3");
  const [axis, setAxis] = useState("0");
  const [how, setHow] = useState(copies > 1 ? "as is" : "joined");
  const [pitch, setPitch] = useState("");
  const [marked] = useMarked();
  const rails = marked.filter((m) => m.startsWith(`${p.path}/`));
  const place = frame.places[0];
  const [wrong, setWrong] = useState<string>();
  const id = useId();
  const faults = useFaults(id, ["count", "pitch"]);
  const noCount = wrong ?? faults.why("count");
  const noPitch = faults.why("pitch");
  const sorry = noCount ?? noPitch ?? faults.rest;
  const repeat = () => {
    const n = wholeOf(count);
    setWrong(n === undefined ? `"${count}" times: write a whole number, as in 3` : undefined);
    if (n === undefined) return;
    void gesture.run(
      {
        repeat: {
          part: p.path,
          count: n,
          axis: Number(axis),
          joined: how === "joined",
          pitch: how === "pitch" ? pitch : undefined,
          rails: how === "pitch" && rails.length > 0 ? rails : undefined,
        },
      },
      { keep: true, at: id },
    );
  };
  return (
    <div className="grid gap-2 py-2 pl-3">
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <label className="flex items-center gap-1.5">
          <span className="font-semibold">Repeat</span>
          <input
            className="field w-14 text-center"
            inputMode="numeric"
            value={count}
            aria-label={`How many of ${p.path}`}
            aria-invalid={noCount !== undefined}
            aria-describedby={noCount && `${id}-why`}
            onChange={(e) => setCount(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && repeat()}
          />
          times
        </label>
        <PickOne label="Which way it is repeated" className="w-32" value={axis} options={axes} onChange={setAxis} />
        <PickOne
          label="How the copies stand"
          className="w-36"
          value={how}
          options={[
            ...(copies > 1 ? [["as is", "as they stand", "only how many"] as const] : []),
            ["joined", "joined", "each shares its end with the next"],
            ["pitch", "at a pitch", "so far apart; a pipe runs on from each joint that is marked"],
          ]}
          onChange={setHow}
        />
        {how === "pitch" && (
          <input
            className="field w-28"
            placeholder="24 clear"
            aria-label="Pitch"
            aria-invalid={noPitch !== undefined}
            aria-describedby={noPitch && `${id}-why`}
            value={pitch}
            onChange={(e) => setPitch(e.target.value)}
            onKeyDown={(e) => e.key === "Enter" && repeat()}
          />
        )}
        <button type="button" className="btn btn-small" onClick={repeat}>
          Make the copies
        </button>
        {copies > 1 && (
          <button
            type="button"
            className="btn btn-small"
            onClick={() => void gesture.run({ repeat: { part: p.path, count: 1, axis: 0 } }, { keep: true })}
          >
            Once only
          </button>
        )}
      </div>
      {sorry && <Sorry id={`${id}-why`} what={sorry} />}
      <div className="flex flex-wrap items-center gap-2 text-sm">
        <DropdownMenu.Root modal={false}>
          <DropdownMenu.Trigger className="btn btn-small" disabled={copies > 1}>
            Mirror it at … <Icon name="chevron" size={14} />
          </DropdownMenu.Trigger>
          <Menu aria-label="Where the mirror stands">
            {[0, 1, 2].flatMap((a) =>
              (place ? marksOf(place, a) : [])
                .filter((m) => !m.copied)
                .map((m) => (
                  <DropdownMenu.Item
                    key={`${a} ${m.key}`}
                    className="menu-item"
                    onSelect={() => void gesture.run({ mirror: { part: p.path, axis: a, about: m.key } }, { keep: true })}
                  >
                    {m.name} <span className="text-xs text-ink-2">{["across", "in depth", "in height"][a]}</span>
                  </DropdownMenu.Item>
                )),
            )}
          </Menu>
        </DropdownMenu.Root>
        <span className="font-semibold">Turn</span>
        {(
          [
            ["a quarter, seen from above", 2],
            ["on its side", 1],
            ["on its back", 0],
          ] as const
        ).map(([words, about]) => (
          <button
            key={words}
            type="button"
            className="btn btn-small"
            onClick={() => void gesture.run({ turn: { part: p.path, about, by: 90 } }, { keep: true })}
          >
            {words}
          </button>
        ))}
        <button
          type="button"
          className="btn btn-small"
          disabled={copies > 1}
          title="It gets a group of its own and may become different"
          onClick={() => void gesture.run({ unique: { part: p.path } }, { keep: true })}
        >
          Make it different
        </button>
        <button
          type="button"
          className="btn btn-small"
          disabled={copies > 1}
          title="What it holds goes back among the rest"
          onClick={() => void gesture.run({ ungroup: { part: p.path } })}
        >
          Ungroup
        </button>
      </div>
    </div>
  );
}
