import { Link } from "wouter";
import type { ProjectLine } from "../api/client";
import { letGo, useWaiting } from "../desk/waiting";
import { plural } from "../lib/format";

/** What was done to projects on this device and has not reached the server yet: it goes out from here, too. */
export function StillHere({ names }: { names: ProjectLine[] }) {
  const [left, look] = useWaiting();
  if (left.length === 0) return null;
  const name = (id: string) => names.find((p) => p.id === id)?.name || "a project without a name";
  return (
    <ul aria-label="Waiting on this device" className="my-3 grid gap-1 rounded-md border-2 border-warn bg-paper p-2 pl-4 text-sm">
      {left.map(({ id, events, why }) => (
        <li key={id} className="flex flex-wrap items-baseline gap-x-3">
          <span>
            <strong>{plural(events, "tick")}</strong>{" "}
            {id.includes(",") ? "of what is bought together" : why === "gone" ? "of a project that is gone" : `of ${name(id)}`}{" "}
            {events > 1 ? "wait" : "waits"} on this device
            {why === "silent" ? ", and will be sent as soon as the server answers." : "."}
          </span>
          {why === "refused" && (
            <Link href={id.includes(",") ? `/together?of=${id}` : `/p/${id}/log`} className="link">
              See why
            </Link>
          )}
          {why === "gone" && (
            <button
              type="button"
              className="link"
              onClick={() => {
                letGo(id);
                look();
              }}
            >
              Let them go
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}
