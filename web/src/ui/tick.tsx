import { Checkbox } from "radix-ui";

/** A box to tick, large enough for a dirty finger. */
export function Tick({ label, done, onTick }: { label: string; done: boolean; onTick: (done: boolean) => void }) {
  return <Checkbox.Root className="tick" aria-label={label} checked={done} onCheckedChange={(c) => onTick(c === true)} />;
}
