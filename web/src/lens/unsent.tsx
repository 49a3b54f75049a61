import { useOpen, useOpenState, usePlan, useStyle } from "../desk/use";
import { plural } from "../lib/format";
import { wordsOf } from "./log/words";

/** What was done here and has not reached the server, and what the server could not take: said where it is ticked. */
export function Unsent() {
  const open = useOpen();
  const style = useStyle();
  const plan = usePlan();
  const { waiting, aside, why } = useOpenState((s) => s.outgoing);
  if (!(why && waiting > 0) && aside.length === 0) return null;
  const where = (frame: number) => (pipe: string) => plan.frames[frame]?.pipes.find((p) => (p.was ?? p.pipe) === pipe)?.where ?? "";
  return (
    <div role="alert" className="unsent">
      {why && waiting > 0 && (
        <p>
          {why}. {plural(waiting, "tick waits", "ticks wait")} on this device, and {waiting > 1 ? "go" : "goes"} out when it can.
        </p>
      )}
      {aside.length > 0 && (
        <>
          <p>{plural(aside.length, "tick")} could not be taken. Nothing else is kept back by it:</p>
          <ul aria-label="Set aside">
            {aside.map(({ event, why }) => (
              <li key={event.id}>
                <span>
                  <strong>{sentence(wordsOf(event, style, where(event.frame ?? 0)))}</strong>: {why}.
                </span>
                <button type="button" className="btn btn-small" onClick={() => open.recorder.again(event.id)}>
                  Send it again
                </button>
                <button type="button" className="btn btn-small" onClick={() => open.recorder.letGo(event.id)}>
                  It was not so
                </button>
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);
