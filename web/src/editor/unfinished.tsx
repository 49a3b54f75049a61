import type { PlanFrame } from "../api/client";
import { useNamed } from "../desk/use";

/** What is summed up is of a part of the frame: as large as the sums, with what stops the rest, and a way there. */
export function Unfinished({ of, onGo }: { of: PlanFrame["waiting"]; onGo: () => void }) {
  const named = useNamed();
  if (!of) return null;
  return (
    <section role="alert" aria-label="Unfinished" className="unfinished">
      <p className="text-lg font-bold text-bad">Unfinished: {of.words}</p>
      <p>
        What is here is of the part that is drawn. Line {of.line}, <q className="font-mono">{of.text}</q>, cannot be drawn: {named(of.what)}
        .
      </p>
      <button type="button" className="btn btn-small mt-1" onClick={onGo}>
        To the lines
      </button>
    </section>
  );
}
