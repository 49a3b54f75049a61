import { useFrame, useRun } from "../../desk/use";
import { Named } from "../../frame/named";

/** Every socket filled, plugged or declared open; every pipe's end in a socket, capped, free or staked. */
export function Ports() {
  const frame = useFrame();
  const gesture = useRun();
  const p = frame.ports;
  const open = [...new Set(p.open.map((o) => o.joint))];
  const done = open.length === 0 && p.bare.length === 0;
  return (
    <div>
      <table className="audit">
        <caption className="sr-only">What is in every socket and at every pipe's end</caption>
        <tbody>
          <tr>
            <th scope="row">{p.sockets} sockets</th>
            <td>{p.filled} filled</td>
            <td>{p.plugged} plugged</td>
            <td>{p.declared} open on purpose</td>
            <td className={p.open.length > 0 ? "font-semibold text-warn" : ""}>{p.open.length} unsaid</td>
          </tr>
          <tr>
            <th scope="row">{p.ends} pipe ends</th>
            <td>{p.seated} in sockets</td>
            <td>{p.capped} capped</td>
            <td>{p.free + p.staked} free or staked</td>
            <td className={p.bare.length > 0 ? "font-semibold text-warn" : ""}>{p.bare.length} unsaid</td>
          </tr>
        </tbody>
      </table>
      {done ? (
        <p className="mt-1 text-sm">All accounted for.</p>
      ) : (
        <div className="mt-1.5 flex flex-wrap items-center gap-2 text-sm">
          {[...p.bare, ...open].slice(0, 10).map((id) => (
            <Named key={id} id={id} />
          ))}
          {p.bare.length > 0 && (
            <button
              type="button"
              className="btn btn-small"
              onClick={() => void gesture.run({ end: { joint: "", end: "cap", all: true } }, { keep: true })}
            >
              Cap every open end
            </button>
          )}
        </div>
      )}
    </div>
  );
}
