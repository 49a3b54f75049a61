import { useId, useState } from "react";
import { sizeWords } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { Pick } from "../../ui/pick";
import { intoView } from "../../lib/in-view";
import { Drawer } from "../../ui/drawer";
import { pipeSizes } from "../sizes";
import { Field, useFaults } from "../fields";
import { Refused, Sorry } from "../refused";
import { useProject, useRun } from "../../desk/use";

/** Fittings that the catalog does not have: bought elsewhere, printed, home-made. */
export function Customs() {
  const project = useProject();
  const gesture = useRun();
  const [open, setOpen] = useState(false);
  const [name, setName] = useState("");
  const [source, setSource] = useState("bought");
  const [size, setSize] = useState("3/4");
  const [ports, setPorts] = useState("");
  const all = project.frame?.customFittings ?? [];
  const id = useId();
  const faults = useFaults(id, ["name", "ports"]);
  const make = async () => {
    if (!(await gesture.run({ custom: { name, source, size, ports: ports.split("\n") } }, { keep: true, at: id }))) return;
    setName("");
    setPorts("");
    setOpen(false);
  };
  return (
    <Drawer
      id="customs"
      title="Parts of your own"
      begin={all.length > 0}
      force={open}
      told={all.length > 0 ? all.map((c) => c.id).join(", ") : "none"}
      action={
        <button type="button" className="btn btn-small" aria-expanded={open} onClick={() => setOpen(!open)}>
          Describe one
        </button>
      }
    >
      {all.length === 0 && !open && (
        <p className="text-sm text-ink-2">
          A wye, a 22½° elbow, a printed hub: say where its ports point and how far its stops are, and it stands wherever pipes meet like
          that.
        </p>
      )}
      {open && (
        <form
          ref={intoView}
          className="trial grid gap-1.5"
          onSubmit={(e) => {
            e.preventDefault();
            void make();
          }}
        >
          <Field label="Name" hint="elbow 22-1/2" value={name} why={faults.why("name")} onChange={setName} />
          <div className="grid grid-cols-2 gap-2">
            <Pick
              label="Where it comes from"
              className="w-full"
              value={source}
              options={[
                ["bought", "bought"],
                ["printed", "printed"],
                ["home-made", "home-made"],
              ]}
              onChange={setSource}
            />
            <Pick label="Size of its ports" className="w-full" value={size} options={pipeSizes} onChange={setSize} />
          </div>
          <Field
            label="Its ports, one a line: direction, then centre to stop"
            hint={"left 3/8\nright up@22.5 3/8"}
            rows={3}
            value={ports}
            why={faults.why("ports")}
            onChange={setPorts}
          />
          <button type="submit" className="btn btn-small justify-self-start" disabled={!name.trim() || !ports.trim()}>
            Take it
          </button>
          {faults.rest && <Sorry what={faults.rest} />}
        </form>
      )}
      <ul>
        {all.map((c) => (
          <li key={c.id} className="driven">
            <span className="min-w-0 flex-1">
              <strong>{c.id}</strong>, {c.source ?? "bought"}, {sizeWords(c.size)}, {c.ports?.length} ports
            </span>
            <button
              type="button"
              className="icon-btn"
              aria-label={`Take the part away: ${c.id}`}
              onClick={() => void gesture.run({ custom: { name: c.id, drop: true } }, { keep: true })}
            >
              <Icon name="close" />
            </button>
          </li>
        ))}
      </ul>
      <Refused kinds={["custom"]} />
    </Drawer>
  );
}
