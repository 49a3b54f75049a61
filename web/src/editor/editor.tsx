import { useQueryClient } from "@tanstack/react-query";
import { Tabs } from "radix-ui";
import { Suspense, useCallback, useEffect, useMemo, useState } from "react";
import { Link, useLocation } from "wouter";
import { useStore } from "zustand";
import { Refusal } from "../api/client";
import { firstOf } from "../desk/first";
import { OpenProject } from "../desk/open-project";
import { useOpened } from "../desk/use-opened";
import { OpenProjectProvider, useOpen, useOpenState, usePlanned, useProject, useStarters, useStyle } from "../desk/use";
import { byLetter, itemsOf } from "../frame/items";
import type { View } from "../frame/scene/rig";
import { type LensId, keyOf } from "../lens/lens";
import { lenses } from "../lens/lenses";
import { LiveTargets } from "../lens/size/live";
import { Targets } from "../lens/size/sheet";
import { targetsOf } from "../lens/size/targets";
import { toWaiting, toWalk } from "../lens/frame";
import { fetchLater, later } from "../lib/later";
import { useSwitch } from "../lib/stored";
import { useNarrow } from "../lib/theme";
import { Cautions } from "../ui/cautions";
import { Guard } from "../ui/guard";
import { Failure, Loading, TopBar } from "../ui/ui";
import { ShownAs } from "../ui/why";
import { commandsOf } from "./command-list";
import { EditorBar } from "./editor-bar";
import { FrameStage } from "./frame-stage";
import { Ask } from "./question";
import { Stale } from "./stale";
import { Stages } from "./stages";
import { Tape } from "./tape";
import { Trouble } from "./trouble";
import { Unfinished } from "./unfinished";
import { useKeys } from "./use-keys";

const Help = later(() => import("./help"));
const NewerFigures = later(() => import("./newer-figures"));
const Commands = later(() => import("./commands"));

/** One project: the frame stays in view, the lens asks one question, the tape answers. */
export function Editor({ id, lens }: { id: string; lens: LensId }) {
  const client = useQueryClient();
  const open = useOpened(
    () => new OpenProject(client, id),
    [client, id],
    () => firstOf(id),
  );
  return open ? <Opening of={open} lens={lens} /> : <TopBar />;
}

/** The project while it is read, and once it is. */
function Opening({ of, lens }: { of: OpenProject; lens: LensId }) {
  const failed = useStore(of.store, (s) => s.failed);
  const read = useStore(of.store, (s) => s.history !== undefined);
  if (failed)
    return (
      <>
        <TopBar />
        <Failure why={failed instanceof Refusal ? (failed.problem.detail ?? failed.message) : "The server does not answer."} />
        <Link href="/" className="btn mx-3">
          To the projects
        </Link>
      </>
    );
  if (!read)
    return (
      <>
        <TopBar />
        <Loading what="the project" />
      </>
    );
  return (
    <OpenProjectProvider of={of}>
      <Workbench lens={lens} />
    </OpenProjectProvider>
  );
}

