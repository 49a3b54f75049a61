import type { Project } from "../api/client";
import { differences } from "../desk/describe";
import type { Documents, Other } from "../desk/documents";

/** Two windows changed one project: both versions side by side, and nothing lost either way. */
export function Stale({
  other,
  mine,
  labels,
  keep,
}: {
  other: Other;
  mine: Project;
  labels: Record<string, string>;
  keep: Documents["keep"];
}) {
  const rows = differences(mine, other.project, labels);
  return (
    <div role="alert" className="no-print border-b-2 border-bad bg-paper-2 px-4 py-3">
      <p>
        <strong>This project was changed in another window.</strong> Nothing was overwritten.{" "}
        {other.both ? "The two touched different things, so both can be kept." : "Whichever you choose, Undo brings the other back."}
      </p>
      {rows.length > 0 && (
        <table className="my-2 text-sm">
          <thead>
            <tr className="text-left text-ink-2">
              <th scope="col" className="pr-6 font-normal">
                What differs
              </th>
              <th scope="col" className="pr-6 font-normal">
                here
              </th>
              <th scope="col" className="font-normal">
                in the other window
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.slice(0, 6).map((d) => (
              <tr key={d.what}>
                <th scope="row" className="pr-6 text-left font-semibold">
                  {d.what}
                </th>
                <td className="pr-6">{d.mine}</td>
                <td>{d.theirs}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <div className="flex flex-wrap gap-2">
        {other.both && (
          <button type="button" className="btn btn-main" onClick={() => keep("both")}>
            Keep both changes
          </button>
        )}
        <button type="button" className={`btn ${other.both ? "" : "btn-main"}`} onClick={() => keep("mine")}>
          Keep mine
        </button>
        <button type="button" className="btn" onClick={() => keep("theirs")}>
          Take the other
        </button>
      </div>
    </div>
  );
}
