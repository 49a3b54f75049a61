import { Refused } from "../refused";
import { useNamed, useOpenState, useRun } from "../../desk/use";

/** What the last gesture did besides what was asked for, and what may be wanted next. */
export function Besides() {
  const gesture = useRun();
  const named = useNamed();
  const d = useOpenState((s) => s.last);
  const told = [...(d?.gave ?? []).map((g) => `${g.was}${g.now ? ` → ${g.now}` : ""}, ${g.words}`), ...(d?.also ?? [])];
  if (!d || (told.length === 0 && !d.offers?.length)) return null;
  return (
    <div className="besides">
      {told.length > 0 && <p role="status">{named(`${d.label}: ${told.join("; ")}`)}</p>}
      {d.offers?.map((o) => (
        <button key={o.label} type="button" className="btn btn-small" onClick={() => void gesture.run(o.edit, { keep: true })}>
          {named(o.label)}
        </button>
      ))}
      <Refused kinds={["rails", "reach", "follow"]} />
    </div>
  );
}
