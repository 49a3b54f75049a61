import { useStore } from "zustand";
import { accept, touch } from "../../lib/touch";
import { useKeptSince } from "../../ui/touch-bar";

/** Whether one may cut by the plan that is shown: the server said it, or somebody has seen from when it is. */
export function useMayCut(): boolean {
  const kept = useKeptSince();
  const accepted = useStore(touch, (t) => t.accepted);
  return kept === undefined || accepted === true;
}

/** Asks once, before anything is cut by a plan that was kept on this device. */
export function CutByKept() {
  const kept = useKeptSince();
  const may = useMayCut();
  if (may) return null;
  return (
    <div role="alert" className="by-kept">
      <p>
        <strong>This plan is from {kept}.</strong> A size may have been changed, or a piece cut, on another device since. Nothing is ticked
        as cut before you say that it will do.
      </p>
      <button type="button" className="btn btn-main" data-accept onClick={accept}>
        Cut by the plan of {kept}
      </button>
    </div>
  );
}
