import { meaning } from "../../lib/words";
import { memo, useId, useState } from "react";
import type { Answer, Size } from "../../api/client";
import { same } from "../../desk/merge";
import type { Documents } from "../../desk/documents";
import { Len, type Style, unitOf } from "../../lib/format";
import { Pick } from "../../ui/pick";
import { Head } from "../../ui/ui";
import { Why } from "../../ui/why";
import { Envelopes } from "./clearance-checks";
import { Contacts } from "../contacts";
import { pipeSizes } from "../sizes";
import { LengthField } from "./length-field";
import { LineField } from "../frame/line-field";
import { type Target, asTyped, isDriven, meaningsOf } from "./targets";
import { useDesk, useFrame, useNamed, usePicked, useProject, useRun, useShop, useStyle } from "../../desk/use";
import type { Picked } from "../../frame/items";
import { useTargets } from "./live";

/** How big will it be? What the builder states, and what follows. */
export default function SizeSheet() {
  const measured = useShop((s) => s.measurements.length > 0);
  const frame = useFrame();
  const style = useStyle();
  return (
    <>
      <Targets />
      <section aria-labelledby="outside-head">
        <Head id="outside-head" title="What comes out" />
        <dl className="facts">
          {frame.overall.map((e) => (
            <div key={e.axis}>
              <dt>{["Wide", "Deep", "High"][e.axis]}, outside</dt>
              <dd className="text-xl">
                <Why
                  label={`Outside size, ${["wide", "deep", "high"][e.axis]}`}
                  sum={e.sum}
                  total={e.size}
                  of={<Len nm={e.size} style={style} />}
                />
              </dd>
            </div>
          ))}
        </dl>
        <Whole />
        <Contacts />
        {!measured && (
          <p className="mt-2 text-sm text-ink-2">
            Fittings are reckoned with typical figures; makers differ by about 1/16 in. Dry-fit one corner before you cut the rest.
          </p>
        )}
      </section>
      <Envelopes />
    </>
  );
}

/** Sizes the whole, over however many bays; what gives way is asked. */
function Whole() {
  const frame = useFrame();
  const style = useStyle();
  const [axis, setAxis] = useState("0");
  const size = frame.overall[Number(axis)]?.size ?? 0;
  if (frame.pipes.length === 0) return null;
  return (
    <div className="mt-2 flex flex-wrap items-start gap-2">
      <Pick
        label="Which way the whole is sized"
        className="w-28"
        value={axis}
        options={[
          ["0", "wide"],
          ["1", "deep"],
          ["2", "high"],
        ]}
        onChange={setAxis}
      />
      <div className="min-w-56 flex-1">
        <LineField
          label="Make the whole"
          placeholder={`${asTyped(size, style)} outside`}
          press="Set"
          keep
          edit={(length) => ({ overall: { axis: Number(axis), length } })}
          note="over all its bays; what gives way is asked"
        />
      </div>
    </div>
  );
}

/** What the builder states, a row each. It works without a plan, so that what cannot be read can be mended. */
export function Targets() {
  const desk = useDesk();
  const style = useStyle();
  const [picked, onPick] = usePicked();
  const units = useProject((p) => p.units);
  const own = useProject((p) => p.frame !== undefined && !isDriven(p));
  const targets = useTargets();
  return (
    <section aria-labelledby="sizes-head">
      <Head id="sizes-head" title="How big?">
        <span className="text-sm text-ink-2 max-sm:hidden">as you write them: 23 5/8, 4 ft, 5'7, 60cm</span>
      </Head>
      <ul className="long grid">
        {targets.map((t) => (
          <TargetRow
            key={t.key}
            target={t}
            edit={desk.edit}
            settle={desk.settle}
            style={style}
            units={units}
            lit={picked?.is === "size" && picked.id === t.sized?.id}
            onPick={onPick}
          />
        ))}
        {own && <FrameSettings />}
        <Copies />
      </ul>
    </section>
  );
}

