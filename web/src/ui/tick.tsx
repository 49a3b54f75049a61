import { Checkbox } from "radix-ui";

/** A box to tick, large enough for a dirty finger. */
export function Tick({ label, done, onTick, fixed }: { label: string; done: boolean; onTick: (done: boolean) => void; fixed?: boolean }) {
  return <Checkbox.Root className="tick" aria-label={label} checked={done} disabled={fixed} onCheckedChange={(c) => onTick(c === true)} />;
}
