import { useFrame, useOpen } from "../desk/use";
import type { Picked } from "./items";
import { namesOf } from "./names";

/** The name of a piece or a joint. Pressing it picks the thing; pointing at it lights it on the frame. */
export function Named({ id, short, className }: { id: string; short?: boolean; className?: string }) {
  const open = useOpen();
  const frame = useFrame();
  const names = namesOf(frame);
  const is: NonNullable<Picked>["is"] = frame.pipes.some((p) => p.pipe === id) ? "pipe" : "joint";
  const point = (on: boolean) => open.store.setState({ pointed: on ? { is, id } : undefined });
  return (
    <button
      type="button"
      className={`link ${className ?? ""}`}
      onClick={() => open.pick({ is, id })}
      onPointerEnter={() => point(true)}
      onPointerLeave={() => point(false)}
      onFocus={() => point(true)}
      onBlur={() => point(false)}
    >
      {short ? names.short(id) : names.full(id)}
    </button>
  );
}
