import { useQuery } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { type ComponentProps, Suspense, lazy, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { Link, useLocation } from "wouter";
import { type Edit, type Finding, type Fix, type Plan, Refusal, api, ask } from "../api/client";
import { applyFix } from "../desk/fix";
import type { Desk } from "../desk/history";
import { type DeskOf, useDesk } from "../desk/use-desk";
import { useGesture } from "../desk/use-gesture";
import { useDrawing } from "../desk/use-drawing";
import { type Latest, useLatest, usePlan } from "../desk/use-plan";
import type { Picked } from "../frame/items";
import type { View } from "../frame/scene/rig";
import { BuySheet } from "../lens/buy/sheet";
import { CutSheet } from "../lens/cut/sheet";
import { flipPicked } from "../lens/joints/actions";
import { JointsSheet } from "../lens/joints/sheet";
import type { LensProps } from "../lens/lens";
import { type LensId, lenses } from "../lens/lenses";
import { SizeSheet, Targets } from "../lens/size/sheet";
import { Cautions } from "../ui/cautions";
import { LiveTargets } from "../lens/size/live";
import { targetsOf } from "../lens/size/targets";
import type { Style } from "../lib/format";
import { useSwitch } from "../lib/stored";
import { useNarrow } from "../lib/theme";
import { Icon } from "../ui/icons";
import { Failure, Loading, TopBar } from "../ui/ui";
import { ShownAs } from "../ui/why";
import { EditorBar } from "./editor-bar";
import { EditorFrame } from "./editor-frame";
import { commandsOf } from "./command-list";
import { PickedCard } from "./picked-card";
import { Ask } from "./question";
import { Stale } from "./stale";
import { Tape } from "./tape";
import { useKeys } from "./use-keys";
import { ViewTools } from "./view-tools";

const FrameSheet = lazy(() => import("../lens/frame/sheet"));
const Help = lazy(() => import("./help"));
const Commands = lazy(() => import("./commands"));

/** One project: the frame stays in view, the lens asks one question, the tape answers. */
export function Editor({ id, lens }: { id: string; lens: LensId }) {
  const desk = useDesk(id);
  if (desk.loading)
    return (
      <>
        <TopBar />
        <Failure why={desk.loading instanceof Refusal ? (desk.loading.problem.detail ?? desk.loading.message) : "The server does not answer."} />
        <Link href="/" className="btn mx-3">
          To the projects
        </Link>
      </>
    );
  if (!desk.history)
    return (
      <>
        <TopBar />
        <Loading what="the project" />
      </>
    );
  const { now } = desk.history;
  return (
    <ShownAs value={(now.project.style || "inches") as Style}>
      <OpenProject id={id} lens={lens} desk={desk} now={now} />
    </ShownAs>
  );
}

function OpenProject({ id, lens, desk, now }: { id: string; lens: LensId; desk: DeskOf; now: Desk }) {
  const { project, shop } = now;
  const planned = usePlan(now, desk.onChange);
  const { plan } = planned;
  const frame = plan?.frames[0];
  const style = (project.style || "inches") as Style;
  const starters = useQuery({ queryKey: ["starters"], queryFn: () => ask(api.GET("/api/starters")), staleTime: Number.POSITIVE_INFINITY }).data;
  const [picked, setPicked] = useState<Picked>();
  const [about, setAbout] = useState<string>(); // the pipe that an answer to a question is about
  const [open, setOpen] = useState<"help" | "commands">();
  const [perspective, flipPerspective] = useSwitch("perspective");
  const [flat, flipFlat] = useSwitch("flat");
  const [shown, flipShown] = useSwitch("frame-on-phone");
  const [wantDrawing, setWantDrawing] = useState(false);
  const [view, setView] = useState<(v: View) => void>();
  const narrow = useNarrow();
  const [, go] = useLocation();
  const drawing = useDrawing(wantDrawing ? planned.of : undefined);
  const toLens = useCallback((l: LensId) => go(`/p/${id}/${l}`, { replace: true }), [go, id]);
  const toSheet = useCallback(() => go(`/p/${id}/sheet`), [go, id]);

  useEffect(() => {
    document.title = `${project.name || "Without a name"} · Sturdy Elbow`;
  }, [project.name]);

  const targets = useMemo(() => targetsOf(project, starters, plan, planned.places, planned.repeats), [project, starters, plan, planned.places, planned.repeats]);
  const [marked, setMarked] = useState<string[]>([]);
  const [way, setWay] = useState<string>();
  const gesture = useGesture(desk, (d, keep) => {
    if (keep) return;
    if (d.joint) setPicked({ is: "joint", id: d.joint });
    else if (d.pipe) setPicked({ is: "pipe", id: d.pipe });
    else setPicked(undefined);
  });
  const { run } = gesture;
  const onFix = useCallback(
    (_: Finding, x: Fix) => {
      const made = x.edits.find((e) => e.path === "/gesture");
      if (made) {
        void run(made.value as Edit, { keep: true });
        return;
      }
      const after = applyFix(now, x);
      if (after.shop !== now.shop) desk.editShop(x.label, () => after.shop);
      if (after.project !== now.project) desk.edit(x.label, () => after.project);
    },
    [now, desk, run],
  );
  const onShow = (f: Finding) => {
    const subject = f.subjects.map((s) => s.id).find((s) => frame?.pipes.some((p) => p.pipe === s) || frame?.joints.some((j) => j.id === s));
    if (subject) setPicked({ is: frame?.pipes.some((p) => p.pipe === subject) ? "pipe" : "joint", id: subject });
    else toLens("cut");
  };
  const onView = useCallback((f: ((v: View) => void) | undefined) => setView(() => f), []);
  const needDrawing = useCallback(() => setWantDrawing(true), []);
  const building = lens === "frame";
  const mark = () => picked?.is === "joint" && setMarked((m) => (m.includes(picked.id) ? m.filter((x) => x !== picked.id) : [...m, picked.id]));
  const act = lens === "joints" && frame ? () => flipPicked({ desk, frame, picked }) : building ? mark : undefined;
  const toWalk = useCallback(() => document.querySelector<HTMLInputElement>("[data-walk]")?.focus(), []);
  const erase = () => {
    if (picked?.is === "joint") void run({ delete: { joints: [picked.id] } });
    if (picked?.is === "pipe") void run({ delete: { pipes: [picked.id] } });
  };
  const before = useBefore(desk.history?.since, plan);

  const commands = commandsOf({ desk, now, toLens, toSheet, view, flipPerspective, flipFlat, flat, plan, onFix, help: () => setOpen("help"), home: () => go("/"), setPicked });
  useKeys({
    ...Object.fromEntries(lenses.map((l, i) => [String(i + 1), () => toLens(l.id)])),
    "/": () => setOpen("commands"),
    "?": () => setOpen("help"),
    w: () => {
      toLens("frame");
      requestAnimationFrame(toWalk);
    },
    f: () => document.querySelector<HTMLElement>(".stage-list")?.focus(),
    "ctrl+z": desk.undo,
    "ctrl+y": desk.redo,
    "ctrl+shift+z": desk.redo,
    "ctrl+k": () => setOpen("commands"),
    "ctrl+p": toSheet,
  });

  const lensProps: LensProps | undefined = plan && frame && { desk, project, shop, plan, frame, style, places: planned.places, picked, onPick: setPicked, gesture, marked, onMark: setMarked, way, onWay: setWay };
  const general = Object.entries(planned.places).filter(([k]) => !k.startsWith("body.project.starter.answers.") && !k.startsWith("body.project.sizes."));
  const hideFrame = narrow && (lens === "buy" || lens === "cut") && !shown;
  const labels = Object.fromEntries(targets.map((t) => [t.key, t.label]));
  return (
    <div className="editor">
      <EditorBar desk={desk} now={now} style={style} ready={plan !== undefined && !planned.old} onCommands={() => setOpen("commands")} onHelp={() => setOpen("help")} onPrint={toSheet} />
      {desk.other && <Stale other={desk.other} mine={project} labels={labels} keep={desk.keep} />}
      <main className="editor-main">
        <section aria-label="The frame" className={`editor-frame ${planned.old ? "is-old" : ""}`} hidden={hideFrame}>
          {plan && frame && planned.of ? (
            <>
              <LiveTargets value={targets}>
                <EditorFrame
                  desk={desk}
                  plan={plan}
                  of={planned.of}
                  lens={lens}
                  starters={starters}
                  picked={gesture.asks && about ? { is: "pipe", id: about } : picked}
                  onPick={setPicked}
                  onAct={act}
                  onFix={onFix}
                  flat={flat}
                  perspective={perspective}
                  onPerspective={flipPerspective}
                  drawing={drawing}
                  needDrawing={needDrawing}
                  onView={onView}
                  live={targets}
                  marked={marked}
                  gesture={gesture}
                  onWay={setWay}
                  onEnter={building ? toWalk : undefined}
                  onDelete={building ? erase : undefined}
                />
              </LiveTargets>
              {!building && <PickedCard frame={frame} picked={picked} style={style} onPick={setPicked} onAct={act} />}
              <ViewTools show={view} perspective={perspective} onPerspective={flipPerspective} />
              {lens === "joints" && <Legend />}
              {frame.joints.length === 0 && (
                <p className="stage-empty">
                  {building ? (
                    <>
                      Nothing here yet. Say which way the first pipe runs and how long it is: <strong>right 46</strong>
                    </>
                  ) : (
                    <>
                      Nothing here yet.{" "}
                      <button type="button" className="btn" onClick={() => toLens("frame")}>
                        Draw the first pipe
                      </button>
                    </>
                  )}
                </p>
              )}
            </>
          ) : (
            !planned.failure && general.length === 0 && !planned.old && <Loading what="the frame" />
          )}
          {planned.old && (
            <p role="status" className="editor-note text-warn">
              {plan ? "Shown as it was before the size that cannot be read." : "It is drawn as soon as every size can be read."}
            </p>
          )}
          {general.map(([where, what]) => (
            <p key={where} role="alert" className="editor-note text-bad">
              {what}
            </p>
          ))}
          {planned.failure && <Failure why={planned.failure} />}
        </section>
        <Tabs.Root value={lens} onValueChange={(v) => toLens(v as LensId)} className="editor-sheet" activationMode="manual">
          <Tabs.List className="lens-tabs no-print" aria-label="Lenses, in the order of work">
            {lenses.map((l, i) => (
              <Tabs.Trigger key={l.id} value={l.id} className="lens-tab" title={`${l.asks} (${i + 1})`}>
                <Icon name={l.icon} size={18} />
                <span>{l.name}</span>
                <span className="lens-key" aria-hidden="true">
                  {i + 1}
                </span>
              </Tabs.Trigger>
            ))}
          </Tabs.List>
          {lenses.map((l) => (
            <Tabs.Content key={l.id} value={l.id} className="lens-sheet" tabIndex={-1}>
              {narrow && (l.id === "buy" || l.id === "cut") && (
                <button type="button" className="btn btn-small self-start" aria-expanded={shown} onClick={flipShown}>
                  {shown ? "Hide the frame" : "Show the frame"}
                </button>
              )}
              {lensProps ? (
                <>
                  {l.id === "size" && <SizeSheet {...lensProps} targets={targets} />}
                  {l.id === "frame" && lens === "frame" && (
                    <Suspense fallback={<Loading what="the sheet" />}>
                      <FrameSheet {...lensProps} />
                    </Suspense>
                  )}
                  {l.id === "joints" && <JointsSheet {...lensProps} />}
                  {l.id === "buy" && <BuySheet {...lensProps} />}
                  {l.id === "cut" && <CutSheet {...lensProps} />}
                  <Cautions all={lensProps.plan.cautions} open={l.id === "cut"} />
                </>
              ) : (
                planned.old && <Targets desk={desk} project={project} style={style} picked={picked} onPick={setPicked} targets={targets} />
              )}
            </Tabs.Content>
          ))}
        </Tabs.Root>
      </main>
      <LatestTape latest={planned.latest} before={before} last={desk.history?.last} style={style} onShow={onShow} onFix={onFix} />
      <Suspense>
        {gesture.asks && <Ask key={gesture.asks.question.what} asks={gesture.asks} onPipe={setAbout} />}
        {open === "help" && <Help onClose={() => setOpen(undefined)} />}
        {open === "commands" && <Commands commands={commands} onClose={() => setOpen(undefined)} />}
      </Suspense>
    </div>
  );
}

/** The tape, with the latest plan whatever else is being drawn. */
function LatestTape({ latest, ...rest }: { latest: Latest } & Omit<ComponentProps<typeof Tape>, "plan" | "old">) {
  const { plan, old } = useLatest(latest);
  return plan && <Tape plan={plan} old={old} {...rest} />;
}

/** The plan as it was before the last thing done; a run of changes of one size counts as one thing. */
function useBefore(since: Desk | undefined, plan: Plan | undefined): Plan | undefined {
  const kept = useRef<{ since?: Desk; plan?: Plan }>({});
  if (kept.current.since !== since) kept.current = { since, plan };
  return since ? kept.current.plan : undefined;
}

function Legend() {
  return (
    <ul className="legend" aria-label="How joints are drawn">
      <li>
        <span className="collar-mark" aria-hidden="true" /> closed collar: cemented
      </li>
      <li>
        <span className="ring-mark" aria-hidden="true" /> open ring: dry
      </li>
    </ul>
  );
}
