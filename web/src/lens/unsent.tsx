import { useOpenState } from "../desk/use";
import { plural } from "../lib/format";

/** What was done here and has not reached the server: said where it is ticked. */
export function Unsent() {
  const { events, why } = useOpenState((s) => s.outgoing);
  if (!why) return null;
  return (
    <p role="alert" className="rounded-md border-2 border-warn bg-paper p-2 text-sm font-semibold">
      {why}.{" "}
      {events.length > 0 &&
        `${plural(events.length, "tick waits", "ticks wait")} on this device, and ${events.length > 1 ? "go" : "goes"} out when it can.`}
    </p>
  );
}
