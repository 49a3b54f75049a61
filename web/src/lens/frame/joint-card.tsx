import { useQuery } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { type ReactNode, useState } from "react";
import { type Choice, type Joint, type PlanFrame, api, ask } from "../../api/client";
import { jointTitle } from "../../frame/items";
import { kindWords, sizeWords } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { Picture } from "../../ui/picture";
import { Loading } from "../../ui/ui";
import { useFrame, useMarked, useProject, useRun } from "../../desk/use";
import { Refused } from "../refused";
import { said } from "./ways";
import { Menu } from "../../ui/menu";

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
        {pipes > 0 && <FittingMenu joint={joint} />}
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
                onClick={() => void gesture.run({ end: { joint: joint.id, end: v } }, { keep: true })}
              >
                {word}
              </button>
            ))}
          </fieldset>
        )}
      </div>
      {children}
      <Refused kinds={["fit", "end", "delete"]} />
    </div>
  );
}

/** What is said of a bare end, as the audit has it. */
function endOf(frame: PlanFrame, j: Joint): string | undefined {
  if (j.kind) return undefined;
  if (frame.ports.bare.includes(j.id)) return "";
  return frame.ports.ends - frame.ports.seated > 0 ? (j.end ?? "") : "";
}

/** Another fitting, and which way its spare ports point. */
function FittingMenu({ joint }: { joint: Joint }) {
  const project = useProject();
  const gesture = useRun();
  const [open, setOpen] = useState(false);
  const choices = useQuery({
    queryKey: ["choices", project.frame, project.starter, joint.id, project.sizes],
    queryFn: () => ask(api.POST("/api/choices", { body: { project, joint: joint.id } })),
    enabled: open,
  });
  const choose = (c?: Choice) => void gesture.run({ fit: { joint: joint.id, kind: c?.kind, spare: c?.spare } }, { keep: true });
  return (
    <DropdownMenu.Root modal={false} open={open} onOpenChange={setOpen}>
      <DropdownMenu.Trigger className="btn btn-small">
        Another fitting <Icon name="chevron" size={14} />
      </DropdownMenu.Trigger>
      <Menu aria-label="Fittings that could stand here">
        {choices.isPending && <Loading what="the fittings" />}
        <DropdownMenu.Item className="menu-item" onSelect={() => choose()}>
          <span className="menu-mark" />
          <span>
            The usual one<span className="block text-xs text-ink-2">what the pipes alone ask for</span>
          </span>
        </DropdownMenu.Item>
        {choices.data?.map((c) => (
          <DropdownMenu.Item key={`${c.kind} ${c.spare.join(" ")}`} className="menu-item" onSelect={() => choose(c)}>
            <Picture kind={c.kind} size={30} />
            <span>
              {kindWords(c.kind)}
              <span className="block text-xs text-ink-2">spare {c.spare.map(said).join(", ")}</span>
            </span>
          </DropdownMenu.Item>
        ))}
      </Menu>
    </DropdownMenu.Root>
  );
}
