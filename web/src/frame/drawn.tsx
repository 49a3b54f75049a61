import { useEffect, useLayoutEffect, useRef } from "react";
import type { Fix, PlanFrame } from "../api/client";
import { type Picked, lit, samePick } from "./items";
import type { Tag } from "./paint";
import { FrameTag } from "./tag";

interface Props {
  svg: string;
  frame: PlanFrame;
  picked: Picked;
  /** What the plan noticed; pinned to what it is about. */
  tags: Tag[];
  onPick: (p: Picked) => void;
  onFix: (x: Fix) => void;
  onRing?: (at: { joint: string; pipe: string; cemented: boolean }) => void;
}

/** The frame as the server draws it, where there is no WebGL to turn it. */
export function Drawn({ svg, frame, picked, tags, onPick, onFix, onRing }: Props) {
  const box = useRef<HTMLDivElement>(null);
  const pins = useRef(new Map<string, HTMLElement>());
  const findings = tags.filter((t) => t.finding);
  useLayoutEffect(() => {
    const place = () => {
      const home = box.current?.getBoundingClientRect();
      if (!home) return;
      for (const t of findings) {
        const name = t.pick?.is === "pipe" ? "pipe" : "joint";
        const at = [...(box.current?.querySelectorAll<SVGElement>(`[data-${name}]`) ?? [])]
          .find((e) => e.dataset[name] === t.pick?.id)
          ?.getBoundingClientRect();
        const pin = pins.current.get(t.key);
        if (!pin) continue;
        pin.style.visibility = at ? "visible" : "hidden";
        if (at) pin.style.transform = `translate(${at.x + at.width / 2 - home.x + 10}px, ${at.y + at.height / 2 - home.y - 26}px)`;
      }
    };
    place();
    const o = new ResizeObserver(place);
    if (box.current) o.observe(box.current);
    return () => o.disconnect();
  });
  useEffect(() => {
    const pipes = new Map(frame.pipes.map((p) => [p.pipe, p]));
    for (const e of box.current?.querySelectorAll<SVGElement>("[data-pipe], [data-joint], [data-letter]") ?? []) {
      const { pipe, joint, letter } = e.dataset;
      const p = pipe ? pipes.get(pipe) : frame.pipes.find((q) => q.letter === letter && lit(q, picked, frame));
      e.classList.toggle(
        "lit",
        joint ? picked?.is === "joint" && picked.id === joint : p !== undefined && lit(p, picked, frame) !== undefined,
      );
    }
  }, [svg, picked, frame]);
  return (
    <>
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: the list of pipes and joints over it is the way by keyboard */}
      {/* biome-ignore lint/a11y/noStaticElementInteractions: as above */}
      <div
        ref={box}
        className="h-full w-full [&>svg]:h-full [&>svg]:w-full"
        onClick={(e) => {
          // what lies there now: the drawing may have been replaced since the press began
          const d = (document.elementFromPoint(e.clientX, e.clientY) ?? (e.target as Element)).closest<SVGElement>(
            "[data-insertion], [data-pipe], [data-joint], [data-letter]",
          )?.dataset;
          if (d?.insertion && onRing) {
            const [joint = "", pipe = ""] = d.insertion.split("|");
            onRing({ joint, pipe, cemented: d.mode === "cemented" });
          } else if (d?.pipe) onPick({ is: "pipe", id: d.pipe });
          else if (d?.joint) onPick({ is: "joint", id: d.joint });
          else if (d?.letter) onPick({ is: "letter", id: d.letter });
          else onPick(undefined);
        }}
        // drawn by our own server, which escapes every name in it
        dangerouslySetInnerHTML={{ __html: svg }}
      />
      <div className="stage-labels">
        {findings.map((t) => (
          <FrameTag
            key={t.key}
            tag={t}
            lit={samePick(t.pick, picked)}
            tell={(el) => (el ? pins.current.set(t.key, el) : pins.current.delete(t.key))}
            onPick={() => onPick(t.pick)}
            onFix={onFix}
          />
        ))}
      </div>
    </>
  );
}
