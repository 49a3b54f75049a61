import { useEffect, useRef, useState } from "react";
import { useStore } from "zustand";
import type { Existing, Plan, StickPiece } from "../../api/client";
import { cuttingOne, notDone, pieceId, withOutgoing } from "../../desk/doing";
import { useOpen, useOpenState, usePlan, useShop, useStyle } from "../../desk/use";
import { INCH, Len, type Style, plural, text } from "../../lib/format";
import { touch } from "../../lib/touch";
import { sizeWords } from "../../lib/words";
import { Unsent } from "../unsent";
import { MenuHome } from "../../ui/menu";
import { CutByKept, useMayCut } from "./by-kept";
import { CutWrong } from "./cut-wrong";
import { type Clamp, type Held, clamped, wholeOf } from "./clamp";
import { Flaw } from "./flaw";
import { leftovers, partAt } from "./left-over";
import { type Step, type Task, after, nowOf, stepsOf, tally, toBuy, usedWhole } from "./steps";
import { TouchBar } from "../../ui/touch-bar";
import { Sticks, asSold, usualScrap } from "./sticks";

const tasks: [Task, string, string][] = [
  ["cut", "Cut", "Cut it"],
  ["deburred", "Deburr", "Deburred"],
  ["marked", "Mark", "Marked"],
];

/**
 * At the saw: one cut at a time in big figures. The large button, the space bar or a pedal says that it is done and goes on;
 * what is done is on record at once, and on this device until the server has it. The stick in the clamp stays as it is until it
 * is cut or put aside, whatever is changed elsewhere meanwhile.
 */
export function Saw({ onClose, onClosed }: { onClose: () => void; onClosed: () => void }) {
  const box = useRef<HTMLDialogElement>(null);
  const main = useRef<HTMLButtonElement>(null);
  const open = useOpen();
  const plan = usePlan();
  const waits = plan.frames.find((f) => f.waiting)?.waiting;
  const style = useStyle();
  const out = useOpenState((s) => s.outgoing.events);
  const [task, setTask] = useState<Task>("cut");
  const [at, setAt] = useState<string>();
  const [wrong, setWrong] = useState(false);
  const [home, setHome] = useState<HTMLElement | null>(null);
  const [kept, setClamp] = useState<Clamp>();
  // the builder said that what is in the clamp is not as it was planned: nothing is cut until there is a plan that knows it
  const [anew, setAnew] = useState<Anew>();
  const lost = useStore(touch, (t) => t.lost);
  const pending = anew !== undefined && !lost && (plan === anew.plan || out.length > 0);
  useEffect(() => {
    const d = box.current;
    if (d && !d.open) d.showModal();
    setHome(d);
    (main.current ?? d?.querySelector<HTMLElement>("[data-accept]"))?.focus();
  }, []);
  useAwake();
  const { held, clamp } = clamped(plan, out, task === "cut" ? kept : undefined); // only for cutting is a stick in the clamp
  const steps = stepsOf(plan, out, task, held);
  const now = nowOf(steps, at, anew?.stick, held?.clamp ?? clamp);
  const step = steps[now];
  // whichever stick is shown is in the clamp
  useEffect(() => {
    if (pending || task !== "cut" || !step || step.stick === held?.clamp.stick) return; // what is held stays as it was put there
    if (step.stick !== kept?.stick || step.of !== kept.of) setClamp({ of: step.of, stick: step.stick });
  }, [pending, task, step, kept, held]);
  const planAnew = (stick?: string) => {
    setClamp(undefined);
    setAt(undefined);
    setWrong(false);
    setAnew({ plan, stick: wholeOf(stick) });
  };
  const go = (to: Step | undefined) => {
    setWrong(false);
    setAt(to?.key);
  };
  const may = useMayCut();
  const pressed = useRef(Number.NEGATIVE_INFINITY);
  const act = (press: { timeStamp: number }) => {
    // one press, one piece: a contact that bounces is no second one, by when it was pressed and not by when a busy page hears of it
    if (!step || wrong || pending || !may || press.timeStamp - pressed.current < bounce) return;
    pressed.current = press.timeStamp;
    if (!step.done) {
      if (task === "cut") open.did(...cuttingOne(step, plan, out));
      else if (step.event) open.did({ kind: task, item: step.event });
    }
    setAt(after(steps, now)?.key);
  };
  const left = steps.filter((s) => !s.done).length;
  const twice =
    task === "cut"
      ? plan.existing.filter((e) => e.twice && !out.some((o) => o.item === e.id || o.event === e.id || o.event === e.twice))
      : [];
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
        const acts = e.key === "PageDown" || (free && (e.key === " " || e.key === "Enter"));
        if (acts && e.repeat) {
          // a key that is held is one press
        } else if (e.key === "ArrowRight" || e.key === "ArrowDown") go(steps[now + 1] ?? step);
        else if (e.key === "ArrowLeft" || e.key === "ArrowUp" || e.key === "PageUp") go(steps[now - 1] ?? step);
        else if (acts) act(e);
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
      {waits && (
        <p role="alert" className="saw-changed">
          <strong>Unfinished: {waits.words}.</strong> These are the pieces of the part that is drawn.
        </p>
      )}
      {may && <TouchBar />}
      <Unsent />
      {twice.map((e) => (
        <CutTwice key={e.id} of={e} />
      ))}
      {held && (
        <Changed
          held={held}
          onTake={() => {
            setClamp(undefined);
            setAt(undefined);
            setWrong(false);
          }}
        />
      )}
      {!step && <p className="saw-none">{task === "cut" ? "There is nothing to cut." : "Nothing is cut yet."}</p>}
      {pending && (
        <p role="status" className="saw-none">
          Planning anew with the pipe as it is …
        </p>
      )}
      {step && !pending && (
        <>
          <Card key={step.key} step={step} steps={steps} task={task} held={held} />
          {!may ? (
            <CutByKept />
          ) : wrong ? (
            <MenuHome value={home}>
              <CutWrong key={step.key} step={step} steps={steps} onSaid={planAnew} onLeave={() => setWrong(false)} />
            </MenuHome>
          ) : (
            <div className="saw-buttons">
              <button type="button" className="btn saw-back" disabled={now === 0} onClick={() => go(steps[now - 1])}>
                Back
              </button>
              <button ref={main} type="button" className="btn btn-main saw-main" onClick={act}>
                {step.done
                  ? left > 0
                    ? "Next"
                    : "Done"
                  : task === "cut" && usedWhole(step.stick)
                    ? "Take it"
                    : tasks.find(([t]) => t === task)?.[2]}
              </button>
              <button
                type="button"
                className="btn saw-back"
                disabled={after(steps, now) === undefined}
                title={after(steps, now) === undefined ? "This is the last piece" : undefined}
                onClick={() => go(after(steps, now))}
              >
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
              {task === "cut" && <Flaw step={step} onSaid={planAnew} />}
            </p>
          )}
          {task === "cut" && !wrong && <LeftOver near={step} />}
          {task === "cut" && (
            <section aria-label="The stick" className="saw-stick">
              <Sticks sticks={[step.stick]} style={style} isCut={(p) => said(steps, p)} under="marks" />
            </section>
          )}
        </>
      )}
    </dialog>
  );
}

