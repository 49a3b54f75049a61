import { useEffect } from "react";
import { useStore } from "zustand";
import { plural } from "../lib/format";
import { touch } from "../lib/touch";
import { InPlace } from "../ui/in-place";
import { dropPrice, keepPrice, sendPrices, waitingPrices } from "./waiting-prices";

const again = 5000; // ms

/** Says above every page which prices wait for the server, sends them, and says which are none. */
export function WaitingPricesBar() {
  const all = Object.values(useStore(waitingPrices, (s) => s.all));
  const lost = useStore(touch, (t) => t.lost);
  const waiting = all.filter((w) => !w.why);
  const many = waiting.length;
  useEffect(() => {
    if (many === 0) return;
    const send = () => void sendPrices();
    if (!lost) send();
    const timer = setInterval(send, again);
    addEventListener("online", send);
    return () => {
      clearInterval(timer);
      removeEventListener("online", send);
    };
  }, [many, lost]);
  const wrong = all.filter((w) => w.why);
  return (
    <>
      {many > 0 && (
        <div role="status" className="touch-bar is-lost no-print">
          <span>
            <strong>{plural(many, "price waits", "prices wait")} on this device</strong> for the server, which reads them, and{" "}
            {many === 1 ? "goes" : "go"} out by {many === 1 ? "itself" : "themselves"}:{" "}
            {waiting
              .slice(0, 4)
              .map((w) => `${w.label} ${w.text}`)
              .join("; ")}
            {many > 4 && ` and ${many - 4} more`}.
          </span>
        </div>
      )}
      {wrong.map((w) => (
        <div key={w.label} role="alert" className="touch-bar no-print">
          <span>
            <strong>
              {w.label}: “{w.text}” could not be taken:
            </strong>{" "}
            {w.why}
          </span>
          <InPlace label={`${w.label}, again`} shown="Type it again" start={w.text} take={(text) => keepPrice(w.of, w.label, text)} />
          <button type="button" className="btn btn-small" onClick={() => dropPrice(w.of)}>
            Let it go
          </button>
        </div>
      ))}
    </>
  );
}
