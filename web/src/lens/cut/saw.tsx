import { useEffect, useRef, useState } from "react";
import type { StickPiece } from "../../api/client";
import { cuttingOne, notDone, withOutgoing } from "../../desk/doing";
import { useOpen, useOpenState, usePlan, useShop, useStyle } from "../../desk/use";
import { INCH, Len, plural, text } from "../../lib/format";
import { sizeWords } from "../../lib/words";
import { Unsent } from "../unsent";
import { MenuHome } from "../../ui/menu";
import { CutByKept, useMayCut } from "./by-kept";
import { CutWrong } from "./cut-wrong";
import { type Step, type Task, stepsOf, tally } from "./steps";
import { leftovers } from "./left-over";
import { Sticks, usualScrap } from "./sticks";

const tasks: [Task, string, string][] = [
  ["cut", "Cut", "Cut it"],
  ["deburred", "Deburr", "Deburred"],
  ["marked", "Mark", "Marked"],
];

/**
 * At the saw: one cut at a time in big figures. The large button, the space bar or a pedal says that it is done and goes on;
 * what is done is on record at once, and on this device until the server has it.
 */
export function Saw({ onClose, onClosed }: { onClose: () => void; onClosed: () => void }) {
  const box = useRef<HTMLDialogElement>(null);
  const main = useRef<HTMLButtonElement>(null);
  const open = useOpen();
  const plan = usePlan();
  const style = useStyle();
  const out = useOpenState((s) => s.outgoing.events);
  const [task, setTask] = useState<Task>("cut");
  const [at, setAt] = useState<string>();
  const [wrong, setWrong] = useState(false);
  const [home, setHome] = useState<HTMLElement | null>(null);
  useEffect(() => {
    const d = box.current;
    if (d && !d.open) d.showModal();
    setHome(d);
    main.current?.focus();
  }, []);
  useAwake();
  const steps = stepsOf(plan, out, task);
  const chosen = steps.findIndex((s) => s.key === at);
  const next = steps.findIndex((s) => !s.done);
  const now = chosen >= 0 ? chosen : next >= 0 ? next : steps.length - 1;
  const step = steps[now];
  const go = (n: number) => {
    setWrong(false);
    setAt(steps[Math.max(0, Math.min(steps.length - 1, n))]?.key);
  };
  const may = useMayCut();
  const act = () => {
    if (!step || wrong || !may) return;
    if (!step.done) {
      if (task === "cut") open.did(cuttingOne(step.of, step.stick, step.piece, out));
      else if (step.event) open.did({ kind: task, item: step.event });
    }
    // on to the next that is not done, from here on
    const after = steps.findIndex((s, i) => i > now && !s.done);
    setAt(after >= 0 ? steps[after]?.key : undefined);
  };
  const left = steps.filter((s) => !s.done).length;
  return (
    <dialog
      ref={box}
      className="saw"
      aria-label="At the saw"
      onClose={() => {
        onClose();
        onClosed();
      }}
      onKeyDown={(e) => {
        const to = e.target as HTMLElement;
        if (to.closest("input, [role=combobox], .menu")) return;
        const free = !to.closest("button, a") || to === main.current;
        if (e.key === "ArrowRight" || e.key === "ArrowDown") go(now + 1);
        else if (e.key === "ArrowLeft" || e.key === "ArrowUp" || e.key === "PageUp") go(now - 1);
        else if (e.key === "PageDown" || (free && (e.key === " " || e.key === "Enter"))) act();
        else return;
        e.preventDefault();
      }}
    >
      <header className="saw-head">
        <fieldset className="saw-tasks" aria-label="What is done">
          {tasks.map(([t, words]) => (
            <button
              key={t}
              type="button"
              className="btn btn-small"
              aria-pressed={task === t}
              onClick={() => {
                setTask(t);
                setAt(undefined);
                setWrong(false);
              }}
            >
              {words}
            </button>
          ))}
        </fieldset>
        <button type="button" className="btn btn-small" onClick={() => box.current?.close()}>
          Leave the saw
        </button>
        <span role="status" className="saw-left">
          {left === 0 ? "all done" : `${plural(left, "piece")} to go`}
        </span>
      </header>
      <Unsent />
      {!step && <p className="saw-none">{task === "cut" ? "There is nothing to cut." : "Nothing is cut yet."}</p>}
      {step && (
        <>
          <Card key={step.key} step={step} steps={steps} task={task} />
          {!may ? (
            <CutByKept />
          ) : wrong ? (
            <MenuHome value={home}>
              <CutWrong key={step.key} step={step} steps={steps} onDone={() => setWrong(false)} />
            </MenuHome>
          ) : (
            <div className="saw-buttons">
              <button type="button" className="btn saw-back" disabled={now === 0} onClick={() => go(now - 1)}>
                Back
              </button>
              <button ref={main} type="button" className="btn btn-main saw-main" onClick={act}>
                {step.done ? (now < steps.length - 1 ? "Next" : "Done") : tasks.find(([t]) => t === task)?.[2]}
              </button>
              <button type="button" className="btn saw-back" disabled={now >= steps.length - 1} onClick={() => go(now + 1)}>
                Skip
              </button>
            </div>
          )}
          {!wrong && may && (
            <p className="saw-more">
              {step.done && step.event ? (
                <button
                  type="button"
                  className="btn"
                  onClick={() => {
                    const event = task === "cut" ? step.event : readyEvent(out, task, step.event);
                    if (event) open.say(notDone(event));
                  }}
                  disabled={task !== "cut" && !readyEvent(out, task, step.event)}
                >
                  Not done after all
                </button>
              ) : null}
              {task === "cut" && (
                <button type="button" className="btn" onClick={() => setWrong(true)}>
                  Cut wrong …
                </button>
              )}
            </p>
          )}
          {task === "cut" && !wrong && <LeftOver near={step} />}
          {task === "cut" && (
            <section aria-label="The stick" className="saw-stick">
              <Sticks sticks={[step.stick]} style={style} before={step.number - 1} isCut={(p) => said(steps, p)} under="marks" />
            </section>
          )}
        </>
      )}
    </dialog>
  );
}

