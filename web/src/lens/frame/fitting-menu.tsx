import { useQuery } from "@tanstack/react-query";
import { DropdownMenu } from "radix-ui";
import { useState } from "react";
import { type Choice, type Joint, api, ask } from "../../api/client";
import { useOpen, useProject, useRun, useStyle } from "../../desk/use";
import { Named } from "../../frame/named";
import { Len, money, plural } from "../../lib/format";
import { kindWords } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { Menu } from "../../ui/menu";
import { Picture } from "../../ui/picture";
import { Loading } from "../../ui/ui";
import { said } from "./ways";

/** Another fitting for a joint, or for all that are marked, and which way its spare ports point: shown on the frame while it is chosen. */
export function FittingMenu({ joints }: { joints: string[] }) {
  const project = useProject();
  const open = useOpen();
  const gesture = useRun();
  const [shown, setShown] = useState(false);
  const [later, setLater] = useState(false);
  const [joint = "", ...more] = joints;
  const choices = useQuery({
    queryKey: ["choices", project.frame, project.starter, joints, project.sizes],
    queryFn: () => ask(api.POST("/api/choices", { body: { project, joint, more } })),
    enabled: shown,
  });
  const look = (c?: Choice) => open.store.setState({ choosing: c && { joints, spare: c.spare } });
  const choose = (c?: Choice) => {
    look();
    void gesture.run(
      { fit: { joint, more: more.length > 0 ? more : undefined, kind: c?.kind, spare: c?.spare, later: later || undefined } },
      { keep: true },
    );
  };
  return (
    <DropdownMenu.Root
      modal={false}
      open={shown}
      onOpenChange={(on) => {
        setShown(on);
        if (!on) look();
      }}
    >
      <DropdownMenu.Trigger className="btn btn-small">
        {more.length > 0 ? `A fitting for all ${joints.length} marked` : "Another fitting"} <Icon name="chevron" size={14} />
      </DropdownMenu.Trigger>
      <Menu aria-label="Fittings that could stand here">
        <DropdownMenu.CheckboxItem
          className="menu-item"
          checked={later}
          onCheckedChange={(on) => setLater(on)}
          onSelect={(e) => e.preventDefault()}
        >
          <span className="menu-mark">{later && <Icon name="check" size={16} />}</span>
          <span>
            Only later, perhaps<span className="block text-xs text-ink-2">what is there now stays; what would change is told</span>
          </span>
        </DropdownMenu.CheckboxItem>
        {choices.isPending && <Loading what="the fittings" />}
        <DropdownMenu.Item className="menu-item" onFocus={() => look()} onSelect={() => choose()}>
          <span className="menu-mark" />
          <span>
            {later ? "Nothing, after all" : "The usual one"}
            <span className="block text-xs text-ink-2">{later ? "it stays what it is" : "what the pipes alone ask for"}</span>
          </span>
        </DropdownMenu.Item>
        {choices.data?.length === 0 && (
          <p className="px-3 py-1 text-sm text-ink-2">
            {more.length > 0 ? "No fitting points the same way at all of them: mark fewer." : "No other fitting could stand here."}
          </p>
        )}
        {choices.data?.map((c) => (
          <DropdownMenu.Item
            key={`${c.kind} ${c.spare.join(" ")}`}
            className="menu-item"
            onFocus={() => look(c)}
            onPointerEnter={() => look(c)}
            onSelect={() => choose(c)}
          >
            <Picture kind={c.kind} size={30} />
            <span>
              {kindWords(c.kind)}
              <span className="block text-xs text-ink-2">
                {c.spare.length > 0 ? `spare ${c.spare.map(said).join(", ")}` : "of your own"}
              </span>
            </span>
          </DropdownMenu.Item>
        ))}
      </Menu>
    </DropdownMenu.Root>
  );
}

/** What may stand at a joint one day, and what changes then: cuts, size, sticks. */
export function LaterNote({ joint }: { joint: Joint }) {
  const project = useProject();
  const style = useStyle();
  const gesture = useRun();
  const kind = joint.later;
  const read = useQuery({
    queryKey: ["later", project.frame, project.starter, project.sizes, joint.id],
    queryFn: () => ask(api.POST("/api/later", { body: { project, joint: joint.id } })),
    enabled: Boolean(kind),
  });
  if (!kind) return null;
  const l = read.data?.later;
  const grows = (l?.grows ?? []).map((nm, a) => [nm, ["wide", "deep", "high"][a]] as const).filter(([nm]) => nm !== 0);
  const nothing = l && l.cuts.length === 0 && grows.length === 0 && l.sticks === 0;
  return (
    <div className="note mt-2 text-sm">
      <p>
        It may become a <strong>{kindWords(kind)}</strong> one day. {read.isPending && "Working out what changes then."}
        {read.error && "What changes then could not be worked out."}
        {nothing && "No piece changes then: only the fitting."}
      </p>
      {l && !nothing && (
        <ul>
          {l.cuts.slice(0, 6).map((c) => (
            <li key={c.pipe}>
              <Named id={c.pipe} /> is cut <Len nm={c.now} style={style} step={64} /> then, not <Len nm={c.was} style={style} step={64} />
            </li>
          ))}
          {grows.map(([nm, word]) => (
            <li key={word}>
              it is <Len nm={Math.abs(nm)} style={style} step={64} /> {nm > 0 ? "more" : "less"} {word}
            </li>
          ))}
          {l.sticks !== 0 && (
            <li>
              {plural(Math.abs(l.sticks), "stick")} {l.sticks > 0 ? "more" : "fewer"}
              {l.cost !== 0 && `, ${money(Math.abs(l.cost))} ${l.cost > 0 ? "more" : "less"}`}
            </li>
          )}
        </ul>
      )}
      <button
        type="button"
        className="btn btn-small mt-1"
        onClick={() => void gesture.run({ fit: { joint: joint.id, later: true } }, { keep: true })}
      >
        Not after all
      </button>
    </div>
  );
}
