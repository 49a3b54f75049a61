import { useRef, useState } from "react";
import { type Progress, Refusal } from "../../api/client";
import { improve } from "../../desk/server";
import { useDesk, useNow, useOpen } from "../../desk/use";
import { feet, money, plural } from "../../lib/format";

/** Goes on with the search for a better purchase, where the one that is shown is not proven to be the best. */
export function Further() {
  const open = useOpen();
  const desk = useDesk();
  const now = useNow();
  const [at, setAt] = useState<Progress>();
  const [why, setWhy] = useState<string>();
  const going = useRef<AbortController>(undefined);
  const [busy, setBusy] = useState(false);
  const start = async () => {
    const stop = new AbortController();
    going.current = stop;
    setBusy(true);
    setWhy(undefined);
    let last: Progress | undefined;
    try {
      await improve(now, { of: open.id, signal: stop.signal }, (p) => {
        last = p;
        setAt(p);
      });
    } catch (e) {
      if (!stop.signal.aborted) setWhy(e instanceof Refusal ? e.message : "The server does not answer.");
    }
    setBusy(false);
    const found = last;
    if (found) desk.edit("Searched for a better purchase", (p) => ({ ...p, searched: found.sizes.map((s) => s.search) }));
  };
  return (
    <p className="flex flex-wrap items-center gap-x-3 gap-y-1" aria-live="polite">
      {busy ? (
        <button type="button" className="btn btn-small" onClick={() => going.current?.abort()}>
          Stop, and take the best so far
        </button>
      ) : (
        <button type="button" className="btn btn-small" onClick={() => void start()}>
          Look further
        </button>
      )}
      {busy && !at && <span className="text-ink-2">Looking for a better purchase …</span>}
      {at && (
        <span className="text-ink-2">
          {at.sizes
            .filter((s) => !s.proven)
            .map((s) =>
              s.priced
                ? `${s.size}: ${money(s.cost)}, and nothing is below ${money(s.bound)}`
                : `${s.size}: ${feet(s.bought)} ft in ${plural(s.sticks, "stick")}, and nothing is below ${feet(s.bottom)} ft`,
            )
            .join("; ") || "Proven: nothing is cheaper."}
        </span>
      )}
      {why && <strong className="text-bad">{why}</strong>}
    </p>
  );
}
