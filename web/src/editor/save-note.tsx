import { useOpenState } from "../desk/use";

/** Whether all that was changed is saved. */
export function SaveNote() {
  const s = useOpenState((s) => s.save);
  const words = { saved: "Saved", saving: "Saving …", waiting: "Saving …", failed: "Not saved yet", stale: "Not saved" }[s.is];
  return (
    <span role="status" className={`no-print save-note is-${s.is}`} title={s.is === "failed" ? `${s.why}; it is tried again` : undefined}>
      {words}
    </span>
  );
}
