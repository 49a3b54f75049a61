import { namesOf } from "../frame/names";
import { modeWords, meaning } from "../lib/words";
import { useDeferredValue, useMemo, useRef } from "react";
import type { Held, Subject } from "../desk/history";
import { hold } from "../desk/mode-rules";
import { useMarked, useOpen, useOpenState, usePicked, usePlanned, useStarters } from "../desk/use";
import { FrameView } from "../frame/frame-view";
import type { Picked } from "../frame/items";
import { findingTags } from "../frame/paint";
import type { View } from "../frame/scene/rig";
import type { Lens } from "../lens/lens";
import { useTargets } from "../lens/size/live";
import { type Target, targetsOf } from "../lens/size/targets";
import type { Style } from "../lib/format";
import { unitOf } from "../lib/format";
import { usePhone, useStill, useTheme } from "../lib/theme";
import { useStable } from "../lib/use-stable";

interface Props {
  lens: Lens;
  flat: boolean;
  perspective: boolean;
  onPerspective: () => void;
  onView: (show: ((v: View) => void) | undefined) => void;
}

const none = {};

/**
 * The frame as the lens paints it. The tape and the sheet answer a change
 * first; the picture follows, and is touched by nothing but a new plan, pick,
 * lens or look.
 */
export function EditorFrame(props: Props) {
  const { lens } = props;
  const open = useOpen();
  const { plan, of, drawing } = usePlanned();
  const starters = useStarters();
  const [picks] = usePicked();
  const about = useOpenState((s) => (s.asks ? s.about : undefined));
  const pointed = useOpenState((s) => s.pointed);
  const picked: Picked = useMemo(() => (about ? { is: "pipe", id: about } : (pointed ?? picks)), [about, pointed, picks]);
  const [marked] = useMarked();
  const choosing = useOpenState((s) => s.choosing);
  const typed = useTargets();
  const style = (of?.project.style || "inches") as Style;
  const phone = usePhone();
  const now = useMemo(() => {
    const frame = plan?.frames[0];
    if (!plan || !frame || !of) return undefined;
    const targets = targetsOf(of.project, starters, plan, none);
    const paint = lens.paint({ frame, picked, style, plan, marked, targets, choosing });
    // a phone has room for the frame or for its sizes: only the one that is picked is written on it
    const sizes = phone ? paint.sizes.filter((s) => picked?.is === "size" && picked.id === s.id) : paint.sizes;
    return { frame, targets, picked, style, paint: { ...paint, sizes, tags: [...findingTags(plan.findings, frame, 0), ...paint.tags] } };
  }, [plan, of, lens, starters, picked, style, phone, marked, choosing]);
  const shown = useDeferredValue(now);
  // keys are pressed faster than a large picture follows: each goes on from what is picked now
  const latest = useRef(now);
  latest.current = now && { ...now, picked: picks };
  const dark = useTheme() === "dark";
  const still = useStill();
  const live = (t: Target) => typed.find((x) => x.key === t.key) ?? t;
  const desk = open.documents;
  const onRing = useStable((r: { joint: string; pipe: string; cemented: boolean }) => {
    const mode = r.cemented ? "slip" : "cemented";
    const called = latest.current ? namesOf(latest.current.frame).short(r.joint) : r.joint;
    desk.edit(`${called}: ${modeWords(mode)}`, (p) => hold(p, { joint: r.joint, pipe: r.pipe }, mode));
  });
  const onTarget = useStable((t: Target, text: string, on: Subject) =>
    desk.edit(
      `${t.label} ${text}`,
      (p) => t.set(p, { ...live(t).answer, text, unit: unitOf(style), of: live(t).answer.of ?? t.sized?.between }),
      on,
    ),
  );
  const onMeaning = useStable((t: Target, m: string) =>
    desk.edit(`${t.label}, ${meaning(m)}`, (p) => t.set(p, { ...live(t).answer, meaning: m, of: live(t).answer.of ?? t.sized?.between })),
  );
  const onAct = useStable(() => lens.keys?.space?.(open));
  const onWay = useStable(open.toWay);
  const onPull = useStable((axis: number, plane: string, by: number, on: Held) =>
    open.gestures.pull({ bay: { axis, plane, pull: by } }, on),
  );
  const onEnter = useStable(() => lens.keys?.enter?.(open));
  const onDelete = useStable(() => lens.keys?.remove?.(open));
  if (!shown) return null;
  return (
    <FrameView
      {...shown}
      latest={latest}
      dark={dark}
      still={still}
      flat={props.flat}
      perspective={props.perspective}
      drawing={drawing}
      onDrawn={open.planner.draw}
      onPick={open.pick}
      onRing={onRing}
      acts={lens.keys?.space !== undefined}
      onAct={onAct}
      onPerspective={props.onPerspective}
      onFix={open.fix}
      onTarget={onTarget}
      onMeaning={onMeaning}
      onSettle={desk.settle}
      onWay={onWay}
      onPull={onPull}
      onDrop={open.gestures.drop}
      onEnter={lens.keys?.enter && lens.keys.enter !== lens.keys.space ? onEnter : undefined}
      onDelete={lens.keys?.remove && onDelete}
      onView={props.onView}
    />
  );
}
