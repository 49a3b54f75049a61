import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { type Answer, type Plan, type Project, type Prompt, type Size, api, ask } from "../api/client";
import { Len, type Style, meaning } from "../lib/format";
import { ToolPick } from "../ui/tool-pick";
import { Why } from "../ui/ui";

type Change = (edit: (p: Project) => Project) => void;

const pipeSizes = ["1/2", "3/4", "1", "1-1/4", "1-1/2", "2", "2-1/2", "3", "4"];
// label, size, meaning, what follows
const grid = "grid grid-cols-[7.5rem_1fr] items-center gap-x-2 gap-y-1.5 sm:grid-cols-[7.5rem_minmax(4rem,1fr)_auto_5.5rem]";

const modes = [
  ["cemented", "Cemented"],
  ["slip", "Dry, driven"],
] as const;

interface Props {
  project: Project;
  plan?: Plan;
  places: Record<string, string>;
  change: Change;
}

/** The sizes the builder states: a starter's prompts, or a frame's own sizes. */
export function Sizes(props: Props) {
  return (
    <section aria-labelledby="sizes-head">
      <div className="sheet-head">
        <h2 id="sizes-head" className="text-xl">
          Sizes
        </h2>
        <span className="text-sm text-ink-2">as you write them: 23 5/8, 4 ft, 5'7, 60cm</span>
      </div>
      {props.project.starter ? <Prompts {...props} /> : <FrameSizes {...props} />}
      <JobFields {...props} />
    </section>
  );
}

function Prompts({ project, plan, places, change }: Props) {
  const starters = useQuery({ queryKey: ["starters"], queryFn: () => ask(api.GET("/api/starters")), staleTime: Number.POSITIVE_INFINITY });
  const begun = project.starter;
  const prompts = starters.data?.find((s) => s.id === begun?.id)?.prompts ?? [];
  const set = (key: string, a: Answer) =>
    change((p) => (p.starter ? { ...p, starter: { ...p.starter, answers: { ...p.starter.answers, [key]: a } } } : p));
  return (
    <div className={grid}>
      {prompts.map((p) => {
        const a = begun?.answers[p.key] ?? { text: p.default, meaning: p.meanings?.[0] };
        const sized = plan?.frames[0]?.sizes.find((s) => s.label === p.label);
        return (
          <Row
            key={p.key}
            prompt={p}
            answer={a}
            error={places[`body.project.starter.answers.${p.key}`]}
            sized={sized}
            style={project.style as Style}
            units={project.units}
            onChange={(v) => set(p.key, v)}
          />
        );
      })}
    </div>
  );
}

interface RowProps {
  prompt: Prompt;
  answer: Answer;
  error?: string;
  sized?: Size;
  style: Style;
  /** What bare numbers meant before each answer kept its own unit. */
  units: string;
  onChange: (a: Answer) => void;
}

function Row({ prompt: p, answer: a, error, sized, style, units, onChange }: RowProps) {
  const id = useId();
  const described = `${id}-why`;
  // a bare number is in the unit that lengths are shown in while it is typed
  const unit = style === "metric" ? "mm" : "in";
  const foreign = p.input === "length" && (a.unit || units) !== unit;
  return (
    <div className="group contents">
      <label htmlFor={id} className="self-center leading-tight font-semibold">
        {p.label}
      </label>
      {p.input === "choice" || p.input === "size" ? (
        <Pick id={id} wide value={a.text} describedBy={described} options={p.input === "size" ? pipeSizes.map((s) => [s, s] as const) : (p.options ?? []).map((o) => [o.value, o.label] as const)}
          onChange={(text) => onChange({ ...a, text })} />
      ) : (
        <input
          id={id}
          className="field text-lg font-semibold"
          value={a.text}
          inputMode={p.input === "count" ? "numeric" : "text"}
          autoComplete="off"
          spellCheck={false}
          aria-invalid={error !== undefined}
          aria-describedby={described}
          onChange={(e) => onChange({ ...a, text: e.target.value, unit })}
        />
      )}
      {p.input === "length" ? (
        <span className="col-start-2 sm:col-start-auto">
          {p.meanings && p.meanings.length > 1 ? (
            <Pick label={`What ${p.label} means`} value={a.meaning || p.meanings[0] || ""} options={p.meanings.map((m) => [m, meaning(m)] as const)}
              onChange={(m) => onChange({ ...a, meaning: m })} />
          ) : (
            <span className="px-2 text-ink-2">{meaning(p.meanings?.[0] ?? "")}</span>
          )}
        </span>
      ) : p.input === "count" ? (
        <span className="hidden sm:block" />
      ) : null}
      <span className="col-start-2 text-right text-sm sm:col-start-auto">{sized && !error && <SizeNote size={sized} style={style} />}</span>
      {error ? (
        <p id={described} className="col-span-full -mt-1 text-sm font-semibold text-bad" role="alert">
          {error.charAt(0).toUpperCase() + error.slice(1)}
        </p>
      ) : (
        <p id={described} className={`col-span-full pb-1 text-sm text-ink-2 group-focus-within:block ${foreign ? "" : "hidden"}`}>
          {sized && (
            <>
              Read as <Len nm={sized.value} style={style} step={64} />.{" "}
            </>
          )}
          {p.why}
        </p>
      )}
    </div>
  );
}

