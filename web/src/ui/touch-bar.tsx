import { useStore } from "zustand";
import { keptSince, touch } from "../lib/touch";

const clock = (ms: number) => {
  const at = new Date(ms);
  const today = new Date().toDateString() === at.toDateString();
  return at.toLocaleString(undefined, today ? { timeStyle: "short" } : { dateStyle: "medium", timeStyle: "short" });
};

/** From when what is shown is, in words; nothing where the server said it. */
export function useKeptSince(): string | undefined {
  const since = useStore(touch, keptSince);
  return since === undefined ? undefined : clock(since);
}

/** Says above every page what it shows where that is not what the server says: what was kept on this device, a server that does not answer, a page of another version. */
export function TouchBar() {
  const kept = useKeptSince();
  const { lost, newer } = useStore(touch);
  if (newer)
    return (
      <div role="alert" className="touch-bar is-newer no-print">
        <span>
          <strong>Sturdy Elbow was replaced by another version.</strong> This page is of the one before: reload it. What you did stays.
        </span>
        <button type="button" className="btn btn-small btn-main" onClick={() => location.reload()}>
          Reload
        </button>
      </div>
    );
  if (kept)
    return (
      <div role="alert" className="touch-bar">
        <span>
          <strong>Kept on this device, as it was at {kept}.</strong>{" "}
          {lost ? "The server does not answer" : "The server has not answered yet"}: what was changed or done elsewhere since is not known.
          What you do here is kept, and goes out by itself.
        </span>
        <button type="button" className="btn btn-small no-print" onClick={() => location.reload()}>
          Try again
        </button>
      </div>
    );
  if (lost)
    return (
      <div role="status" className="touch-bar is-lost no-print">
        <span>
          <strong>The server does not answer since {clock(lost)}.</strong> What was done elsewhere since is not known. What you do here is
          kept, and goes out by itself.
        </span>
      </div>
    );
  return null;
}
