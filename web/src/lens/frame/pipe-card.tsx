import { useState } from "react";
import type { Pipe } from "../../api/client";
import { pipeTitle } from "../../frame/items";
import { named } from "../../frame/names";
import { Named } from "../../frame/named";
import { Len, text } from "../../lib/format";
import { classes, meaning, sizeWords, strainLimits } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { Pick } from "../../ui/pick";
import { pipeSizes } from "../sizes";
import { LineField } from "./line-field";
import { Refused } from "../refused";
import { useFrame, useNames, useRun, useStyle } from "../../desk/use";

const ways = [
  ["", "turns freely"],
  ["up", "held up"],
  ["down", "held down"],
  ["right", "held right"],
  ["left", "held left"],
  ["away", "held away"],
  ["near", "held near"],
] as const;

/** Springs the pipe: how far it bows, and how its ends are held. */
function BowField({ pipe: p }: { pipe: Pipe }) {
  const style = useStyle();
  const gesture = useRun();
  const names = useNames();
  const [leave, setLeave] = useState<[string, string]>(["", ""]);
  const sprung = p.path === "sprung";
  const bow = (say: string) => ({ bow: { pipe: p.pipe, say, leave } });
  return (
    <details className="more" open={sprung}>
      <summary>{sprung ? "Sprung" : p.path === "bent" ? "Bent by heat" : "Bow it, as a hoop"}</summary>
      {p.path && p.radius ? (
        <p className="text-sm">
          Bent the most to a radius of <Len nm={p.radius} style={style} step={4} />
          {sprung && p.strain ? (
            <>
              : its outer side is stretched <strong>{(100 * p.strain).toFixed(2)} %</strong>, easy up to{" "}
              {(100 * strainLimits.good).toFixed(2)} %, never over {(100 * strainLimits.most).toFixed(2)} %
            </>
          ) : null}
        </p>
      ) : null}
      <LineField
        label="Spring it"
        placeholder="rise 24"
        press="Spring"
        keep
        edit={bow}
        note="rise 24, rise 24 under, or of 10 ft: its length, and the rise that comes out"
      />
      <div className="mt-2 flex flex-wrap items-end gap-2 text-sm">
        {([0, 1] as const).map((k) => (
          <Pick
            key={k}
            label={`How ${names.short(k === 0 ? p.from : p.to)} holds it`}
            labelled
            className="w-36"
            value={leave[k]}
            options={ways}
            onChange={(w) => setLeave(k === 0 ? [w, leave[1]] : [leave[0], w])}
          />
        ))}
        {p.path && (
          <button type="button" className="btn btn-small" onClick={() => void gesture.run(bow(""), { keep: true })}>
            Straight again
          </button>
        )}
      </div>
    </details>
  );
}

/** How exactly the piece is cut; one that is measured on the frame takes what was measured. */
function Exactness({ pipe: p, alike }: { pipe: Pipe; alike: string[] }) {
  const style = useStyle();
  const gesture = useRun();
  const [all, setAll] = useState(false);
  return (
    <>
      <div className="flex flex-wrap items-end gap-2 text-sm">
        <Pick
          label="How exactly it is cut"
          labelled
          className="w-52"
          value={p.class ?? ""}
          options={classes}
          onChange={(c) => void gesture.run({ class: { pipes: all ? alike : [p.pipe], class: c } }, { keep: true })}
        />
        {alike.length > 1 && (
          <label className="flex min-h-9 items-center gap-1.5">
            <input type="checkbox" className="box" checked={all} onChange={(e) => setAll(e.target.checked)} /> all {alike.length} of{" "}
            {p.letter}
          </label>
        )}
        {p.waits && (
          <span>
            holds <Len nm={p.ordered} style={style} step={64} /> in reserve
          </span>
        )}
        {p.measured && (
          <span>
            measured <Len nm={p.ordered} style={style} step={64} />, planned <Len nm={p.cut} style={style} step={64} />
          </span>
        )}
      </div>
      {p.class === "on-frame" && (
        <LineField
          label="Measured"
          placeholder={text(p.cut, style, 16)}
          press="Take it"
          keep
          edit={(t) => ({ class: { pipes: [p.pipe], class: "on-frame", measured: t } })}
          note="between what it goes into, sockets included"
        />
      )}
    </>
  );
}

