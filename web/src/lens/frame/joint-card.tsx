import type { ReactNode } from "react";
import type { Joint, PlanFrame } from "../../api/client";
import { jointTitle } from "../../frame/items";
import { kindWords, sizeWords } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { Picture } from "../../ui/picture";
import { useFrame, useMarked, useRun } from "../../desk/use";
import { Refused } from "../refused";
import { FittingMenu, LaterNote } from "./fitting-menu";
import { said } from "./ways";

const ends = [
  ["", "open", "nothing said"],
  ["cap", "capped", "a cap closes it"],
  ["free", "free", "open on purpose"],
  ["stake", "staked", "over a stake in the ground"],
] as const;

/** The joint that is picked: its fitting, its end, and what can be done with it. */
export function JointCard({ joint, children }: { joint: Joint; children?: ReactNode }) {
  const frame = useFrame();
  const gesture = useRun();
  const [marked, onMark] = useMarked();
  const pipes = joint.ports.filter((p) => p.fill === "pipe").length;
  const spare = joint.ports.filter((p) => p.fill !== "pipe");
  const isMarked = marked.includes(joint.id);
  const end = joint.kind === "cap" ? "cap" : (endOf(frame, joint) ?? "");
  return (
    <div className="thing">
      <div className="flex items-center gap-3">
        {joint.kind && <Picture kind={joint.kind} size={42} />}
        <h3 className="min-w-0 flex-1 text-base leading-tight">
          {joint.assumed
            ? "No fitting joins these"
            : joint.kind
              ? `${sizeWords(joint.size)} ${kindWords(joint.kind)}`
              : pipes === 0
                ? "A first joint"
                : "An open end"}
          <span className="block font-sans text-sm font-normal text-ink-2">
            {jointTitle(joint)}
            {spare.length > 0 &&
              `: ${spare.map((p) => `${p.fill === "plug" ? "plugged" : "open"} ${p.known ? said(p.dir) : "either way"}`).join(", ")}`}
          </span>
        </h3>
        <button
          type="button"
          className="btn btn-small"
          aria-pressed={isMarked}
          title="Mark it, to do something with several (M)"
          onClick={() => onMark(isMarked ? marked.filter((m) => m !== joint.id) : [...marked, joint.id])}
        >
          {isMarked ? "Marked" : "Mark"}
        </button>
        <button
          type="button"
          className="icon-btn"
          aria-label={`Delete ${joint.name}`}
          title="Delete it and its pipes; two in line become one (Delete)"
          onClick={() => void gesture.run({ delete: { joints: [joint.id] } })}
        >
          <Icon name="bin" />
        </button>
      </div>
      <div className="mt-1.5 flex flex-wrap items-center gap-2">
        {pipes > 0 && (
          <FittingMenu joints={isMarked && marked.length > 1 ? [joint.id, ...marked.filter((m) => m !== joint.id)] : [joint.id]} />
        )}
        {spare.length > 0 && (
          <button
            type="button"
            className="btn btn-small"
            onClick={() =>
              void gesture.run({
                fit: {
                  joint: joint.id,
                  kind: joint.kind,
                  spare: spare.filter((p) => p.known).map((p) => p.dir),
                  plugged: !spare.some((p) => p.fill === "plug"),
                },
              })
            }
          >
            {spare.some((p) => p.fill === "plug") ? "Unplug" : "Plug it"}
          </button>
        )}
        {spare.some((p) => p.fill === "open") && (
          <button
            type="button"
            className="btn btn-small"
            onClick={() =>
              void gesture.run({
                fit: { joint: joint.id, kind: joint.kind, spare: spare.filter((p) => p.known).map((p) => p.dir), declared: true },
              })
            }
          >
            Open on purpose
          </button>
        )}
        {pipes === 1 && joint.ports.length === 1 && (
          <fieldset className="flex flex-wrap gap-1" aria-label="What is at this end">
            {ends.map(([v, word, note]) => (
              <button
                key={v}
                type="button"
                className="btn btn-small"
                aria-pressed={end === v}
                title={note}
                onClick={() =>
                  void gesture.run(
                    {
                      end: {
                        joint: joint.id,
                        end: v,
                        more: isMarked ? marked.filter((m) => m !== joint.id && isEnd(frame, m)) : undefined,
                      },
                    },
                    { keep: true },
                  )
                }
              >
                {word}
              </button>
            ))}
          </fieldset>
        )}
      </div>
      <LaterNote joint={joint} />
      {children}
      <Refused kinds={["fit", "end", "delete"]} />
    </div>
  );
}

/** Whether a joint is the end of one pipe. */
const isEnd = (frame: PlanFrame, id: string) => frame.joints.some((j) => j.id === id && j.ports.length === 1);

/** What is said of a bare end, as the audit has it. */
function endOf(frame: PlanFrame, j: Joint): string | undefined {
  if (j.kind) return undefined;
  if (frame.ports.bare.includes(j.id)) return "";
  return frame.ports.ends - frame.ports.seated > 0 ? (j.end ?? "") : "";
}
