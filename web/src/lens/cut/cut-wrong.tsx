import { useMutation } from "@tanstack/react-query";
import { useId, useState } from "react";
import { useStore } from "zustand";
import { type BadCut, type DoneEvent, Refusal, api, ask } from "../../api/client";
import { newId } from "../../desk/device";
import { cuttingOne, spoiling } from "../../desk/doing";
import type { ToDo } from "../../desk/record";
import { badCutOf } from "../../desk/server";
import { useNow, useOpen, useOpenState, usePlan, useStyle } from "../../desk/use";
import { Len, money, plural, text, unitOf } from "../../lib/format";
import { touch } from "../../lib/touch";
import { sizeWords } from "../../lib/words";
import { Pick } from "../../ui/pick";
import type { Step } from "./steps";

/** A cut went wrong: what the piece can still be, what the rest gives, what it costs; or its twins are made the same. */
export function CutWrong({
  step,
  steps,
  onSaid,
  onLeave,
}: {
  step: Step;
  steps: Step[];
  /** It is on record, of this stick. */
  onSaid: (stick?: string) => void;
  onLeave: () => void;
}) {
  const open = useOpen();
  const now = useNow();
  const plan = usePlan();
  const style = useStyle();
  const id = useId();
  const out = useOpenState((s) => s.outgoing.events);
  const outgoing = out.length;
  const [typed, setTyped] = useState("");
  const [copy, setCopy] = useState(step.piece.copy);
  const piece = { ...step.piece, copy };
  const twins = steps.filter((s) => s.piece.pipe === piece.pipe && s.piece.frame === piece.frame && (!s.done || s.piece.copy === copy));
  const read = useMutation({
    mutationFn: async (came: string | undefined): Promise<{ is?: number; bad: BadCut }> => {
      let is: number | undefined;
      if (came !== undefined) {
        const [l] = await ask(api.POST("/api/lengths", { body: { texts: [came], units: unitOf(style), like: "23 5/8" } }));
        is = l;
      }
      const all = is === undefined ? spoiling(step, plan, out) : cuttingOne(step, plan, out, is, copy);
      const events = all.map((e) => ({ ...e, id: newId() })) as DoneEvent[];
      const event = events.pop() as DoneEvent;
      return { is, bad: await badCutOf(now, event, { of: open.id, more: { before: events } }) };
    },
  });
  const found = read.data;
  const why =
    read.error instanceof Refusal
      ? (Object.values(read.error.places)[0] ?? read.error.message)
      : read.error
        ? "The server does not answer: what it can still be is not known. Lay it by, and say it later; or it is of no use."
        : undefined;
  const lost = useStore(touch, (t) => t.lost);
  const say = (events: ToDo[]) => {
    open.did(...events);
    onSaid(events.at(-1)?.stick?.id);
  };
  const keep = (is: number) => say(cuttingOne(step, plan, out, is, copy));
  const spoil = () => say(spoiling(step, plan, out));
  const longer = found?.is !== undefined && found.is > step.piece.length;
  const need = found ? Object.entries(found.bad.need).filter(([, n]) => n !== 0) : [];
  const costs = found
    ? need.length === 0 && found.bad.cost === 0
      ? "Nothing more is bought: the rest of the sticks gives it once more."
      : `It costs ${[...need.map(([size, n]) => `${plural(Math.abs(n), "stick")} of ${sizeWords(size)} ${n > 0 ? "more" : "less"}`), found.bad.cost ? money(found.bad.cost) : ""].filter(Boolean).join(", ")}.`
    : "";
  return (
    <section className="saw-wrong" aria-label="Cut wrong">
      {step.done && step.event && (
        <p>
          It is on record as cut to <Len nm={step.piece.length} style={style} step={64} />: say “not done after all” first.
        </p>
      )}
      <form
        className="flex flex-wrap items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          read.mutate(typed);
        }}
      >
        <label htmlFor={`${id}-is`} className="font-semibold">
          It came out at
          <input
            id={`${id}-is`}
            className="field mt-1 block w-40 text-xl"
            // biome-ignore lint/a11y/noAutofocus: it is what was asked for
            autoFocus
            autoComplete="off"
            aria-invalid={Boolean(why)}
            aria-describedby={why ? `${id}-why` : undefined}
            value={typed}
            onChange={(e) => {
              setTyped(e.target.value);
              read.reset();
            }}
          />
        </label>
        {twins.length > 1 && (
          <Pick
            label="It is for copy"
            labelled
            value={String(copy)}
            options={twins.map((s) => [String(s.piece.copy), `${s.piece.copy}`] as const)}
            onChange={(v) => {
              setCopy(Number(v));
              read.reset();
            }}
          />
        )}
        <button type="submit" className="btn" disabled={!typed.trim() || read.isPending || step.done || outgoing > 0}>
          What now?
        </button>
        <button
          type="button"
          className="btn"
          disabled={read.isPending || step.done || (outgoing > 0 && !lost)}
          onClick={() => (lost ? spoil() : read.mutate(undefined))}
        >
          It is of no use
        </button>
        <button type="button" className="btn" onClick={onLeave}>
          Leave it
        </button>
      </form>
      {outgoing > 0 && !found && <p className="text-ink-2">Waiting until the cuts before it are with the server …</p>}
      {why && (
        <p id={`${id}-why`} role="alert" className="font-semibold text-bad">
          {why}
        </p>
      )}
      {read.isPending && <p role="status">Planning the rest …</p>}
      {found && (
        <div className="grid gap-2" role="status">
          {found.is !== undefined && (
            <p>
              {longer ? "Trim it: it is longer than it should be." : becomes(found.bad, plan.cuts.length)}
              {found.bad.canBe.length > 0 &&
                ` It can still be ${[...new Set(found.bad.canBe.map((r) => letterOf(plan, r.frame, r.pipe)))].filter(Boolean).join(" or ")}.`}
            </p>
          )}
          <p>
            <strong>{costs}</strong>
          </p>
          <p className="flex flex-wrap gap-2">
            {found.is !== undefined && (
              <button type="button" className="btn btn-main" onClick={() => keep(found.is ?? 0)}>
                Keep it, {text(found.is, style, 64)} long
              </button>
            )}
            <button type="button" className={`btn ${found.is === undefined ? "btn-main" : ""}`} onClick={spoil}>
              Throw it away
            </button>
          </p>
          {found.bad.same.map((s) => (
            <p key={s.id} className="flex flex-wrap items-center justify-between gap-2 border-t border-rule pt-2">
              <span className="min-w-56 flex-1">
                Or make its twins the same: {s.label || s.says} becomes <Len nm={s.then} style={style} />
                {s.others.length > 0 && `, and with it ${s.others.join(", ")}`}
                {s.trims ? `; ${plural(s.trims, "piece")} to trim` : ""}
                {s.recut ? `; ${plural(s.recut, "piece that is", "pieces that are")} cut is too short then` : ""}
                {s.cost > 0 ? `; ${money(s.cost)} more` : s.cost < 0 ? `; saves ${money(-s.cost)}` : ""}.
              </span>
              <button
                type="button"
                className="btn btn-fix"
                onClick={() => {
                  keep(found.is ?? 0);
                  open.fix(s.fix, s.frame);
                }}
              >
                {s.fix.label}
              </button>
            </p>
          ))}
        </div>
      )}
    </section>
  );
}

const letterOf = (plan: { cuts: { letter: string; pipes: { frame: number; pipe: string }[] }[] }, frame: number, pipe: string) =>
  plan.cuts.find((g) => g.pipes.some((p) => p.frame === frame && p.pipe === pipe))?.letter ?? "";

/** What the best plan for the rest makes of a wrong piece. */
function becomes(b: BadCut, letters: number): string {
  if (b.fate === "keep") return b.as && b.as !== b.letter ? `It is a ${b.as} as it stands.` : "It will do as it is.";
  if (b.fate === "trim") return `It is trimmed to a ${b.as}.`;
  if (b.used) return "Others are cut from it.";
  return letters > 0 ? "It goes to the offcuts." : "";
}
