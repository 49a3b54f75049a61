import { useState } from "react";
import { marksOf } from "../../frame/marks";
import { Named } from "../../frame/named";
import { plural } from "../../lib/format";
import { Pick } from "../../ui/pick";
import { LineField } from "./line-field";
import { Refused } from "../refused";
import { useFrame, useMarked, useRun } from "../../desk/use";

/** Joints that were marked: join two, make a group of them, mirror them. */
export function Marked({ part }: { part: string }) {
  const frame = useFrame();
  const gesture = useRun();
  const [marked, onMark] = useMarked();
  const [about, setAbout] = useState("");
  const known = marked.filter((m) => frame.joints.some((j) => j.id === m));
  if (known.length === 0) return null;
  const [a, b] = known;
  const clear = (d: unknown) => {
    if (d) onMark([]);
    return Promise.resolve(d);
  };
  const place = frame.places.find((p) => p.path === part);
  const mirrors =
    place &&
    [0, 1, 2].flatMap((axis) =>
      marksOf(place, axis)
        .filter((m) => !m.copied)
        .map((m) => [`${axis} ${m.key}`, `${m.name}, ${["across", "in depth", "in height"][axis]}`] as const),
    );
  return (
    <div className="thing">
      <div className="flex items-center justify-between gap-2">
        <h3 className="text-base">{plural(known.length, "joint")} marked</h3>
        <button type="button" className="btn btn-small" onClick={() => onMark([])}>
          Unmark
        </button>
      </div>
      <p className="text-sm text-ink-2">
        {known.slice(0, 12).map((id, i) => (
          <span key={id}>
            {i > 0 && ", "}
            <Named id={id} short />
          </span>
        ))}
        {known.length > 12 && " …"}
      </p>
      <div className="mt-2 grid gap-2">
        {known.length === 2 && a && b && (
          <button
            type="button"
            className="btn btn-small justify-self-start"
            onClick={() => void gesture.run({ join: { from: a, to: b, in: part || undefined } }).then(clear)}
          >
            Run a pipe between them
          </button>
        )}
        <LineField
          label="Group them as"
          placeholder="foot"
          press="Group"
          edit={(name) => ({ group: { in: part || undefined, name, joints: known } })}
          onDone={clear}
          note="a part that can be repeated, mirrored and used again"
        />
        {mirrors && (
          <div className="flex flex-wrap items-center gap-2 text-sm">
            <span className="font-semibold">The same on the other side of</span>
            <Pick label="Where the mirror stands" className="w-44" value={about} options={[["", "at …"], ...mirrors]} onChange={setAbout} />
            <button
              type="button"
              className="btn btn-small"
              disabled={!about}
              onClick={() =>
                void gesture
                  .run({ mirror: { in: part || undefined, joints: known, axis: Number(about[0]), about: about.slice(2) } })
                  .then(clear)
              }
            >
              Mirror
            </button>
          </div>
        )}
      </div>
      <Refused kinds={["join", "group", "mirror"]} />
    </div>
  );
}
