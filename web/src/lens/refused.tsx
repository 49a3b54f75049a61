import type { Edit } from "../api/client";
import { intoView } from "../lib/in-view";
import { useOpenState } from "../desk/use";

/** What a refused gesture of some kinds says, unless the field that asked for it says so. */
export function Refused({ kinds }: { kinds: (keyof Edit)[] }) {
  const r = useOpenState((s) => s.refused);
  return r && !r.at && kinds.includes(r.kind) ? <Sorry what={r.what} /> : null;
}

/** Why something cannot be done, and how to mend it. */
export function Sorry({ what, id }: { what: string; id?: string }) {
  return (
    <p role="alert" id={id} ref={intoView} className="mt-1 text-sm font-semibold text-bad">
      {what}
    </p>
  );
}
