import { Named } from "../frame/named";
import { Len, plural } from "../lib/format";
import { useFrame, useStyle } from "../desk/use";

/** What it stands on. */
export function Contacts() {
  const frame = useFrame();
  const style = useStyle();
  const rests = frame.contacts.filter((c) => c.gap === 0);
  const hovers = frame.contacts.filter((c) => c.gap > 0);
  const on = [...new Set(rests.map((c) => c.joint))];
  const wheels = frame.links.reduce((n, l) => n + (l.wheels?.length ?? 0), 0);
  if (frame.joints.length === 0) return null;
  return (
    <div className="mt-2 text-sm">
      <p>
        Stands on {plural(rests.length, "rim")} of {plural(on.length, "fitting")}:{" "}
        {on.slice(0, 6).map((id, i) => (
          <span key={id}>
            {i > 0 && ", "}
            <Named id={id} short />
          </span>
        ))}
        {on.length > 6 && ` and ${on.length - 6} more`}
        {wheels > 0 && ` and ${plural(wheels, "wheel")}`}.
      </p>
      {hovers.map((c) => (
        <p key={c.joint} className="font-semibold text-warn">
          <Named id={c.joint} /> hovers <Len nm={c.gap} style={style} step={32} /> above the floor.
        </p>
      ))}
    </div>
  );
}
