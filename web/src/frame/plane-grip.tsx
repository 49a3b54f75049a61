import { useRef } from "react";
import type { Held } from "../desk/history";
import { tapeStep } from "../lens/size/targets";
import type { Style } from "../lib/format";
import type { SizeLine } from "./overlay";
import { usePull } from "./use-pull";

interface Props {
  /** Of the plane that is pulled by it. */
  id: string;
  name: string;
  axis: number;
  style: Style;
  tell: (el: HTMLElement | null) => void;
  line: () => SizeLine | undefined;
  onPull: (axis: number, plane: string, by: number, on: Held) => void;
  onDrop: () => void;
}

/** A mark on a ruler, to be pulled along it by whole steps of the tape. The sheet has the same by keyboard. */
export function PlaneGrip({ id, name, axis, style, tell, line, onPull, onDrop }: Props) {
  const said = useRef(0);
  const bind = usePull({
    line,
    name: `plane ${axis} ${id}`,
    onBegin: () => {
      said.current = 0;
    },
    onMove: (far, on) => {
      const step = tapeStep(style) * (style === "metric" ? 5 : 4); // a quarter inch, or 5 mm
      const by = Math.round(far / step) * step;
      if (by === said.current) return;
      said.current = by;
      onPull(axis, id, by, on);
    },
    onEnd: onDrop,
  });
  return (
    <span ref={tell} className="plane-grip" title={`Pull what stands at ${name}`} aria-hidden="true" data-plane-grip={id} {...bind()}>
      {name}
    </span>
  );
}