/** The pipe whose cut a size may be typed as: its own, or the one that runs there. */
const ofPipe = (t: Target) => t.answer.of ?? t.sized?.between ?? undefined;

interface RowProps {
  target: Target;
  style: Style;
  onPick: (p: Picked) => void;
  edit: Documents["edit"];
  settle: () => void;
  units: string;
  lit: boolean;
}

/** A row is drawn again only when something in it changed: a frame from a file has many. */
const sameRow = (a: RowProps, b: RowProps) =>
  a.target.key === b.target.key &&
  same(a.target.answer, b.target.answer) &&
  a.target.error === b.target.error &&
  a.lit === b.lit &&
  a.style === b.style &&
  a.units === b.units &&
  sameSize(a.target.sized, b.target.sized);

const sameSize = (a?: Size, b?: Size) =>
  a === b ||
  (a !== undefined &&
    b !== undefined &&
    a.id === b.id &&
    a.value === b.value &&
    a.centre === b.centre &&
    a.out === b.out &&
    a.holds === b.holds &&
    a.gave === b.gave &&
    a.meaning === b.meaning &&
    same(a.also, b.also));

const TargetRow = memo(function TargetRow({ target: t, edit: change, settle, style, units, lit, onPick }: RowProps) {
  const id = useId();
  // what is typed in one go is one step, what is nudged another
  const edit = (a: Answer, words: string, how = "set") => change(words, (p) => t.set(p, a), `size ${t.key} ${how}`);
  const named = useNamed();
  const meanings = meaningsOf(t);
  // "36 outside" says what it measures as well: once it is read, the two stand in their own places
  const said = /^(.*\S)\s+[a-z-]{3,}$/i.exec(t.answer.text.trim())?.[1];
  const done = () => {
    if (said && t.sized && !t.error && t.sized.meaning !== t.answer.meaning && /\d/.test(said))
      edit({ ...t.answer, text: said, meaning: t.sized.meaning, of: ofPipe(t) }, `${t.label} ${t.answer.text}`, "typed");
    settle();
  };
  const foreign = t.prompt.input === "length" && (t.answer.unit || units) !== unitOf(style);
  return (
    <li
      className={`target ${lit ? "is-lit" : ""} ${t.error ? "is-bad" : ""}`}
      onFocus={() => t.sized && onPick({ is: "size", id: t.sized.id })}
    >
      <label htmlFor={id} className="leading-tight font-semibold">
        {t.label}
      </label>
      {t.prompt.input === "length" ? (
        <LengthField
          id={id}
          target={t}
          style={style}
          describedBy={`${id}-why`}
          onChange={(text, nudged) =>
            edit({ ...t.answer, text, unit: unitOf(style), of: ofPipe(t) }, `${t.label} ${text}`, nudged ? "nudged" : "typed")
          }
          onDone={done}
        />
      ) : t.prompt.input === "count" ? (
        <input
          id={id}
          className="field text-lg font-semibold"
          inputMode="numeric"
          autoComplete="off"
          value={t.answer.text}
          aria-invalid={t.error !== undefined}
          aria-describedby={`${id}-why`}
          onChange={(e) => edit({ ...t.answer, text: e.target.value }, `${t.label} ${e.target.value}`)}
          onBlur={settle}
        />
      ) : (
        <Pick
          label={t.label}
          className="col-span-2"
          value={t.answer.text}
          describedBy={`${id}-why`}
          invalid={t.error !== undefined}
          options={t.prompt.input === "size" ? pipeSizes : (t.prompt.options ?? []).map((o) => [o.value, o.label] as const)}
          onChange={(text) => edit({ ...t.answer, text }, `${t.label} ${text}`)}
        />
      )}
      {t.prompt.input === "length" &&
        (meanings.length > 1 ? (
          <Pick
            label={`What ${t.label} means`}
            value={(said ? t.sized?.meaning : t.answer.meaning) || meanings[0]?.[0] || ""}
            options={meanings}
            onChange={(m) => edit({ ...t.answer, ...(said ? { text: said } : {}), meaning: m, of: ofPipe(t) }, `${t.label}, ${meaning(m)}`)}
          />
        ) : (
          <span className="px-2 text-sm leading-tight text-ink-2">{t.prompt.thing ? "" : meaning(t.prompt.meanings?.[0] ?? "")}</span>
        ))}
      {t.prompt.input === "length" && (
        <span className="target-centre">
          {t.sized && !t.error && (t.sized.holds ? <CentreNote size={t.sized} style={style} /> : <Stands size={t.sized} style={style} />)}
        </span>
      )}
      <p
        id={`${id}-why`}
        className={`target-note ${t.error ? "font-semibold text-bad" : "text-ink-2"} ${foreign || t.sized?.holds === false ? "is-open" : ""}`}
        role={t.error ? "alert" : undefined}
      >
        {t.error ? (
          t.error.charAt(0).toUpperCase() + t.error.slice(1)
        ) : (
          <>
            {t.sized && (
              <>
                {t.sized.holds ? (
                  <>
                    Read as <Len nm={t.sized.value} style={style} step={64} />
                  </>
                ) : (
                  <>
                    <Len nm={t.sized.value} style={style} step={64} />{" "}
                    {t.sized.gave ? `gave way to ${named(t.sized.gave)}` : "does not hold"}: it is{" "}
                    <Len nm={t.sized.out} style={style} step={64} />
                  </>
                )}
                {t.sized.also.map((a) => (
                  <span key={a.meaning}>
                    , {meaning(a.meaning)} <Len nm={a.value} style={style} />
                  </span>
                ))}
                .{" "}
              </>
            )}
            {t.prompt.why}
          </>
        )}
      </p>
    </li>
  );
}, sameRow);