/** What is left of the stick that was finished last, on its way to the rack. */
function LeftOver({ near }: { near?: Step }) {
  const open = useOpen();
  const plan = usePlan();
  const style = useStyle();
  const out = useOpenState((s) => s.outgoing.events);
  const scrap = useShop((s) => s.scrap) || usualScrap;
  const all = plan.pipe.flatMap((t) =>
    leftovers(t.sticks, scrap, withOutgoing(out).isCut).map((s) => ({ size: t.size, stick: s, number: t.sticks.indexOf(s) + 1 })),
  );
  const last = all.findLast((x) => x.size !== near?.of.size || x.number <= near.number) ?? all.at(-1);
  if (!last?.stick.id) return null;
  const { id } = last.stick;
  return (
    <p className="saw-left-over" role="status">
      <span>
        Left of stick {last.number}, {sizeWords(last.size)}:{" "}
        <strong>
          <Len nm={last.stick.left} style={style} step={64} />
        </strong>
      </span>
      <button type="button" className="btn btn-small" onClick={() => open.did({ kind: "racked", item: id })}>
        To the rack
      </button>
      {all.length > 1 && (
        <button
          type="button"
          className="btn btn-small"
          onClick={() => open.did(...all.map((x) => ({ kind: "racked", item: x.stick.id ?? "" })))}
        >
          All {all.length} to the rack
        </button>
      )}
    </p>
  );
}

const said = (steps: Step[], p: StickPiece) =>
  steps.some((s) => s.done && s.piece.frame === p.frame && s.piece.pipe === p.pipe && s.piece.copy === p.copy);

/** What said on this device that a piece is deburred or marked. */
const readyEvent = (out: { kind: string; item?: string; id: string }[], task: Task, event?: string) =>
  out.find((e) => e.kind === task && e.item === event)?.id;

