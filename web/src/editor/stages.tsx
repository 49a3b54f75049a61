import { Tabs } from "radix-ui";
import { keep, kept, useSwitch } from "../lib/stored";
import { type LensId, keyOf, stages } from "../lens/lens";
import { lenses } from "../lens/lenses";
import { Icon } from "../ui/icons";

/** The way of the work: a line with a station for each lens, in order, and the one that one is at with its question. */
export function Stages({ active }: { active: LensId }) {
  const at = stages.indexOf(active);
  return (
    <nav className="stages no-print" aria-label="The way of the work">
      <Tabs.List className="stages-line" aria-label="Lenses, in the order of work">
        {lenses.map((l) => (
          <Tabs.Trigger
            key={l.id}
            value={l.id}
            className={`station ${stages.indexOf(l.id) < at ? "is-past" : ""}`}
            title={`${l.question} (${keyOf(l.id)})`}
          >
            <span className="station-mark">
              <Icon name={l.icon} size={17} />
            </span>
            <span className="station-name">{l.name}</span>
            <span className="station-asks" aria-hidden="true">
              {l.question}
            </span>
            <span className="station-key" aria-hidden="true">
              {keyOf(l.id)}
            </span>
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <NewKeys />
    </nav>
  );
}

// A browser that has kept nothing when the page comes is a newcomer's, who has no other keys to unlearn.
// It is settled here, once: what the newcomer turns on later must not bring the word, and move the frame.
if (kept("keys-of-nine") === undefined && kept("perspective") === undefined) keep("keys-of-nine", true);

/** A word about the number keys, once: they moved when each stage of the work got its own for good. */
function NewKeys() {
  const [known, learn] = useSwitch("keys-of-nine");
  if (known) return null;
  return (
    <p role="status" className="stages-word">
      Each lens has its number for good now: Joints is 4, Buy is 6, Cut is 7.{" "}
      <button type="button" className="link" onClick={learn}>
        I know
      </button>
    </p>
  );
}