/** By which plan it was said that the pipe is otherwise, and of which stick. */
interface Anew {
  plan: Plan;
  stick?: string;
}

const bounce = 250; // ms within which a second press is the first one's

/** What the plan has otherwise than the stick in the clamp, said at once; the builder takes it on when the stick is done, or now. */
function Changed({ held, onTake }: { held: Held; onTake: () => void }) {
  const style = useStyle();
  const n = held.otherwise.length;
  return (
    <div role="alert" className="saw-changed">
      <p>
        <strong>The plan changed.</strong>{" "}
        {n === 0 ? (
          "This stick goes on as it is; the new plan comes with the next one."
        ) : (
          <>
            Stick {held.clamp.stick.number} is shown as it was put in the clamp. {plural(n, "piece")} of it {n > 1 ? "are" : "is"} otherwise
            now:{" "}
            {held.otherwise.map(({ piece, now }, i) => (
              <span key={`${piece.pipe} ${piece.copy} ${piece.frame}`}>
                {i > 0 && ", "}
                {piece.name} {now ? <Len nm={now} style={style} step={64} /> : "is not needed any more"}
              </span>
            ))}
            .
          </>
        )}
      </p>
      <button type="button" className={`btn ${n > 0 ? "btn-main" : ""}`} onClick={onTake}>
        Put it aside, and take the new plan
      </button>
    </div>
  );
}

/** A piece that two devices say they cut: nothing is planned from the second, and nothing bought for it, until somebody decides. */
function CutTwice({ of: e }: { of: Existing }) {
  const open = useOpen();
  const plan = usePlan();
  const first = plan.existing.find((x) => x.id === e.twice);
  return (
    <div role="alert" className="saw-changed">
      <p>
        <strong>
          {e.letter} {plan.frames[e.frame ?? 0]?.pipes.find((p) => (p.was ?? p.pipe) === e.pipe)?.where}
        </strong>{" "}
        is said to be cut twice: {first?.device || "one device"} says so, and {e.device || "another"}.
      </p>
      <span className="flex flex-wrap gap-2">
        <button type="button" className="btn" onClick={() => open.say(notDone(e.id))}>
          It was one cut
        </button>
        <button type="button" className="btn" onClick={() => open.say({ kind: "both-cut", item: e.id })}>
          There are two pieces
        </button>
      </span>
    </div>
  );
}

