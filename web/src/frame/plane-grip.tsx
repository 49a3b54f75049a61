import { useRef } from "react";
import { tapeStep } from "../lens/size/targets";
import type { Style } from "../lib/format";
import { type SizeLine, pulled } from "./overlay";

interface Props {
  /** Of the plane that is pulled by it. */
  id: string;
  name: string;
  axis: number;
  style: Style;
  tell: (el: HTMLElement | null) => void;
  line: () => SizeLine | undefined;
  onPull: (axis: number, plane: string, by: number, on: string) => void;
  onDrop: () => void;
}

/** A mark on a ruler, to be pulled along it by whole steps of the tape. The sheet has the same by keyboard. */
export function PlaneGrip({ id, name, axis, style, tell, line, onPull, onDrop }: Props) {
  const from = useRef<{ x: number; y: number; line: SizeLine; said: number; on: string }>(undefined);
  const end = () => {
    if (!from.current) return;
    from.current = undefined;
    onDrop();
  };
  return (
    <span
      ref={tell}
      className="plane-grip"
      title={`Pull what stands at ${name}`}
      aria-hidden="true"
      data-plane-grip={id}
      onPointerDown={(e) => {
        const l = line();
        if (!l) return;
        e.currentTarget.setPointerCapture(e.pointerId);
        from.current = { x: e.clientX, y: e.clientY, line: l, said: 0, on: `plane ${axis} ${id} pulled ${e.timeStamp}` };
      }}
      onPointerMove={(e) => {
        const f = from.current;
        if (!f) return;
        const step = tapeStep(style) * (style === "metric" ? 5 : 4); // a quarter inch, or 5 mm
        const by = Math.round(pulled(f.line, e.clientX - f.x, e.clientY - f.y) / step) * step;
        if (by === f.said) return;
        f.said = by;
        onPull(axis, id, by, f.on);
      }}
      onPointerUp={end}
      onPointerCancel={end}
    >
      {name}
    </span>
  );
}
