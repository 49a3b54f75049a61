import { type RefObject, Suspense, lazy, memo, useCallback, useEffect, useId, useMemo, useRef, useState } from "react";
import { ErrorBoundary } from "react-error-boundary";
import type { Fix, PlanFrame } from "../api/client";
import type { Held, Subject } from "../desk/history";
import type { Style } from "../lib/format";
import type { Target } from "../lens/size/targets";
import { Loading } from "../ui/ui";
import { Drawn } from "./drawn";
import { type Picked, itemsOf, samePick } from "./items";
import type { Paint } from "./paint";
import type { View } from "./scene/rig";
import { useFrameKeys } from "./use-frame-keys";

// with all that is written and pulled on it: none of it is needed before the first picture
const Turning = lazy(() => import("./turning"));

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
  onFix: (x: Fix) => void;
  onTarget: (t: Target, text: string, on: Subject) => void;
  onMeaning: (t: Target, meaning: string) => void;
  onSettle: () => void;
  /** A direction to run a pipe in was pressed. */
  onWay: (way: string) => void;
  /** A plane is pulled along its axis by so many nanometres, and let go. */
  onPull: (axis: number, plane: string, by: number, on: Held) => void;
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
      {drawn &&
        (drawing ? (
          <Drawn
            svg={drawing}
            frame={frame}
            picked={picked}
            tags={paint.tags}
            onFix={props.onFix}
            onPick={props.onPick}
            onRing={paint.rings > 1 ? props.onRing : undefined}
          />
        ) : (
          <Loading what="the drawing" />
        ))}
      {turning && (
        <ErrorBoundary fallback={null} onError={lost}>
          <Suspense>
            <div className={begun ? "absolute inset-0" : "stage-coming"}>
              <Turning
                {...props}
                software={able === "software"}
                onLost={lost}
                onBegun={begin}
                show={show}
                focus={() => list.current?.focus({ preventScroll: true })}
              />
            </div>
          </Suspense>
        </ErrorBoundary>
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
