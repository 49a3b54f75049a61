import { useState } from "react";
import { useOpen, useOpenState } from "../desk/use";

/** What keeps work from being kept, said where nobody can miss it. */
export function Trouble() {
  const open = useOpen();
  const save = useOpenState((s) => s.save);
  const gone = useOpenState((s) => s.gone);
  const earlier = useOpenState((s) => s.earlier);
  const [why, setWhy] = useState("");
  if (gone)
    return (
      <div role="alert" className="no-print flex flex-wrap items-center gap-3 border-b-2 border-bad bg-paper-2 px-4 py-2">
        <span>
          <strong>This project was deleted in another window.</strong> What you do here is not kept until it is put back. {why}
        </span>
        <button
          type="button"
          className="btn btn-small btn-main"
          onClick={() => void open.putBack().catch(() => setWhy("It could not be put back: the server does not answer."))}
        >
          Put it back
        </button>
      </div>
    );
  if (earlier)
    return (
      <div role="alert" className="no-print flex flex-wrap items-center gap-3 border-b-2 border-bad bg-paper-2 px-4 py-2">
        <span>
          <strong>The server has another state of this project now: it was put back to a backup.</strong> Nothing here was changed.
          Whichever you choose, Undo brings the other back.
        </span>
        <button type="button" className="btn btn-small btn-main" onClick={() => open.documents.afterEarlier("mine")}>
          Save what is here
        </button>
        <button type="button" className="btn btn-small" onClick={() => open.documents.afterEarlier("theirs")}>
          Take the backup’s
        </button>
      </div>
    );
  if (save.is !== "failed" || save.why === silent) return null;
  return (
    <p role="alert" className="no-print border-b-2 border-bad bg-paper-2 px-4 py-2 font-semibold">
      {save.why}. What you typed stays in this window, and is saved by itself when that is seen to.
    </p>
  );
}

/** That the server does not answer is said by the plan. */
const silent = "the server does not answer";
