import { useState } from "react";
import type { Joint } from "../../api/client";
import { Pick } from "../../ui/pick";
import { Drawer } from "../../ui/drawer";
import { LineField, angleOf } from "./line-field";
import { Refused } from "../refused";
import { useFrame, useProject } from "../../desk/use";

/** Shapes that are more than a walk: rings, and how the whole frame stands. */
export function Shapes({ joint, part }: { joint?: Joint; part: string }) {
  const project = useProject();
  const frame = useFrame();
  const [sides, setSides] = useState("8 spokes");
  const [square, setSquare] = useState("1");
  const stance = project.frame?.stance?.turns?.at(-1);
  const spokes = sides.includes("spokes");
  const n = Number.parseInt(sides, 10);
  const across = n === 8;
  return (
    <Drawer
      id="shapes"
      title="Rings, and how it stands"
      begin={frame.joints.length === 0}
      told={stance ? `tilted by ${stance.by}°` : "upright"}
    >
      <div className="grid gap-2">
        <div className="flex flex-wrap items-center gap-2 text-sm">
          <Pick
            label="What sort of ring"
            className="w-44"
            value={sides}
            options={[
              ["8", "ring of 8", "45 degree elbows"],
              ["8 spokes", "ring of 8 with spokes", "four spokes to a cross"],
              ["4", "ring of 4", "90 degree elbows"],
            ]}
            onChange={setSides}
          />
          <Pick
            label="Which way the ring faces"
            className="w-36"
            value={square}
            options={[
              ["1", "upright", "facing you"],
              ["0", "upright, sideways"],
              ["2", "lying flat"],
            ]}
            onChange={setSquare}
          />
        </div>
        <LineField
          label={across ? "Across the flats" : "Each side"}
          placeholder={across ? "36 outside" : "12 cut"}
          press="Draw it"
          edit={(t) => ({
            ring: {
              in: part || undefined,
              on: joint?.id,
              sides: n,
              square: Number(square),
              spokes: spokes || undefined,
              ...(across ? { across: t } : { side: t }),
            },
          })}
          note={joint ? `it begins at ${joint.name}` : "it begins where the frame begins"}
        />
        {frame.joints.length > 0 && (
          <LineField
            label="Stands tilted by"
            placeholder={stance ? `${stance.by}°` : "upright"}
            press="Tilt"
            mayBeEmpty
            keep
            edit={(t) => {
              const by = t === "" ? 0 : angleOf(t);
              return by === undefined ? "Write an angle in degrees, as in 12" : { stand: { turns: by === 0 ? [] : [{ about: 0, by }] } };
            }}
            note="degrees, its top leaning toward you; empty stands it upright"
          />
        )}
      </div>
      <Refused kinds={["ring", "stand"]} />
    </Drawer>
  );
}