/** One piece in big figures: how long, which one, where the stop or the mark is, and what to mind. */
function Card({ step: s, steps, task }: { step: Step; steps: Step[]; task: Task }) {
  const plan = usePlan();
  const style = useStyle();
  const line = plan.cuts.find((g) => g.letter === s.piece.name);
  const frame = plan.frames[s.piece.frame];
  const copies = frame?.copies ?? 1;
  const pipe = frame?.pipes.find((p) => (p.was ?? p.pipe) === s.piece.pipe);
  const [done, all] = tally(steps, s.piece.name, s.of.size);
  const sticks = new Set(steps.filter((x) => x.of.size === s.of.size).map((x) => x.number)).size;
  return (
    <section className={`saw-card ${s.done ? "is-done" : ""}`} aria-label="This cut" aria-live="polite">
      <p className="saw-where">
        {task === "cut" && (
          <>
            stick {s.number} of {sticks}, {sizeWords(s.of.size)} pipe, {text(s.stick.length, "feet-inches", 64)}
            {s.stick.origin === "rack" ? " from the rack" : s.stick.origin === "home" ? " from home" : ""}
          </>
        )}
        {task !== "cut" && `${sizeWords(s.of.size)} pipe`}
      </p>
      <p className="saw-figure">
        <span className="saw-letter">{s.piece.name}</span>
        <strong>
          <Len nm={s.piece.length} style={style} step={64} />
        </strong>
      </p>
      <p className="saw-where">
        {plan.frames.length > 1 && `${frame?.name || "Without a name"}: `}
        {pipe?.where ?? ""}
        {copies > 1 && `, copy ${s.piece.copy} of ${copies}`}
        <span className="saw-count">
          {s.piece.name}: {done} of {all} {task === "cut" ? "cut" : task}
        </span>
      </p>
      {task === "cut" && (
        <p className="saw-stop">
          {s.stopStays ? (
            "The stop stays where it is"
          ) : (
            <>
              Set the stop to <Len nm={s.piece.length} style={style} step={64} />
            </>
          )}
          {s.at > 0 && (
            <>
              ; or mark at <Len nm={s.piece.at} style={style} step={64} /> from the end cut first.
            </>
          )}
        </p>
      )}
      {task === "marked" && pipe && (
        <ul className="saw-stop">
          {frame?.insertions
            .filter((i) => i.pipe && i.spigot === pipe.pipe)
            .map((i) => (
              <li key={i.id}>
                End in {frame.joints.find((j) => j.id === i.joint)?.name ?? i.joint}: mark at <Len nm={i.depth} style={style} step={32} />{" "}
                and <Len nm={i.depth + INCH} style={style} step={32} /> from the end.
              </li>
            ))}
        </ul>
      )}
      {line?.short && task === "cut" && <p className="saw-warn">Under 6″: clamp it, and never hold it by hand at a powered saw.</p>}
      {line?.waits && <p className="saw-warn">Leave it uncut until the rest stands: the length is held in reserve.</p>}
      {s.stick.edge && task === "cut" && <p className="saw-warn">This stick is on a knife edge: measure twice.</p>}
      {s.done && <p className="saw-done">✓ {task === "cut" ? "cut" : task}</p>}
    </section>
  );
}

/** Keeps the screen on while one works, where the browser allows it. */
function useAwake() {
  useEffect(() => {
    let lock: { release: () => Promise<void> } | undefined;
    let over = false;
    const take = async () => {
      try {
        const got = await navigator.wakeLock?.request("screen");
        if (over) void got?.release();
        else lock = got;
      } catch {
        // the screen may go dark: nothing is lost by it
      }
    };
    const again = () => document.visibilityState === "visible" && void take();
    void take();
    document.addEventListener("visibilitychange", again);
    return () => {
      over = true;
      document.removeEventListener("visibilitychange", again);
      void lock?.release();
    };
  }, []);
}