/** What was typed for a pipe: whether it holds, what it gave way to. */
function Said({ pipe: p }: { pipe: Pipe }) {
  const frame = useFrame();
  const style = useStyle();
  const gesture = useRun();
  const names = useNames();
  const mine = frame.sizes.filter((s) => s.pipe === p.pipe);
  if (mine.length === 0) return null;
  return (
    <ul className="text-sm">
      {mine.map((s) => (
        <li key={s.id} className={`said ${s.gave ? "is-gone" : ""}`}>
          <span className="min-w-0 flex-1">
            {s.inferred ? "as it stood: " : "typed: "}
            <strong>
              <Len nm={s.value} style={style} step={64} /> {meaning(s.meaning)}
            </strong>
            {(s.gave || Math.abs(s.out - s.value) > 1000) && (
              <>
                {" "}
                → <Len nm={s.out} style={style} step={64} />
              </>
            )}
            {s.gave && <span className="block text-ink-2">gave way to {named(s.gave, names)}</span>}
          </span>
          {s.gave ? (
            <button
              type="button"
              className="btn btn-small"
              onClick={() => void gesture.run({ restore: { kind: "size", id: s.id } }, { keep: true })}
            >
              Hold it again
            </button>
          ) : (
            <button
              type="button"
              className="icon-btn icon-small"
              aria-label={`Take away ${text(s.value, style, 64)} ${meaning(s.meaning)} of ${pipeTitle(p)}`}
              title="Let it go: the piece keeps the length it has"
              onClick={() => void gesture.run({ size: { id: s.id, length: "" } }, { keep: true })}
            >
              <Icon name="close" size={18} />
            </button>
          )}
        </li>
      ))}
    </ul>
  );
}

/** The pipe that is picked: give it a length, split it, change its size, take it away. */
export function PipeCard({ pipe: p }: { pipe: Pipe }) {
  const frame = useFrame();
  const style = useStyle();
  const gesture = useRun();
  const names = useNames();
  const [run, setRun] = useState(false);
  return (
    <div className="thing">
      <div className="flex items-center gap-3">
        <span className="letter">{p.letter}</span>
        <h3 className="min-w-0 flex-1 text-base leading-tight">
          cut <Len nm={p.cut} style={style} step={64} />
          <span className="block font-sans text-sm font-normal text-ink-2">
            {p.where && `${p.where}: `}
            {sizeWords(p.size)} pipe from <Named id={p.from} short /> to <Named id={p.to} short />, <Len nm={p.centre} style={style} />{" "}
            between centres
          </span>
        </h3>
        <button
          type="button"
          className="icon-btn"
          aria-label={`Delete ${pipeTitle(p)}`}
          title="Delete it; two in line become one (Delete)"
          onClick={() => void gesture.run({ delete: { pipes: [p.pipe] } })}
        >
          <Icon name="bin" />
        </button>
      </div>
      <div className="mt-2 grid gap-2">
        {(!p.path || p.path === "sprung") && (
          <LineField
            label="Make it"
            placeholder={`${text(p.cut, style, 16)} cut`}
            press="Set"
            keep
            edit={(t) => ({ size: { pipe: p.pipe, length: t } })}
            foretells
            note={
              p.path
                ? "the side of a hoop that is split at its crown: 120 cut"
                : "a round cut in, the size that comes out; say cut, visible or centre"
            }
          />
        )}
        <Said pipe={p} />
        <LineField
          label="Split it at"
          placeholder="half"
          press="Split"
          mayBeEmpty
          edit={(t) => ({ split: { pipe: p.pipe, length: t || undefined } })}
          note={`from ${names.short(p.from)}; left empty, in the middle`}
        />
        <BowField pipe={p} />
        <Exactness pipe={p} alike={frame.pipes.filter((o) => o.letter === p.letter).map((o) => o.pipe)} />
        <div className="flex items-end gap-2 text-sm">
          <Pick
            label="Size of this pipe"
            labelled
            className="w-28"
            value={p.size}
            options={pipeSizes}
            onChange={(size) => void gesture.run({ resize: { pipe: p.pipe, size, run } }, { keep: true })}
          />
          <label className="flex min-h-9 items-center gap-1.5">
            <input type="checkbox" className="box" checked={run} onChange={(e) => setRun(e.target.checked)} /> and all in line with it
          </label>
        </div>
      </div>
      <Refused kinds={["size", "restore", "split", "bow", "class", "resize", "delete"]} />
    </div>
  );
}