/** What follows from a stated size, with its sum. */
function SizeNote({ size, style }: { size: Size; style: Style }) {
  return (
    <span className="whitespace-nowrap" title="Centre to centre">
      <Why label={`${size.label || size.to}, centre to centre`} sum={size.sum} total={size.centre} of={<span className="text-ink-2">c-c <Len nm={size.centre} style={style} step={32} /></span>} />
    </span>
  );
}

function Pick({ id, label, describedBy, wide, value, options, onChange }: { id?: string; label?: string; describedBy?: string; wide?: boolean; value: string; options: readonly (readonly [string, string])[]; onChange: (v: string) => void }) {
  return (
    <select id={id} aria-label={label} aria-describedby={describedBy} className={`pick w-full ${wide ? "sm:col-span-2" : ""}`} value={value} onChange={(e) => onChange(e.target.value)}>
      {options.map(([v, l]) => (
        <option key={v} value={v}>
          {l}
        </option>
      ))}
    </select>
  );
}

/** The sizes of a frame that came from a file: every station in use. */
function FrameSizes({ project, plan, places, change }: Props) {
  const frame = project.frame;
  const sizes = plan?.frames[0]?.sizes ?? [];
  const set = (path: string, a: Answer) => change((p) => ({ ...p, sizes: { ...p.sizes, [path]: a } }));
  const axes = ["wide", "deep", "high"];
  return (
    <div className={grid}>
      {sizes.map((s) => {
        const typed = project.sizes?.[s.path];
        const p: Prompt = {
          key: s.path,
          label: s.label || `${s.from} → ${s.to}, ${axes[s.axis]}`,
          input: "length",
          default: s.text,
          meanings: s.from === "floor" ? [s.meaning] : ["centre", "outside", "clear"],
          why: "",
        };
        return (
          <Row
            key={s.path}
            prompt={p}
            answer={typed ?? { text: s.text, meaning: s.meaning }}
            error={places[`body.project.sizes.${s.path}`]}
            sized={s}
            style={project.style as Style}
            units={project.units}
            onChange={(a) => set(s.path, { ...a, meaning: a.meaning || s.meaning })}
          />
        );
      })}
      {frame && (
        <>
          <span className="self-center font-semibold">Pipe size</span>
          <Pick wide label="Main pipe size" value={frame.size} options={pipeSizes.map((s) => [s, s] as const)} onChange={(size) => change((p) => (p.frame ? { ...p, frame: { ...p.frame, size } } : p))} />
          <span className="hidden sm:block" />
          <span className="self-center font-semibold">Joints</span>
          <Pick wide label="Joints" value={frame.mode} options={modes} onChange={(mode) => change((p) => (p.frame ? { ...p, frame: { ...p.frame, mode } } : p))} />
        </>
      )}
    </div>
  );
}

const isCopies = (t: string) => /^[1-9]\d{0,2}$/.test(t) && Number(t) <= 500;

/** What belongs to the job, not to the frame. */
function JobFields({ project, change }: Props) {
  const [typed, setTyped] = useState<string>();
  const id = useId();
  return (
    <div className="mt-2 grid grid-cols-[6rem_1fr] gap-3">
      <label htmlFor={`${id}-n`} className="text-sm font-semibold">
        How many
        <input
          id={`${id}-n`}
          className="field text-lg font-semibold"
          type="number"
          min={1}
          max={500}
          value={typed ?? project.copies}
          aria-invalid={typed !== undefined && !isCopies(typed)}
          onChange={(e) => {
            const copies = e.target.value;
            setTyped(copies);
            if (isCopies(copies)) change((p) => ({ ...p, copies: Number(copies) }));
          }}
          onBlur={() => setTyped(undefined)}
        />
      </label>
      <ToolPick value={project.tool} onChange={(tool) => change((p) => ({ ...p, tool }))} />
    </div>
  );
}
