import { useId, useRef, useState } from "react";
import { useFrame, useNamed, useNow, useOpen, usePlanned, useProject, useRun } from "../../desk/use";
import { exportAs, lines as textOf } from "../../editor/export-menu";
import { Named } from "../../frame/named";
import { plural } from "../../lib/format";
import { Drawer } from "../../ui/drawer";
import { moreAnswers, useFew } from "../../ui/few";
import { Icon } from "../../ui/icons";
import { Refused, Sorry } from "../refused";
import { type Line, type Page, withMore } from "./page";

/** How the frame was drawn, line by line. What is done by hand appears here; each line can be changed, and what follows is drawn anew. */
export function Lines() {
  const page = useProject((p) => p.page);
  const gesture = useRun();
  const now = useNow();
  const { id: of } = useOpen();
  const id = useId();
  const [pasting, setPasting] = useState(false);
  const [text, setText] = useState("");
  const [said, setSaid] = useState("");
  const [editing, setEditing] = useState<number>();
  /** It was worked in: it stays open. */
  const [used, setUsed] = useState(false);
  const all = page?.lines ?? [];
  /** What was typed and set beside the lines, as the next one that is drawn has it before it. */
  const { beside = [] } = usePlanned();
  const waiting = all.length - (page?.drawn ?? 0);
  const draw = (lines: Line[]) => {
    setUsed(true);
    return gesture.run({ draw: { lines } }, { keep: true });
  };
  const put = async (k: number, line: Line | undefined, more?: Line) => {
    const next = all.flatMap((l, i) => (i === k ? [...(line ? [line] : []), ...(more ? [more] : [])] : [l]));
    return draw(next);
  };
  const paste = async () => {
    if (!text.trim()) return;
    const done = await draw(withMore(page, text));
    if (done) {
      setText("");
      setPasting(false);
    }
  };
  const row = (l: Line, k: number) => (
    <Row
      key={k}
      line={l}
      at={k}
      page={page as Page}
      fixed={page?.begun === true && k < page.drawn}
      editing={editing === k}
      onEdit={(on) => setEditing(on ? k : undefined)}
      onText={(t) => put(k, { ...l, text: t })}
      onAfter={() => void put(k, l, { text: "# " }).then((d) => d && setEditing(k + 1))}
      onDrop={() => void put(k, undefined)}
    />
  );
  const told =
    waiting > 0 ? `${plural(waiting, "line")} waiting` : all.length > 0 ? plural(all.length, "line") : "as a text that can be changed";
  return (
    <Drawer
      id="lines"
      title="The lines it is drawn with"
      told={told}
      force={waiting > 0 ? `${page?.wrong?.what} ${page?.drawn}` : used && "used"}
      action={
        <button
          type="button"
          className="btn btn-small"
          aria-expanded={pasting}
          onClick={() => {
            setPasting(!pasting);
            setUsed(true);
          }}
        >
          Paste lines
        </button>
      }
    >
      {pasting && <PasteField id={id} text={text} onText={setText} onDraw={() => void paste()} />}
      {all.length === 0 && !pasting && (
        <p className="text-sm text-ink-2">
          None yet. Each line that is typed, and all that is done by hand, appears here: a page of them is the frame, to keep, change or
          send.
        </p>
      )}
      {page?.begun && all.length > 0 && (
        <p className="mb-1 text-sm text-ink-2">Drawn on a starter’s frame: more can be added; what is here is taken back by undo.</p>
      )}
      {all.length > 0 && (
        <ol className="lines" aria-label="Lines">
          {all.slice(0, page?.drawn).map((l, k) => row(l, k))}
          {beside.map((text) => (
            <li key={text} className="lines-row">
              <span className="lines-made" />
              <span className="lines-text text-ink-2">{text}</span>
              <span className="text-sm text-ink-2">typed beside</span>
            </li>
          ))}
          {all.slice(page?.drawn).map((l, k) => row(l, k + (page?.drawn ?? 0)))}
        </ol>
      )}
      {all.length > 0 && (
        <div className="mt-2 flex flex-wrap items-center gap-2 text-sm">
          <button
            type="button"
            className="btn btn-small"
            onClick={() =>
              void textOf(now, of)
                .then((t) => navigator.clipboard.writeText(t))
                .then(() => setSaid("Copied."))
                .catch(() => setSaid("It could not be copied: save it as a text."))
            }
          >
            Copy all
          </button>
          <button
            type="button"
            className="btn btn-small"
            onClick={() => void exportAs("lines.txt", now, of).catch(() => setSaid("It could not be saved; try again."))}
          >
            Save as text
          </button>
          <span role="status">{said}</span>
        </div>
      )}
      <Refused kinds={["draw"]} />
    </Drawer>
  );
}

function PasteField({ id, text, onText, onDraw }: { id: string; text: string; onText: (t: string) => void; onDraw: () => void }) {
  return (
    <div className="mb-2">
      <label htmlFor={id} className="text-sm text-ink-2">
        One thing a line; they are drawn after those that are there
      </label>
      <textarea
        id={id}
        className="field mt-1 w-full font-mono text-sm"
        rows={Math.min(16, Math.max(5, text.split("\n").length + 1))}
        value={text}
        spellCheck={false}
        autoCapitalize="none"
        placeholder={"right 24 cut\nup 30 cut\nleft to j1\nj1 j2: near 8 cut capped"}
        onChange={(e) => onText(e.target.value)}
        onKeyDown={(e) => {
          if (e.key === "Enter" && (e.ctrlKey || e.metaKey)) onDraw();
        }}
      />
      <button type="button" className="btn btn-main mt-1" disabled={!text.trim()} onClick={onDraw}>
        Draw them
      </button>
    </div>
  );
}

