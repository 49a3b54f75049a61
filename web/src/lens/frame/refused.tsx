import type { Edit } from "../../api/client";
import type { LensProps } from "../lens";

/** What a refused gesture of some kinds says. */
export function Refused({ gesture, kinds }: Pick<LensProps, "gesture"> & { kinds: (keyof Edit)[] }) {
  const r = gesture.refused;
  if (!r || !kinds.includes(r.kind)) return null;
  return (
    <p role="alert" className="mt-1 text-sm font-semibold text-bad">
      {r.what}
    </p>
  );
}
