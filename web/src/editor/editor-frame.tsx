import { useDeferredValue, useMemo, useRef } from "react";
import type { Finding, Fix, Plan, Starter } from "../api/client";
import type { Desk } from "../desk/history";
import { hold, modeWords } from "../desk/mode-rules";
import type { DeskOf } from "../desk/use-desk";
import type { Gesture } from "../desk/use-gesture";
import { FrameView } from "../frame/frame-view";
import type { Picked } from "../frame/items";
import { findingTags } from "../frame/paint";
import type { View } from "../frame/scene/rig";
import { type LensId, lenses } from "../lens/lenses";
import { type Target, targetsOf, unitOf } from "../lens/size/targets";
import { type Style, meaning } from "../lib/format";
import { usePhone, useStill, useTheme } from "../lib/theme";
import { useStable } from "../lib/use-stable";

interface Props {
  desk: DeskOf;
  plan: Plan;
  /** The desk that the plan is of. */
  of: Desk;
  lens: LensId;
  starters?: Starter[];
  picked: Picked;
  onPick: (p: Picked) => void;
  onAct?: () => void;
  onFix: (f: Finding, x: Fix) => void;
  flat: boolean;
  perspective: boolean;
  onPerspective: () => void;
  drawing?: string;
  needDrawing: () => void;
  onView: (show: ((v: View) => void) | undefined) => void;
  /** The sizes as they are typed. */
  live: Target[];
  marked: string[];
  gesture: Gesture;
  onWay: (way: string) => void;
  onEnter?: () => void;
  onDelete?: () => void;
}

const none = {};

/**
 * The frame as the lens paints it. The tape and the sheet answer a change
 * first; the picture follows, and is touched by nothing but a new plan, pick,
 * lens or look.
 */
export function EditorFrame(props: Props) {
  const { desk, plan, of, lens, starters, picked, marked, gesture } = props;
  const style = (of.project.style || "inches") as Style;
  const phone = usePhone();
  const now = useMemo(() => {
    const frame = plan.frames[0];
    const active = lenses.find((l) => l.id === lens);
    if (!frame || !active) return undefined;
    const targets = targetsOf(of.project, starters, plan, none);
    const paint = active.paint({ frame, picked, style, plan, marked }, targets);
    // a phone has room for the frame or for its sizes: only the one that is picked is written on it
    const sizes = phone ? paint.sizes.filter((s) => picked?.is === "size" && picked.id === s.id) : paint.sizes;
    return { frame, targets, picked, style, paint: { ...paint, sizes, tags: [...findingTags(plan.findings, frame, 0), ...paint.tags] } };
  }, [plan, of, lens, starters, picked, style, phone, marked]);
  const shown = useDeferredValue(now);
  // keys are pressed faster than a large picture follows: each goes on from what is picked now
  const latest = useRef(now);
  latest.current = now;
  const dark = useTheme() === "dark";
  const still = useStill();
  const live = (t: Target) => props.live.find((x) => x.key === t.key) ?? t;
  const onRing = useStable((r: { joint: string; pipe: string; cemented: boolean }) => {
    const mode = r.cemented ? "slip" : "cemented";
    desk.edit(`${r.joint}: ${modeWords(mode)}`, (p) => hold(p, { joint: r.joint, pipe: r.pipe }, mode));
  });
  const onTarget = useStable((t: Target, text: string, on: string) => desk.edit(`${t.label} ${text}`, (p) => t.set(p, { ...live(t).answer, text, unit: unitOf(style) }), on));
  const onMeaning = useStable((t: Target, m: string) => desk.edit(`${t.label}, ${meaning(m)}`, (p) => t.set(p, { ...live(t).answer, meaning: m })));
  const onAct = useStable(() => props.onAct?.());
  const onFix = useStable(props.onFix);
  const onWay = useStable(props.onWay);
  const onPull = useStable((axis: number, plane: string, by: number, on: string) => gesture.pull({ bay: { axis, plane, pull: by } }, on));
  const onDrop = useStable(() => gesture.drop());
  const onEnter = useStable(() => props.onEnter?.());
  const onDelete = useStable(() => props.onDelete?.());
  const onPick = useStable(props.onPick);
  if (!shown) return null;
  return (
    <FrameView
      {...shown}
      latest={latest}
      dark={dark}
      still={still}
      flat={props.flat}
      perspective={props.perspective}
      drawing={props.drawing}
      needDrawing={props.needDrawing}
      onPick={onPick}
      onRing={onRing}
      acts={props.onAct !== undefined}
      onAct={onAct}
      onPerspective={props.onPerspective}
      onFix={onFix}
      onTarget={onTarget}
      onMeaning={onMeaning}
      onSettle={desk.settle}
      onWay={onWay}
      onPull={onPull}
      onDrop={onDrop}
      onEnter={props.onEnter && onEnter}
      onDelete={props.onDelete && onDelete}
      onView={props.onView}
    />
  );
}
