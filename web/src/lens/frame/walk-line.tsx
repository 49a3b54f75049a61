import { useEffect, useId, useMemo, useRef, useState } from "react";
import type { Joint, PlanFrame } from "../../api/client";
import { jointTitle } from "../../frame/items";
import { giveBack } from "../../lib/focus";
import { plural } from "../../lib/format";
import { Pick } from "../../ui/pick";
import { useFrame, useMarked, useOpenState, useProject, useRun, useWay } from "../../desk/use";
import { pipeSizes } from "../sizes";
import { Refused } from "../refused";
import { type Nameable, complete, completed } from "./complete";
import { withMore } from "./page";
import { taken, ways, withWay } from "./ways";

/** What a line may name, and which joints lie that way from where it begins. */
function nameable(frame: PlanFrame, from: Joint | undefined): Nameable {
  const toward = (word: string) => {
    const way = ways.find((w) => w.word === word)?.dir;
    if (!way || !from) return [];
    const off = (j: Joint) => {
      const v = j.at.map((x, i) => x - (from.at[i] ?? 0));
      const along = v.reduce((s, x, i) => s + x * (way[i as 0] ?? 0), 0);
      return { along, side: Math.hypot(...v.map((x, i) => x - along * (way[i as 0] ?? 0))) };
    };
    return frame.joints
      .filter((j) => j.id !== from.id && off(j).along > 1e6)
      .sort((a, b) => off(a).side - off(b).side || off(a).along - off(b).along)
      .map((j) => j.name);
  };
  return {
    joints: frame.joints.map((j) => j.name),
    pipes: [...new Set(frame.pipes.map((p) => p.letter).filter(Boolean))],
    parts: [...new Set(frame.instances.map((p) => p.path.replace(/#1$/, "")))],
    toward,
  };
}

/** One typed line: a pipe from what is picked, or anything else that can be said. Each Enter draws it and goes on from its far end. */
export function WalkLine({ joint, part }: { joint?: Joint; part: string }) {
  const frame = useFrame();
  const last = useProject((p) => p.page?.pen?.at);
  const gesture = useRun();
  const [way, onWay] = useWay();
  const [marked, onMark] = useMarked();
  const refused = useOpenState((s) => (s.refused?.kind === "say" || s.refused?.kind === "draw" ? s.refused : undefined));
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [line, setLine] = useState("");
  const [past, setPast] = useState<string[]>([]);
  const [back, setBack] = useState(0);
  const [size, setSize] = useState("");
  const [capped, setCapped] = useState(false);
  const [hidden, setHidden] = useState(true);
  const [at, setAt] = useState(0);
  /** What is marked is what the line before ended at. */
  const followed = useRef(false);
  const empty = frame.joints.length === 0;
  const known = marked.filter((m) => frame.joints.some((j) => j.id === m));
  const from = joint ?? frame.joints.find((j) => j.id === last);
  const names = useMemo(() => nameable(frame, from), [frame, from]);
  const words = hidden ? [] : complete(line, names);

  // a plus on the frame was pressed: its direction is in the line, the length is next
  useEffect(() => {
    if (!way) return;
    setLine((l) => withWay(l, way));
    setHidden(false);
    onWay(undefined);
    field.current?.focus();
  }, [way, onWay]);

  // what cannot be read is marked in the line
  const place = refused?.place;
  useEffect(() => {
    const f = field.current;
    if (place === undefined || !f || document.activeElement !== f) return;
    const end = /\s|$/.exec(f.value.slice(place + 1))?.index ?? 0;
    f.setSelectionRange(place, place + 1 + end);
  }, [place, refused]);

  const typings = useRef(0); // the next line may be the same text
  const run = async (stay: boolean) => {
    const sent = typings.current;
    const typed = line.trim();
    if (!typed) return;
    const done = await gesture.run(
      {
        say: {
          line: typed,
          from: joint?.id,
          marked: known.length > 0 ? known : undefined,
          in: part || undefined,
          size: size || undefined,
          end: capped ? "cap" : undefined,
        },
      },
      stay ? { keep: true } : undefined,
    );
    if (!done) return;
    const marks = /^mark\b/i.test(typed);
    if (marks || done.ends?.length)
      onMark(done.ends ?? []); // the next line runs from each of them
    else if (followed.current) onMark([]);
    followed.current = !marks && Boolean(done.ends?.length);
    setPast((p) => [typed, ...p.filter((x) => x !== typed)].slice(0, 20));
    setBack(0);
    if (typings.current === sent) setLine(""); // what was typed meanwhile is the next line
    giveBack(field.current);
  };
  const recall = (by: number) => {
    const n = Math.min(past.length, Math.max(0, back + by));
    setBack(n);
    setHidden(true);
    setLine(n === 0 ? "" : (past[n - 1] ?? ""));
  };
  const take = (word: string) => {
    setLine(completed(line, word));
    setAt(0);
    field.current?.focus();
  };
  const several = known.length > 1;
  return (
    <div className="walk">
      <label htmlFor={id} className="walk-from">
        {empty ? (
          "The first pipe, from nothing"
        ) : several ? (
          <>
            From each of <strong>{plural(known.length, "marked joint")}</strong>
          </>
        ) : from ? (
          <>
            From <strong>{jointTitle(from)}</strong>
          </>
        ) : (
          "Pick a joint on the frame, or name it: j1: up 12"
        )}
      </label>
      <div className="flex items-stretch gap-2">
        <div className="relative min-w-0 flex-1">
          <input
            id={id}
            ref={field}
            className="field walk-field w-full"
            data-walk
            role="combobox"
            aria-expanded={words.length > 0}
            aria-controls={`${id}-words`}
            aria-autocomplete="list"
            aria-activedescendant={words.length > 0 ? `${id}-word-${at}` : undefined}
            placeholder={past[0] ?? "right 46 clear"}
            value={line}
            autoComplete="off"
            autoCapitalize="none"
            spellCheck={false}
            aria-invalid={refused !== undefined}
            aria-describedby={`${id}-how`}
            onPaste={(e) => {
              const text = e.clipboardData.getData("text");
              if (!text.trim().includes("\n")) return;
              e.preventDefault();
              void gesture.run({ draw: { lines: withMore(gesture.page(), text) } });
            }}
            onInput={(e) => {
              // also where the text is the same as before: onChange says nothing then
              typings.current++;
              setLine(e.currentTarget.value);
            }}
            onChange={() => {
              setHidden(false);
              setAt(0);
              setBack(0);
            }}
            onBlur={() => setHidden(true)}
            onKeyDown={(e) => {
              const word = words[at];
              if (e.key === "Enter") void run(e.shiftKey);
              else if (e.key === "Tab" && word && !e.shiftKey) take(word);
              else if (e.key === "Escape" && words.length > 0) setHidden(true);
              else if (words.length > 0 && e.key === "ArrowDown") setAt((at + 1) % words.length);
              else if (words.length > 0 && e.key === "ArrowUp") setAt((at + words.length - 1) % words.length);
              else if (e.key === "ArrowUp") recall(1);
              else if (e.key === "ArrowDown") recall(-1);
              else return;
              e.preventDefault();
              e.stopPropagation();
            }}
          />
          <div id={`${id}-words`} role="listbox" aria-label="What may follow" className="walk-words" hidden={words.length === 0}>
            {words.map((w, i) => (
              // biome-ignore lint/a11y/useKeyWithClickEvents: the field has its keys
              <div
                key={w}
                id={`${id}-word-${i}`}
                role="option"
                tabIndex={-1}
                aria-selected={i === at}
                onPointerDown={(e) => e.preventDefault()}
                onClick={() => take(w)}
              >
                {w}
                {i === at && <kbd className="ml-2">Tab</kbd>}
              </div>
            ))}
          </div>
        </div>
        <button type="button" className="btn btn-main" disabled={!line.trim()} onClick={() => void run(false)}>
          Run
        </button>
      </div>
      <fieldset className="walk-ways" aria-label="Directions">
        {ways.map((w) => (
          <button
            key={w.word}
            type="button"
            className="walk-way"
            disabled={!several && (from ? taken(from, w.dir) : !empty)}
            onClick={() => onWay(w.word)}
          >
            <span aria-hidden="true">{{ left: "←", right: "→", near: "↙", away: "↗", down: "↓", up: "↑" }[w.word]}</span> {w.word}
          </button>
        ))}
      </fieldset>
      <div className="mt-1.5 flex flex-wrap items-center gap-x-3 gap-y-1 text-sm">
        <Pick label="Size of the new pipe" className="w-28" value={size} options={[["", "usual size"], ...pipeSizes]} onChange={setSize} />
        <label className="flex items-center gap-1.5">
          <input type="checkbox" className="box" checked={capped} onChange={(e) => setCapped(e.target.checked)} /> cap its end
        </label>
      </div>
      <details className="more">
        <summary>How it is said</summary>
        <p id={`${id}-how`} className="text-sm text-ink-2">
          <em>right 24 cut</em>, or <em>clear, outside, visible, top</em>; <em>touching</em>; <em>to j7</em> goes as far as that;{" "}
          <em>up right 12</em> slopes at 45°; <em>x3</em> repeats; <em>capped</em> closes the end; <em>tee at j2 spare up</em>,{" "}
          <em>split B at 10</em>, <em>join j4 j7</em>; <em>hoop right 96 rise 24</em> springs one; <kbd>Tab</kbd> takes what is offered,{" "}
          <kbd>Shift</kbd> stays here, <kbd>?</kbd> tells all. A page of lines can be pasted.
        </p>
      </details>
      <Refused kinds={["say", "draw", "walk", "begin"]} />
    </div>
  );
}
