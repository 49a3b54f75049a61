import { useState } from "react";
import { type Measure, type Plan, Refusal, api, ask } from "../../api/client";
import { Len, text } from "../../lib/format";
import { kindWords, modes, modeWords, sizeWords } from "../../lib/words";
import { Pick } from "../../ui/pick";
import { Head } from "../../ui/ui";
import { useDesk, usePlan, useProject, useShop, useStyle, useTyped } from "../../desk/use";

const fields: Record<string, string> = {
  socket_depth: "socket depth",
  socket_entrance_diameter: "socket entrance, across",
  socket_bottom_diameter: "socket bottom, across",
  stop_90: "centre to stop, square",
  stop_45: "centre to stop, 45°",
  stop_coupling: "centre to stop, coupling",
  body_diameter: "body, across",
  cap_end: "cap's end, thick",
  bushing_flange: "bushing's flange",
};
const square = ["elbow-90", "tee", "cross", "side-outlet-elbow", "side-outlet-tee", "side-outlet-cross", "six-way"];

/** Typical figures and the builder's own, side by side; one real joint makes them true. */
export function Measured() {
  const desk = useDesk();
  const project = useProject();
  const shop = useShop();
  const plan = usePlan();
  const style = useStyle();
  const [wrong, setWrong] = useState<{ at: string; what: string }>();
  const mine = plan.figures.filter((f) => f.measured).length + plan.seats.filter((s) => s.measured).length;
  const sizes = [...new Set(plan.figures.map((f) => f.size))];
  const [size, setSize] = useState("");
  const now = sizes.includes(size) ? size : (sizes[0] ?? "");

  const take = async (label: string, at: string, m: Measure) => {
    try {
      const next = await ask(api.POST("/api/measure", { body: { ...m, shop, unit: project.units } }));
      desk.editShop(label, () => next);
      setWrong(undefined);
      return true;
    } catch (e) {
      const what = e instanceof Refusal ? (Object.values(e.places)[0] ?? e.message) : "The server does not answer. Nothing was changed.";
      setWrong({ at, what: what.charAt(0).toUpperCase() + what.slice(1) });
      return false;
    }
  };
  if (sizes.length === 0) return null;
  return (
    <section aria-labelledby="measured-head">
      <Head id="measured-head" title="Typical, or your own parts?">
        <span className="text-sm text-ink-2">{mine === 0 ? "all typical, about 1/16 in" : `${mine} measured`}</span>
      </Head>
      <p className="text-sm text-ink-2">
        Makers differ by about 1/16 in. Measure one real joint and every cut follows, in all your projects.
      </p>
      <div className="mt-2 grid gap-3 sm:grid-cols-2">
        <SeatTrial size={now} wrong={wrong?.at === "seat" ? wrong.what : undefined} onTake={take} />
        <StopTrial size={now} wrong={wrong?.at === "stop" ? wrong.what : undefined} onTake={take} />
      </div>
      <table className="audit mt-3">
        <caption className="sr-only">Typical figures and your own</caption>
        <thead>
          <tr>
            <th scope="col">
              {sizes.length > 1 ? (
                <Pick
                  label="Figures of the size"
                  className="w-28"
                  value={now}
                  options={sizes.map((s) => [s, sizeWords(s)] as const)}
                  onChange={setSize}
                />
              ) : (
                sizeWords(now)
              )}
            </th>
            <th scope="col">typical</th>
            <th scope="col">as you measured</th>
          </tr>
        </thead>
        <tbody>
          {plan.seats
            .filter((s) => s.mode !== "eased" || s.measured)
            .map((s) => (
              <tr key={s.mode}>
                <th scope="row">seat, {modeWords(s.mode)}</th>
                <td>{percent(s.typical)}</td>
                <td>
                  {s.measured ? (
                    <>
                      <strong>{percent(s.mine)}</strong>{" "}
                      <button
                        type="button"
                        className="link"
                        onClick={() => void take(`Seat, ${s.mode}, typical again`, "table", { seat: s.mode })}
                      >
                        typical again
                      </button>
                    </>
                  ) : (
                    <span className="text-ink-2">as typical</span>
                  )}
                </td>
              </tr>
            ))}
          {plan.figures
            .filter((f) => f.size === now)
            .map((f) => (
              <tr key={`${f.kind} ${f.field}`}>
                <th scope="row">
                  {fields[f.field] ?? f.field}
                  {f.kind && <span className="font-sans font-normal text-ink-2">, {kindWords(f.kind)}</span>}
                </th>
                <td>
                  <Len nm={f.typical} style={style} step={64} />
                </td>
                <td>
                  <Own
                    figure={f}
                    onSet={(value) =>
                      take(`${fields[f.field]} ${value || "typical again"}`, "table", {
                        size: f.size,
                        kind: f.kind || undefined,
                        field: f.field,
                        value,
                      })
                    }
                  />
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {wrong?.at === "table" && (
        <p role="alert" className="mt-1 font-semibold text-bad">
          {wrong.what}
        </p>
      )}
    </section>
  );
}

const percent = (v: number) => `${Math.round(100 * v)} % of the socket`;

function Own({ figure: f, onSet }: { figure: Plan["figures"][number]; onSet: (v: string) => Promise<boolean> }) {
  const style = useStyle();
  const { typed, setTyped, taken, take } = useTyped();
  const shown = f.measured ? text(f.mine, style, 128) : "";
  const set = async () => {
    if (typed === undefined || typed.trim() === shown) return setTyped(undefined);
    if (typed !== taken && (await onSet(typed.trim()))) take(typed);
  };
  return (
    <input
      className={`field w-28 ${f.measured ? "font-bold" : ""}`}
      aria-label={`Yours: ${fields[f.field] ?? f.field}${f.kind ? `, ${kindWords(f.kind)}` : ""}`}
      title={f.note}
      value={typed ?? shown}
      placeholder="as typical"
      autoComplete="off"
      spellCheck={false}
      onChange={(e) => setTyped(e.target.value)}
      onBlur={() => void set()}
      onKeyDown={(e) => {
        if (e.key === "Enter") void set();
        if (e.key === "Escape") setTyped(undefined);
      }}
    />
  );
}

type Take = (label: string, at: string, m: Measure) => Promise<boolean>;

/** A mark on the pipe, and how much of it shows once it is driven home. */
function SeatTrial({ size, wrong, onTake }: { size: string; wrong?: string; onTake: Take }) {
  const [seat, setSeat] = useState("slip");
  const [mark, setMark] = useState("");
  const [gap, setGap] = useState("");
  const take = async () => {
    if (!(await onTake(`Seat, ${seat}, measured`, "seat", { size, seat, mark, gap }))) return;
    setMark("");
    setGap("");
  };
  return (
    <div className="trial">
      <h3>How deep does it go?</h3>
      <p className="text-sm text-ink-2">Draw a line on a pipe, push it in as you will, and measure what shows from the rim to the line.</p>
      <Pick label="How it is held" labelled className="w-full" value={seat} options={modes} onChange={setSeat} />
      <Line label="Line, from the pipe's end" placeholder="socket depth" value={mark} onChange={setMark} />
      <Line label="Shows beyond the rim" placeholder="1/8" value={gap} onChange={setGap} />
      <button type="button" className="btn btn-small mt-2" disabled={!gap.trim()} onClick={() => void take()}>
        Use this depth
      </button>
      {wrong && (
        <p role="alert" className="mt-1 text-sm font-semibold text-bad">
          {wrong}
        </p>
      )}
    </div>
  );
}

/** A piece pushed home, over all. */
function StopTrial({ size, wrong, onTake }: { size: string; wrong?: string; onTake: Take }) {
  const [kind, setKind] = useState("elbow-90");
  const [ends, setEnds] = useState("2");
  const [cut, setCut] = useState("");
  const [outside, setOutside] = useState("");
  const [bodySize, setBody] = useState("");
  const take = async () => {
    if (
      !(await onTake(`Stop of the ${kindWords(kind)}, measured`, "stop", { size, kind, cut, outside, body: bodySize, ends: Number(ends) }))
    )
      return;
    setCut("");
    setOutside("");
    setBody("");
  };
  return (
    <div className="trial">
      <h3>Where is the stop?</h3>
      <p className="text-sm text-ink-2">
        Bottom a piece in {ends === "2" ? "two fittings" : "a fitting"}, and measure over all, along the piece.
      </p>
      <div className="mt-1 grid gap-1.5">
        <Pick
          label="Kind of fitting"
          labelled
          className="w-full"
          value={kind}
          options={square.map((k) => [k, kindWords(k)] as const)}
          onChange={setKind}
        />
        <Pick
          label="On how many ends"
          labelled
          className="w-full"
          value={ends}
          options={[
            ["2", "on both ends"],
            ["1", "on one end"],
          ]}
          onChange={setEnds}
        />
      </div>
      <Line label="The piece alone" placeholder="10" value={cut} onChange={setCut} />
      <Line label="Over all" placeholder="12 7/16" value={outside} onChange={setOutside} />
      <Line label="Body, across" placeholder="typical" value={bodySize} onChange={setBody} />
      <button type="button" className="btn btn-small mt-2" disabled={!cut.trim() || !outside.trim()} onClick={() => void take()}>
        Take the stop
      </button>
      {wrong && (
        <p role="alert" className="mt-1 text-sm font-semibold text-bad">
          {wrong}
        </p>
      )}
    </div>
  );
}

function Line({
  label,
  placeholder,
  value,
  onChange,
}: {
  label: string;
  placeholder: string;
  value: string;
  onChange: (v: string) => void;
}) {
  return (
    <label className="mt-1.5 flex items-center justify-between gap-2 text-sm">
      {label}
      <input
        className="field w-28"
        value={value}
        placeholder={placeholder}
        autoComplete="off"
        spellCheck={false}
        onChange={(e) => onChange(e.target.value)}
      />
    </label>
  );
}
