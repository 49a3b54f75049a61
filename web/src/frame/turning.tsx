import { type RefObject, useCallback, useEffect, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { FrameViewProps } from "./frame-view";
import { type Picked, itemsOf, samePick } from "./items";
import { type Overlay, type Placed, type Projection, type SizeLine, drawOverlay, marksAlong, measured, planeKey } from "./overlay";
import { spotOf } from "./paint";
import { PlaneGrip } from "./plane-grip";
import type { View } from "./scene/rig";
import Scene from "./scene/scene";
import { SizeLabel } from "./size-label";
import { FrameTag } from "./tag";

export type TurningProps = FrameViewProps & {
  software: boolean;
  onBegun: () => void;
  onLost: () => void;
  show: RefObject<((v: View) => void) | undefined>;
  focus: () => void;
};

/** Reads the page's colours by name, each once. */
function inks() {
  const css = getComputedStyle(document.documentElement);
  const seen = new Map<string, string>();
  return (name: string) => {
    const v = seen.get(name) ?? css.getPropertyValue(name).trim();
    seen.set(name, v);
    return v;
  };
}

/** The turning scene with what is written over it. */
export default function Turning(props: TurningProps) {
  const { frame, paint, picked, style, dark, targets, onPick, show, onView } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const last = useRef<{ project: Projection; width: number; height: number }>(undefined);
  const lines = useRef(new Map<string, SizeLine>());
  const [hovered, setHovered] = useState<Picked>();
  const els = useRef({
    tags: new Map<string, Placed>(),
    sizes: new Map<string, Placed>(),
    grips: new Map<string, Placed>(),
    planes: new Map<string, Placed>(),
  });

  const colour = useMemo(() => inks(), [dark]);
  const draw = useCallback(() => {
    const l = last.current;
    const c = canvas.current;
    const ctx = c?.getContext("2d");
    if (!l || !c || !ctx) return;
    const dpr = Math.min(2, devicePixelRatio || 1);
    if (c.width !== Math.round(l.width * dpr) || c.height !== Math.round(l.height * dpr)) {
      c.width = Math.round(l.width * dpr);
      c.height = Math.round(l.height * dpr);
    }
    ctx.setTransform(dpr, 0, 0, dpr, 0, 0);
    const o: Overlay = { frame, paint, style, ...l, ctx, colour, ...els.current };
    lines.current = drawOverlay(o);
  }, [frame, paint, style, colour]);
  const drawNow = useRef(draw);
  drawNow.current = draw;

  const known = useRef(new WeakMap<HTMLElement, Placed>()); // measured before, whatever React calls anew
  const themed = useRef(dark);
  useLayoutEffect(() => {
    for (const all of Object.values(els.current)) for (const p of all.values()) measured(p, themed.current !== dark);
    themed.current = dark;
    draw();
  });

  // what is picked elsewhere is brought into view; a changed size moves nothing
  const drawn = useRef(frame);
  drawn.current = frame;
  useEffect(() => {
    const l = last.current;
    const spot = spotOf(drawn.current, picked);
    if (!l || !spot) return;
    const at = l.project(spot);
    if (at.x < 0 || at.y < 0 || at.x > l.width || at.y > l.height) show.current?.("fit");
  }, [picked, show]);

  const begun = useRef(props.onBegun);
  const onDrawn = useCallback((project: Projection, width: number, height: number) => {
    last.current = { project, width, height };
    if (layer.current) layer.current.dataset.drawn = "yes";
    drawNow.current();
    begun.current();
  }, []);
  const onReady = useCallback(
    (f: (v: View) => void) => {
      show.current = f;
      onView(f);
    },
    [show, onView],
  );
  const onHover = useCallback((p: Picked) => setHovered((h) => (samePick(h, p) ? h : p)), []);
  const name = useMemo(() => itemsOf(frame, style).find((i) => samePick(i.pick, hovered))?.name, [frame, style, hovered]);
  const bySize = useMemo(() => new Map(targets.map((t) => [t.sized?.id, t])), [targets]);
  const pick = (p: Picked) => {
    onPick(p);
    props.focus();
  };
  const tell = (map: Map<string, Placed>, key: string) => (el: HTMLElement | null) => {
    if (!el) {
      map.delete(key);
      return;
    }
    const p = known.current.get(el) ?? { el, w: 0, h: 0, words: "" };
    known.current.set(el, p);
    map.set(key, p);
  };
  return (
    <div className={`absolute inset-0 ${hovered ? "cursor-pointer" : "cursor-grab"}`}>
      <Scene
        frame={frame}
        paint={paint}
        picked={picked}
        perspective={props.perspective}
        dark={dark}
        still={props.still}
        software={props.software}
        onLost={props.onLost}
        onPick={pick}
        onHover={onHover}
        onRing={props.onRing}
        onReady={onReady}
        onDrawn={onDrawn}
      />
      <canvas ref={canvas} className="pointer-events-none absolute inset-0 h-full w-full" />
      <div ref={layer} className="stage-labels">
        {paint.tags.map((t) => (
          <FrameTag
            key={t.key}
            tag={t}
            lit={t.pick !== undefined && samePick(t.pick, picked)}
            tell={tell(els.current.tags, t.key)}
            onPick={() => (t.way ? props.onWay(t.way) : t.finding ? onPick(t.pick) : t.pick && pick(t.pick))}
            onFix={props.onFix}
          />
        ))}
        {paint.sizes.map((s) => {
          const t = bySize.get(s.id);
          return (
            t && (
              <SizeLabel
                key={s.id}
                target={t}
                style={style}
                lit={picked?.is === "size" && picked.id === s.id}
                tell={tell(els.current.sizes, s.id)}
                tellGrip={tell(els.current.grips, s.id)}
                line={() => lines.current.get(s.id)}
                onOpen={() => onPick({ is: "size", id: s.id })}
                onText={(text, on) => props.onTarget(t, text, on)}
                onMeaning={(m) => props.onMeaning(t, m)}
                onSettle={props.onSettle}
              />
            )
          );
        })}
        {paint.planes &&
          [0, 1, 2].flatMap((axis) =>
            marksAlong(frame, axis)
              .filter((s) => !s.copied)
              .map((s) => {
                const key = planeKey(axis, s.key);
                return (
                  <PlaneGrip
                    key={key}
                    id={s.key}
                    name={s.name}
                    axis={axis}
                    style={style}
                    tell={tell(els.current.planes, key)}
                    line={() => lines.current.get(key)}
                    onPull={props.onPull}
                    onDrop={props.onDrop}
                  />
                );
              }),
          )}
      </div>
      {name && <p className="stage-hover">{name}</p>}
    </div>
  );
}
