import { useEffect, useId, useRef, useState } from "react";
import type { Joint } from "../../api/client";
import { jointTitle } from "../../frame/items";
import { Pick } from "../../ui/pick";
import { useFrame, useOpenState, useRun, useWay } from "../../desk/use";
import { pipeSizes } from "../sizes";
import { Refused } from "../refused";
import { taken, ways, withWay } from "./ways";

/** From the joint that is picked: a direction and a length, as one typed line. Each Enter runs a pipe and goes on from its far end. */
export function WalkLine({ joint, part }: { joint?: Joint; part: string }) {
  const frame = useFrame();
  const gesture = useRun();
  const [way, onWay] = useWay();
  const refused = useOpenState((s) => s.refused?.kind === "walk");
  const id = useId();
  const field = useRef<HTMLInputElement>(null);
  const [line, setLine] = useState("");
  const [past, setPast] = useState<string[]>([]);
  const [back, setBack] = useState(0);
  const [size, setSize] = useState("");
  const [capped, setCapped] = useState(false);
  const empty = frame.joints.length === 0;

  // a plus on the frame was pressed: its direction is in the line, the length is next
  useEffect(() => {
    if (!way) return;
    setLine((l) => withWay(l, way));
    onWay(undefined);
    field.current?.focus();
  }, [way, onWay]);

  const run = async (stay: boolean) => {
    const sent = line;
    const typed = sent.trim();
    // "post 1/hub: up 12" goes on from another joint than the one picked
    const [, named, rest] = /^([^:]+):\s*(.*)$/.exec(typed) ?? [];
    const course = rest ?? typed;
    if (!course) return;
    const done = await gesture.run(
      {
        walk: {
          from: named?.trim() ?? joint?.id ?? "",
          in: part || undefined,
          line: course,
          size: size || undefined,
          end: capped ? "cap" : undefined,
        },
      },
      stay ? { keep: true } : undefined,
    );
    if (!done) return;
    setPast((p) => [course, ...p.filter((x) => x !== course)].slice(0, 20));
    setBack(0);
    setLine((now) => (now === sent ? "" : now)); // what was typed meanwhile is the next line
    field.current?.focus();
  };
  const recall = (by: number) => {
    const n = Math.min(past.length, Math.max(0, back + by));
    setBack(n);
    setLine(n === 0 ? "" : (past[n - 1] ?? ""));
  };
  return (
    <div className="walk">
      <label htmlFor={id} className="walk-from">
        {empty ? (
          "The first pipe, from nothing"
        ) : joint ? (
          <>
            From <strong>{jointTitle(joint)}</strong>
          </>
        ) : (
          "Pick a joint on the frame, or name it: j1: up 12"
        )}
      </label>
      <div className="flex items-stretch gap-2">
        <input
          id={id}
          ref={field}
          className="field walk-field"
          data-walk
          placeholder={past[0] ?? "right 46 clear"}
          value={line}
          autoComplete="off"
          autoCapitalize="none"
          spellCheck={false}
          aria-invalid={refused}
          aria-describedby={`${id}-how`}
          onChange={(e) => {
            setLine(e.target.value);
            setBack(0);
          }}
          onKeyDown={(e) => {
            if (e.key === "Enter") void run(e.shiftKey);
            else if (e.key === "ArrowUp") recall(1);
            else if (e.key === "ArrowDown") recall(-1);
            else return;
            e.preventDefault();
          }}
        />
        <button
          type="button"
          className="btn btn-main"
          disabled={(!empty && !joint && !line.includes(":")) || !line.trim()}
          onClick={() => void run(false)}
        >
          Run
        </button>
      </div>
      <fieldset className="walk-ways" aria-label="Directions">
        {ways.map((w) => (
          <button
            key={w.word}
            type="button"
            className="walk-way"
            disabled={joint ? taken(joint, w.dir) : !empty}
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
          then <em>clear, outside, cut, visible</em> or <em>top</em>; two directions slope at 45°; <em>hoop right 96 rise 24</em> springs
          one; <em>bend up 20, right 24, radius 6</em> is bent by heat; <kbd>x3</kbd> repeats; <em>capped</em> closes the end;{" "}
          <em>right to j7</em> goes as far as that; <kbd>Shift</kbd> stays here
        </p>
      </details>
      <Refused kinds={["walk", "begin"]} />
    </div>
  );
}
