import { type RefObject, Suspense, lazy, memo, useCallback, useEffect, useId, useLayoutEffect, useMemo, useRef, useState } from "react";
import type { Finding, Fix, PlanFrame } from "../api/client";
import type { Style } from "../lib/format";
import type { Target } from "../lens/size/targets";
import { ErrorGuard } from "../ui/error-guard";
import { Loading } from "../ui/ui";
import { Drawn } from "./drawn";
import { type Picked, itemsOf, samePick } from "./items";
import { type Overlay, type Placed, type Projection, type SizeLine, drawOverlay, marksAlong, measured, planeKey } from "./overlay";
import { type Paint, spotOf } from "./paint";
import { PlaneGrip } from "./plane-grip";
import type { View } from "./scene/rig";
import { SizeLabel } from "./size-label";
import { FrameTag } from "./tag";
import { useFrameKeys } from "./use-frame-keys";

const Scene = lazy(() => import("./scene/scene"));

export interface FrameViewProps {
  frame: PlanFrame;
  paint: Paint;
  picked: Picked;
  style: Style;
  /** The frame and what is picked this moment; the picture may still be of the moment before. */
  latest: RefObject<{ frame: PlanFrame; picked: Picked; style: Style } | undefined>;
  dark: boolean;
  /** The page turns nothing by itself. */
  still: boolean;
  /** Draw it flat, whatever the machine can do. */
  flat: boolean;
  perspective: boolean;
  targets: Target[];
  drawing?: string;
  /** Whether the server's drawing is what is shown. */
  onDrawn: (drawn: boolean) => void;
  onPick: (p: Picked) => void;
  onRing: (at: { joint: string; pipe: string; cemented: boolean }) => void;
  /** Space or Enter on what is picked. */
  acts: boolean;
  onAct: () => void;
  onPerspective: () => void;
  onFix: (f: Finding, x: Fix) => void;
  onTarget: (t: Target, text: string, on: string) => void;
  onMeaning: (t: Target, meaning: string) => void;
  onSettle: () => void;
  /** A direction to run a pipe in was pressed. */
  onWay: (way: string) => void;
  /** A plane is pulled along its axis by so many nanometres, and let go. */
  onPull: (axis: number, plane: string, by: number, on: string) => void;
  onDrop: () => void;
  onEnter?: () => void;
  onDelete?: () => void;
  /** Gives the way to command the view; nothing when it is drawn flat. */
  onView: (show: ((v: View) => void) | undefined) => void;
}

/** Whether this browser can turn the frame, and whether it has hardware for it. */
function ability(): "none" | "software" | "hardware" {
  try {
    const gl = document.createElement("canvas").getContext("webgl2");
    if (!gl) return "none";
    const info = gl.getExtension("WEBGL_debug_renderer_info");
    const name = info ? String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)) : "";
    gl.getExtension("WEBGL_lose_context")?.loseContext();
    return /swiftshader|llvmpipe|software|basic render/i.test(name) ? "software" : "hardware";
  } catch {
    return "none";
  }
}

/** The frame, always in view: turning where there is WebGL, drawn by the server where there is not. */
export const FrameView = memo(function FrameView(props: FrameViewProps) {
  const { frame, paint, picked, style, flat, drawing, onDrawn, onView } = props;
  const [able, setAble] = useState(ability);
  const turning = !flat && able !== "none";
  const lost = useCallback(() => setAble("none"), []);
  const items = useMemo(() => itemsOf(frame, style), [frame, style]);
  const id = useId();
  const at = items.findIndex((i) => samePick(i.pick, picked));
  const show = useRef<(v: View) => void>(undefined);
  const keys = useFrameKeys({ ...props, show });
  const list = useRef<HTMLDivElement>(null);

  // the server's drawing stands until the turning frame has drawn its first picture
  const [begun, setBegun] = useState(false);
  const begin = useCallback(() => setBegun(true), []);
  const drawn = !turning || !begun;
  useEffect(() => onDrawn(drawn), [drawn, onDrawn]);
  useEffect(() => {
    if (turning) return;
    setBegun(false);
    show.current = undefined;
    onView(undefined);
  }, [turning, onView]);

  return (
    <div className="stage" data-turning={turning}>
      {drawn && (drawing ? <Drawn svg={drawing} frame={frame} picked={picked} tags={paint.tags} onFix={props.onFix} onPick={props.onPick} onRing={paint.rings > 1 ? props.onRing : undefined} /> : <Loading what="the drawing" />)}
      {turning && (
        <ErrorGuard onError={lost}>
          <Suspense>
            <div className={begun ? "absolute inset-0" : "stage-coming"}>
              <Turning {...props} software={able === "software"} onLost={lost} onBegun={begin} show={show} focus={() => list.current?.focus({ preventScroll: true })} />
            </div>
          </Suspense>
        </ErrorGuard>
      )}
      <div
        ref={list}
        role="listbox"
        tabIndex={0}
        aria-label={`Pipes and joints of the frame, ${items.length}`}
        aria-activedescendant={at >= 0 ? `${id}-${at}` : undefined}
        className="stage-list"
        onKeyDown={keys}
      >
        {items.map((i, n) => (
          <div key={`${i.pick.is} ${i.pick.id}`} id={`${id}-${n}`} role="option" tabIndex={-1} aria-selected={n === at}>
            {i.name}
          </div>
        ))}
      </div>
    </div>
  );
});

type TurningProps = FrameViewProps & { software: boolean; onBegun: () => void; onLost: () => void; show: React.RefObject<((v: View) => void) | undefined>; focus: () => void };

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
function Turning(props: TurningProps) {
  const { frame, paint, picked, style, dark, targets, onPick, show, onView } = props;
  const canvas = useRef<HTMLCanvasElement>(null);
  const layer = useRef<HTMLDivElement>(null);
  const last = useRef<{ project: Projection; width: number; height: number }>(undefined);
  const lines = useRef(new Map<string, SizeLine>());
  const [hovered, setHovered] = useState<Picked>();
  const els = useRef({ tags: new Map<string, Placed>(), sizes: new Map<string, Placed>(), grips: new Map<string, Placed>(), planes: new Map<string, Placed>() });

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
      <Scene frame={frame} paint={paint} picked={picked} perspective={props.perspective} dark={dark} still={props.still} software={props.software} onLost={props.onLost} onPick={pick} onHover={onHover} onRing={props.onRing} onReady={onReady} onDrawn={onDrawn} />
      <canvas ref={canvas} className="pointer-events-none absolute inset-0 h-full w-full" />
      <div ref={layer} className="stage-labels">
        {paint.tags.map((t) => (
          <FrameTag key={t.key} tag={t} lit={t.pick !== undefined && samePick(t.pick, picked)} tell={tell(els.current.tags, t.key)} onPick={() => (t.way ? props.onWay(t.way) : t.finding ? onPick(t.pick) : t.pick && pick(t.pick))} onFix={props.onFix} />
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
                return <PlaneGrip key={key} id={s.key} name={s.name} axis={axis} style={style} tell={tell(els.current.planes, key)} line={() => lines.current.get(key)} onPull={props.onPull} onDrop={props.onDrop} />;
              }),
          )}
      </div>
      {name && <p className="stage-hover">{name}</p>}
    </div>
  );
}