/** How large it is, where that is not what was asked for. */
function Stands({ size, style }: { size: Size; style: Style }) {
  return (
    <strong className="whitespace-nowrap text-bad">
      is <Len nm={size.out} style={style} step={64} />
    </strong>
  );
}

/** What follows from a stated size, with its sum and its other meanings. */
function CentreNote({ size, style }: { size: Size; style: Style }) {
  const name = size.label || size.to;
  return (
    <span className="whitespace-nowrap" title="Centre to centre">
      <Why
        label={`${name}, centre to centre`}
        sum={size.sum}
        total={size.centre}
        of={
          <span className="text-ink-2">
            c-c <Len nm={size.centre} style={style} />
          </span>
        }
      />
    </span>
  );
}

/** Settings of a frame that no starter drives. */
function FrameSettings() {
  const gesture = useRun();
  const frame = useProject((p) => p.frame);
  if (!frame) return null;
  return (
    <li className="target">
      <span className="font-semibold">Pipe size</span>
      <Pick
        label="Main pipe size"
        className="col-span-2"
        value={frame.size}
        options={pipeSizes}
        onChange={(size) => void gesture.run({ usual: { size } }, { keep: true })}
      />
    </li>
  );
}

const isCopies = (t: string) => /^[1-9]\d{0,2}$/.test(t) && Number(t) <= 500;

function Copies() {
  const desk = useDesk();
  const copies = useProject((p) => p.copies);
  const [typed, setTyped] = useState<string>();
  const id = useId();
  return (
    <li className="target">
      <label htmlFor={id} className="font-semibold">
        How many
      </label>
      <input
        id={id}
        className="field text-lg font-semibold"
        inputMode="numeric"
        autoComplete="off"
        value={typed ?? copies}
        aria-invalid={typed !== undefined && !isCopies(typed)}
        title="From 1 to 500"
        onChange={(e) => {
          const t = e.target.value.trim();
          setTyped(t);
          if (isCopies(t)) desk.edit(`${t} copies`, (p) => ({ ...p, copies: Number(t) }), "copies");
        }}
        onBlur={() => {
          setTyped(undefined);
          desk.settle();
        }}
      />
    </li>
  );
}
