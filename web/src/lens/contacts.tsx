import { Named } from "../frame/named";
import { Len, plural } from "../lib/format";
import { useFrame, useStyle } from "../desk/use";

/** What it stands on, each thing by its name: the rims of fittings, caps, and pipes' own ends. */
export function Contacts() {
  const frame = useFrame();
  const style = useStyle();
  const rests = frame.contacts.filter((c) => c.gap === 0);
  const hovers = frame.contacts.filter((c) => c.gap > 0);
  const on = [...new Set(rests.map((c) => c.joint))];
  const kind = new Map(frame.joints.map((j) => [j.id, j.kind]));
  const count = (is: (kind: string | undefined) => boolean) => on.filter((id) => is(kind.get(id))).length;
  const fittings = count((k) => Boolean(k) && k !== "cap");
  const rims = rests.filter((c) => kind.get(c.joint) && kind.get(c.joint) !== "cap").length;
  const [caps, bare] = [count((k) => k === "cap"), count((k) => k === "")];
  const wheels = frame.links.reduce((n, l) => n + (l.wheels?.length ?? 0), 0);
  if (frame.joints.length === 0) return null;
  const all = [
    fittings > 0 && `${plural(rims, "rim")} of ${plural(fittings, "fitting")}`,
    caps > 0 && plural(caps, "cap"),
    bare > 0 && plural(bare, "bare pipe end"),
    wheels > 0 && plural(wheels, "wheel"),
  ].filter(Boolean);
  return (
    <div className="mt-2 text-sm">
      <p>
        Stands on {all.join(", ") || "nothing"}
        {on.length > 0 && ": "}
        {on.slice(0, 6).map((id, i) => (
          <span key={id}>
            {i > 0 && ", "}
            <Named id={id} short />
          </span>
        ))}
        {on.length > 6 && ` and ${on.length - 6} more`}.
      </p>
      {hovers.map((c) => (
        <p key={c.joint} className="font-semibold text-warn">
          <Named id={c.joint} /> hovers <Len nm={c.gap} style={style} step={32} /> above the floor.
        </p>
      ))}
    </div>
  );
}
