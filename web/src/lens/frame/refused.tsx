import type { Edit } from "../../api/client";
import type { LensProps } from "../lens";

/** What a refused gesture of some kinds says, unless the field that asked for it says so. */
export function Refused({ gesture, kinds }: Pick<LensProps, "gesture"> & { kinds: (keyof Edit)[] }) {
  const r = gesture.refused;
  return r && !r.at && kinds.includes(r.kind) ? <Sorry what={r.what} /> : null;
}

/** Why something cannot be done, and how to mend it. */
export function Sorry({ what, id }: { what: string; id?: string }) {
  return (
    <p role="alert" id={id} className="mt-1 text-sm font-semibold text-bad">
      {what}
    </p>
  );
}