function Workbench({ lens: id }: { lens: LensId }) {
  const open = useOpen();
  const project = useProject();
  const style = useStyle();
  const planned = usePlanned();
  const starters = useStarters();
  const asks = useOpenState((s) => s.asks);
  const other = useOpenState((s) => s.other);
  const [dialog, setDialog] = useState<"help" | "commands">();
  // the browser says later that one is closed: another may be open by then
  const closed = (which: typeof dialog) => setDialog((now) => (now === which ? undefined : now));
  const [perspective, flipPerspective] = useSwitch("perspective");
  const [flat, flipFlat] = useSwitch("flat");
  const [shown, flipShown] = useSwitch("frame-on-phone");
  const [view, setView] = useState<(v: View) => void>();
  const onView = useCallback((f: ((v: View) => void) | undefined) => setView(() => f), []);
  const narrow = useNarrow();
  const [, go] = useLocation();
  const active = lenses.find((l) => l.id === id) ?? lenses[0];
  const toLens = (l: string) => go(`/p/${open.id}/${l}`, { replace: true });
  const toLines = () => {
    toLens("frame");
    toWaiting();
  };
  const toSheet = () => go(`/p/${open.id}/sheet`);

  useEffect(() => {
    document.title = `${project.name || "Without a name"} · Sturdy Elbow`;
  }, [project.name]);

  useEffect(() => {
    const soon = setTimeout(fetchLater, 600); // the turning view is under way by then
    return () => clearTimeout(soon);
  }, []);

  const targets = useMemo(
    () => targetsOf(project, starters, planned.plan, planned.places, planned.repeats),
    [project, starters, planned.plan, planned.places, planned.repeats],
  );
  const commands = () =>
    commandsOf({
      open,
      active,
      toLens,
      toSheet,
      view,
      flipPerspective,
      flipFlat,
      flat,
      help: () => setDialog("help"),
      home: () => go("/"),
    });
  useKeys(
    {
      ...Object.fromEntries(lenses.map((l) => [keyOf(l.id), () => toLens(l.id)])),
      "/": () => setDialog("commands"),
      "?": () => setDialog("help"),
      i: () => {
        toLens("frame");
        toWalk();
      },
      "ctrl+z": open.documents.undo,
      "ctrl+y": open.documents.redo,
      "ctrl+shift+z": open.documents.redo,
      "ctrl+k": () => setDialog("commands"),
      "ctrl+p": toSheet,
    },
    (letter) => {
      const at = open.store.getState();
      const frame = at.planned.plan?.frames[0];
      const next = frame && byLetter(itemsOf(frame, style), at.picked, letter);
      if (!next) return;
      open.pick(next);
      document.querySelector<HTMLElement>(".stage-list")?.focus({ preventScroll: true });
    },
  );
  if (!active) return null;
  const { plan } = planned;
  const ready = plan?.frames[0] !== undefined;
  const folded = narrow && active.phone === "sheet";
  return (
    <ShownAs value={style}>
      <LiveTargets value={targets}>
        <div className="editor">
          <Guard what="The bar of the project" of={[project]}>
            <EditorBar
              ready={ready && !planned.old}
              onCommands={() => setDialog("commands")}
              onHelp={() => setDialog("help")}
              onPrint={toSheet}
            />
          </Guard>
          <Trouble />
          {other && (
            <Stale
              other={other}
              mine={project}
              labels={Object.fromEntries(targets.map((t) => [t.key, t.label]))}
              keep={open.documents.keep}
            />
          )}
          <Tabs.Root value={active.id} onValueChange={toLens} className="editor-work" activationMode="manual">
            <Stages active={active.id} />
            <main className="editor-main">
              <Guard what="The frame" of={[plan, active]}>
                <FrameStage
                  lens={active}
                  hidden={folded && !shown}
                  flat={flat}
                  perspective={perspective}
                  onPerspective={flipPerspective}
                  view={view}
                  onView={onView}
                  onDraw={() => toLens("frame")}
                />
              </Guard>
              <div className="editor-sheet">
                {lenses.map((l) => (
                  <Tabs.Content key={l.id} value={l.id} className="lens-sheet" tabIndex={-1}>
                    {folded && l.phone === "sheet" && (
                      <button type="button" className="btn btn-small self-start" aria-expanded={shown} onClick={flipShown}>
                        {shown ? "Hide the frame" : "Show the frame"}
                      </button>
                    )}
                    {ready && plan && l.id === active.id ? (
                      <Suspense fallback={<Loading what="the sheet" />}>
                        <Suspense>{plan.newer.length > 0 && <NewerFigures />}</Suspense>
                        {l.id !== "frame" && <Unfinished of={plan.frames[0]?.waiting} onGo={toLines} />}
                        <Guard what={`The sheet of ${l.name}`} of={[plan]}>
                          <l.Sheet />
                        </Guard>
                        <Cautions all={plan.cautions} open={l.cautions === "open"} />
                      </Suspense>
                    ) : (
                      planned.old && <Targets />
                    )}
                  </Tabs.Content>
                ))}
              </div>
            </main>
          </Tabs.Root>
          <Guard what="The tape" of={[plan]}>
            <Tape onCut={() => toLens("cut")} onLines={toLines} />
          </Guard>
          <Guard what="What was opened" of={[asks ?? dialog]}>
            <Suspense>
              {asks && <Ask key={asks.question.what} asks={asks} />}
              {dialog === "help" && <Help onClose={() => closed("help")} />}
              {dialog === "commands" && <Commands commands={commands()} onClose={() => closed("commands")} />}
            </Suspense>
          </Guard>
        </div>
      </LiveTargets>
    </ShownAs>
  );
}
