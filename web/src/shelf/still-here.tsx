import { Link } from "wouter";
import type { ProjectLine } from "../api/client";
import { type Waiting, letGo, useWaiting } from "../desk/waiting";
import { plural } from "../lib/format";

/** What was done to projects on this device and has not reached the server yet: it goes out from here, too. */
export function StillHere({ names }: { names: ProjectLine[] }) {
  const [left, look] = useWaiting();
  if (left.length === 0) return null;
  return (
    <ul aria-label="Waiting on this device" className="my-3 grid gap-1 rounded-md border-2 border-warn bg-paper p-2 pl-4 text-sm">
      {left.map((w) => (
        <li key={w.id} className="flex flex-wrap items-baseline gap-x-3">
          <span>{said(w, names)}</span>
          {w.why === "refused" && w.id !== "" && (
            <Link href={w.id.includes(",") ? `/together?of=${w.id}` : `/p/${w.id}/log`} className="link">
              See why
            </Link>
          )}
          {w.why === "gone" && (
            <button
              type="button"
              className="link"
              onClick={() => {
                letGo(w.id);
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

/** What waits, in a sentence. */
function said(w: Waiting, names: ProjectLine[]) {
  const of = w.id.includes(",")
    ? "of what is bought together"
    : w.why === "gone"
      ? "of a project that is gone"
      : w.id === ""
        ? "of the shop"
        : `of ${names.find((p) => p.id === w.id)?.name || "a project without a name"}`;
  const what = [w.events > 0 ? plural(w.events, "tick") : "", w.changes ? (w.id === "" ? "prices" : "what was changed") : ""].filter(
    Boolean,
  );
  const one = what.length === 1 && (w.events === 1 || (w.events === 0 && w.id !== ""));
  return (
    <>
      {what.length > 0 && (
        <>
          <strong>{what.join(" and ")}</strong> {of} {one ? "waits" : "wait"} on this device
          {w.why === "silent" ? ", and will be sent as soon as the server answers. " : ". "}
        </>
      )}
      {w.aside > 0 && (
        <>
          <strong>{plural(w.aside, "tick")}</strong> {of} could not be taken, and {w.aside > 1 ? "are" : "is"} set aside.
        </>
      )}
    </>
  );
}