/** What is left of the stick that was finished last, on its way to the rack. */
function LeftOver({ near }: { near?: Step }) {
  const open = useOpen();
  const plan = usePlan();
  const style = useStyle();
  const out = useOpenState((s) => s.outgoing.events);
  const scrap = useShop((s) => s.scrap) || usualScrap;
  const all = plan.pipe.flatMap((t) => leftovers(t.sticks, scrap, withOutgoing(out).isCut).map((x) => ({ size: t.size, ...x })));
  const last = all.findLast((x) => x.size !== near?.of.size || x.number <= (near?.stick.number ?? 0)) ?? all.at(-1);
  if (!last) return null;
  const { id } = last;
  return (
    <p className="saw-left-over" role="status">
      <span>
        Left of stick {last.number}, {sizeWords(last.size)}:{" "}
        <strong>
          <Len nm={last.left} style={style} step={64} />
        </strong>
      </span>
      <button type="button" className="btn btn-small" onClick={() => open.did({ kind: "racked", item: id })}>
        To the rack
      </button>
      {all.length > 1 && (
        <button type="button" className="btn btn-small" onClick={() => open.did(...all.map((x) => ({ kind: "racked", item: x.id })))}>
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
function Card({ step: s, steps, task, held }: { step: Step; steps: Step[]; task: Task; held?: Held }) {
  const plan = usePlan();
  const style = useStyle();
  const line = plan.cuts.find((g) => g.letter === s.piece.name);
  const frame = plan.frames[s.piece.frame];
  const copies = frame?.copies ?? 1;
  const pipe = frame?.pipes.find((p) => (p.was ?? p.pipe) === s.piece.pipe);
  const [done, all] = tally(steps, plan, task, s.piece.name, s.of.size);
  const toGo = new Set(steps.filter((x) => x.of.size === s.of.size && !x.done).map((x) => x.stick)).size;
  const otherwise = held?.otherwise.find((x) => pieceId(x.piece) === pieceId(s.piece));
  return (
    <section className={`saw-card ${s.done ? "is-done" : ""}`} aria-label="This cut" aria-live="polite">
      <p className="saw-where">
        {task === "cut" && (
          <>
            stick {s.stick.number}, {sizeWords(s.of.size)} pipe, {lengthOf(s, style)}
            {s.stick.origin === "rack" ? " from the rack" : s.stick.origin === "home" ? " from home" : ""}
            {toBuy(s.stick) && plan.totals.bought > 0 && ", to be bought"}; {plural(toGo, "stick")} to go
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
          {usedWhole(s.stick) ? (
            "Used whole: nothing is cut of it"
          ) : s.stopStays ? (
            "The stop stays where it is"
          ) : (
            <>
              Set the stop to <Len nm={s.piece.length} style={style} step={64} />
            </>
          )}
          {s.at > 0 && (
            <>
              ; or mark at <Len nm={s.piece.at} style={style} step={64} /> from the end{" "}
              {s.stick.pieces.some((p) => p.cut) ? "that is left" : "cut first"}.
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
      {otherwise && !s.done && (
        <p className="saw-warn">
          {otherwise.now ? (
            <>
              The plan has <Len nm={otherwise.now} style={style} step={64} /> here now.
            </>
          ) : (
            "The plan does not need it any more."
          )}
        </p>
      )}
      {line?.short && task === "cut" && <p className="saw-warn">Under 6″: clamp it, and never hold it by hand at a powered saw.</p>}
      {line?.waits && <p className="saw-warn">Leave it uncut until the rest stands: the length is held in reserve.</p>}
      {s.stick.edge && task === "cut" && <p className="saw-warn">This stick is on a knife edge: measure twice.</p>}
      {s.done && <p className="saw-done">✓ {task === "cut" ? "cut" : task}</p>}
    </section>
  );
}

/** How long what is in the clamp is: a part of a stick is named as long as it is. */
function lengthOf(s: Step, style: Style): string {
  const part = partAt(s.stick, s.at);
  if (part) return `the part of ${text(part.length, style, 64)}`;
  return text(s.stick.true || s.stick.length, asSold.includes(s.stick.origin) ? "feet-inches" : style, 64);
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