interface RowProps {
  line: Line;
  at: number;
  page: Page;
  fixed: boolean;
  editing: boolean;
  onEdit: (on: boolean) => void;
  onText: (text: string) => Promise<unknown>;
  onAfter: () => void;
  onDrop: () => void;
}

/** A line with the joints that it made, a field when it is pressed, and why it waits. */
function Row({ line, at, page, fixed, editing, onEdit, onText, onAfter, onDrop }: RowProps) {
  const named = useNamed();
  const wrong = page.wrong?.line === at ? page.wrong : undefined;
  const few = useFew(wrong?.answers ?? []);
  const waits = at >= page.drawn;
  const held = line.text.startsWith("do {");
  const why = useId();
  const shown = held ? heldWords(line.text) : line.text || " ";
  return (
    <li className={waits ? "lines-row lines-waits" : "lines-row"}>
      <span className="lines-made">{!waits && <Made line={line} />}</span>
      {editing && !held ? (
        <LineEdit text={line.text} at={at} wrong={wrong?.at} onText={onText} onLeave={() => onEdit(false)} />
      ) : fixed || held ? (
        <span className="lines-text">{shown}</span>
      ) : (
        <button
          type="button"
          className="lines-text lines-press"
          aria-label={`Line ${at + 1}: ${line.text || "empty"}`}
          aria-describedby={wrong && why}
          onClick={() => onEdit(true)}
        >
          {shown}
        </button>
      )}
      {!fixed && (
        <span className="lines-tools">
          <button
            type="button"
            className="icon-btn"
            aria-label={`Add a line after line ${at + 1}`}
            title="A line after it"
            onClick={onAfter}
          >
            <Icon name="plus" size={16} />
          </button>
          <button
            type="button"
            className="icon-btn"
            aria-label={`Take line ${at + 1} away`}
            title="Take it away; what follows is drawn anew"
            onClick={onDrop}
          >
            <Icon name="bin" size={16} />
          </button>
        </span>
      )}
      {wrong && (
        <div className="lines-wrong">
          <Sorry id={why} what={capital(named(wrong.answers?.length ? `${wrong.what}. What is meant?` : `${wrong.what}; ${wrong.hint}`))} />
          {few.shown.map((a) => (
            <button
              key={a.id}
              type="button"
              className="btn btn-small"
              onClick={() => void onText([line.text, ...[a.id, ...(a.more ?? [])].map((id) => `(${id})`)].join(" "))}
            >
              {named(a.label)}
            </button>
          ))}
          {few.more > 0 && (
            <button type="button" className="btn btn-small" onClick={few.showAll}>
              {moreAnswers(few.more)}
            </button>
          )}
        </div>
      )}
    </li>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

const heldWords = (text: string) => {
  const what = /^do \{"(\w+)"/.exec(text)?.[1];
  if (what === "start") return "the frame that was there before";
  return what === "bring" ? "a part from another frame" : `done by hand: ${what ?? "something"}`;
};

/** The joints that a line made and that are there. */
function Made({ line }: { line: Line }) {
  const frame = useFrame();
  const [from = 0, to = 0] = line.joints ?? [];
  const numbers = new Set<number>(); // copies have the same
  const made = frame.joints.filter((j) => {
    const n = Number(/(?:^|\/)j(\d+)$/.exec(j.id)?.[1]); // NaN where a joint has a name
    if (!(n >= from && n < to) || numbers.has(n)) return false;
    numbers.add(n);
    return true;
  });
  const name = /^(?:[^:]*:)?\s*([\p{L}_][\p{L}\p{N}_-]*)\s*=/u.exec(line.text)?.[1];
  const shown = made.length > 0 ? [made[0]?.id ?? ""] : frame.joints.some((j) => j.id === name) ? [name ?? ""] : [];
  return (
    <>
      {shown.map((id) => (
        <Named key={id} id={id} short />
      ))}
      {made.length > 1 && `–${(made.at(-1)?.id ?? "").replace(/^.*\//, "")}`}
    </>
  );
}

interface EditProps {
  text: string;
  at: number;
  wrong?: number;
  onText: (text: string) => Promise<unknown>;
  onLeave: () => void;
}

/** A line being changed. Enter draws it; Escape leaves it as it was. */
function LineEdit({ text, at, wrong, onText, onLeave }: EditProps) {
  const [typed, setTyped] = useState(text === "#" ? "" : text);
  const left = useRef(false);
  const done = () => {
    if (left.current) return;
    left.current = true;
    if (typed.trim() !== text) void onText(typed.trim());
    onLeave();
  };
  return (
    <input
      className="field lines-text"
      aria-label={`Line ${at + 1}`}
      value={typed}
      autoComplete="off"
      autoCapitalize="none"
      spellCheck={false}
      // biome-ignore lint/a11y/noAutofocus: the field takes the place of the line that was pressed
      autoFocus
      onFocus={(e) => wrong !== undefined && e.target.setSelectionRange(wrong, e.target.value.length)}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === "Enter") done();
        else if (e.key === "Escape") {
          left.current = true;
          onLeave();
        } else return;
        e.preventDefault();
        e.stopPropagation();
      }}
    />
  );
}
