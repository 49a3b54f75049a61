import { RadioGroup } from "radix-ui";
import { Len, feet, money, plural } from "../../lib/format";
import { classWords, pathWords, sizeWords } from "../../lib/words";
import { useTools } from "../../ui/tool-pick";
import { Head } from "../../ui/ui";
import { Why } from "../../ui/why";
import { Further } from "./further";
import { Spoilt } from "./mistakes";
import { LittleChanges } from "./savings";
import { Spares } from "./spares";
import { Proof, Sticks, sticksWords } from "./sticks";
import type { CutStick, PipeTotal } from "../../api/client";
import { cutting, notDone, withOutgoing } from "../../desk/doing";
import { useDesk, useFrame, useOpen, useOpenState, usePicked, usePlan, useProject, useShop, useStyle } from "../../desk/use";
import { Unsent } from "../unsent";

/** Where do I cut? Sticks to scale, to be ticked off; the cut list; the tool. */
export default function CutSheet() {
  const open = useOpen();
  const out = useOpenState((s) => s.outgoing.events);
  const plan = usePlan();
  const frame = useFrame();
  const style = useStyle();
  const [picked, onPick] = usePicked();
  const letter =
    picked?.is === "letter" ? picked.id : picked?.is === "pipe" ? frame.pipes.find((p) => p.pipe === picked.id)?.letter : undefined;
  const pick = (l: string) => onPick(letter === l ? undefined : { is: "letter", id: l });
  const done = withOutgoing(out);
  // a piece that is longer than every stick is no one's to cut
  const isCut = (s: CutStick) => s.pieces.every((p) => !p.pipe || done.isCut(p));
  const onRack = (id: string) => open.did({ kind: "racked", item: id });
  const onCut = (of: PipeTotal) => (s: CutStick, is: boolean) => {
    if (is) open.did(...cutting(of, s, done.isCut));
    else open.say(...s.pieces.flatMap(done.saying).map((e) => notDone(e)));
  };
  return (
    <>
      <Unsent />
      <section aria-labelledby="cut-head">
        <Head id="cut-head" title="Where to cut">
          <span className="text-sm text-ink-2">
            {plural(plan.totals.pieces, "piece")}, {feet(plan.totals.net)} ft of pipe
          </span>
        </Head>
        <ul className="long grid gap-x-6 sm:grid-cols-2">
          {plan.cuts.map((g) => (
            <li key={g.letter} className={`cut-row ${letter === g.letter ? "is-lit" : ""}`}>
              <button
                type="button"
                className="letter"
                aria-pressed={letter === g.letter}
                aria-label={`Show ${g.letter} on the frame`}
                onClick={() => pick(g.letter)}
              >
                {g.letter}
              </button>
              <span className="min-w-8 text-right text-lg">{g.count}×</span>
              <span className="flex-1 font-display text-2xl leading-tight font-semibold">
                <Why label={`Cut ${g.letter}`} sum={g.sum} total={g.cut} of={<Len nm={g.cut} style={style} step={64} />} />
              </span>
              <span className="text-right text-sm leading-tight text-ink-2">
                {(g.done ?? 0) > 0 && (
                  <strong className="block text-ink-2">{g.done === g.count ? "all cut" : `${g.done} of ${g.count} cut`}</strong>
                )}
                {(g.trims ?? 0) > 0 && <strong className="block text-warn">{g.trims} to trim</strong>}
                {sizeWords(g.size)}
                {g.hidden && <span className="block">hidden nipple</span>}
                {g.path && <span className="block">{pathWords(g.path)}</span>}
                {g.waits ? (
                  <strong className="block text-warn">at most</strong>
                ) : (
                  g.class && <span className="block">{classWords(g.class)}</span>
                )}
                {g.typed && <span className="block">typed {g.typed}</span>}
                {g.tooShort && <strong className="block text-bad">too short</strong>}
              </span>
            </li>
          ))}
        </ul>
        {plan.cuts.some((g) => g.waits) && (
          <p className="mt-1 text-sm font-semibold text-warn">
            Leave{" "}
            {plan.cuts
              .filter((g) => g.waits)
              .map((g) => g.letter)
              .join(", ")}{" "}
            uncut until the rest stands: the length shown is held in reserve. Pick the pipe in the Frame lens and type what you measure.
          </p>
        )}
        {plan.cuts.some((g) => g.hidden) && (
          <p className="mt-1 text-sm text-ink-2">A hidden nipple: the fittings touch and no pipe shows.</p>
        )}
      </section>
      {plan.pipe.map((t) => (
        <section key={t.size} aria-label={`Sticks of ${sizeWords(t.size)} pipe`} className="grid gap-2">
          <Head title={`${sizeWords(t.size)} pipe: ${sticksWords(t)}`} id={`sticks-${t.size}`}>
            <span className="text-sm text-ink-2">{Math.round(100 * t.yield)} % used</span>
          </Head>
          {t.sticks.some((s) => s.earlier) && (
            <details className="earlier">
              <summary>{plural(t.sticks.filter((s) => s.earlier).length, "stick")} cut before the plan changed</summary>
              <Sticks sticks={t.sticks.filter((s) => s.earlier)} style={style} lit={letter} onPick={pick} onRack={onRack} />
            </details>
          )}
          <Sticks
            sticks={t.sticks.filter((s) => !s.earlier)}
            style={style}
            lit={letter}
            onPick={pick}
            before={t.sticks.filter((s) => s.earlier).length}
            isCut={isCut}
            onCut={onCut(t)}
            onRack={onRack}
            tinted
            waiting={plan.cuts.filter((g) => g.waits).map((g) => g.letter)}
          />
          <p className="text-sm">
            {feet(t.net)} ft in pieces, {feet(t.stock.left)} ft left, {feet(t.stock.kerf)} ft to the saw.
          </p>
          {(t.tooLong?.length ?? 0) > 0 && (
            <p role="alert" className="text-sm font-semibold text-bad">
              {t.tooLong?.join(", ")}: no stick on sale holds {t.tooLong?.length === 1 ? "it" : "them"}, still to be found.
            </p>
          )}
          <Proof of={t.stock} style={style} />
          {!t.stock.proven && !plan.improving && <Further />}
        </section>
      ))}
      <Spares />
      <LittleChanges />
      <Spoilt />
      <Tools />
      <p className="text-sm text-ink-2">
        Cut in the order drawn, from the left. Mark beside the line, on the waste side, and mark the next piece after each cut: marking all
        at once loses a kerf a piece.
      </p>
    </>
  );
}

/** The tool sets the kerf, and the kerf decides how many sticks to buy. */
function Tools() {
  const desk = useDesk();
  const project = useProject();
  const plan = usePlan();
  const style = useStyle();
  const all = useTools();
  const begun = plan.pipe.some((t) => t.need.some((n) => n.got));
  const counted = new Map(plan.tools.map((t) => [t.id, t]));
  const open = useOpen();
  const own = useShop((s) => s.tools.find((t) => t.id === project.tool));
  return (
    <section aria-labelledby="tool-head">
      <Head id="tool-head" title="The tool decides how many" />
      <RadioGroup.Root
        aria-labelledby="tool-head"
        className="grid"
        value={project.tool}
        onValueChange={(id) => desk.edit(`Cut with: ${all.find((t) => t.id === id)?.name ?? id}`, (p) => ({ ...p, tool: id }))}
      >
        {all.map((t) => {
          const c = counted.get(t.id);
          return (
            <RadioGroup.Item
              key={t.id}
              value={t.id}
              className="tool-row"
              aria-label={`Cut with: ${t.name}${c ? `, ${plural(c.sticks, "stick")}` : ""}`}
            >
              <span className="radio" aria-hidden="true" />
              <span className="flex-1 text-left">
                <strong className="font-semibold">{t.name}</strong>
                <span className="block text-sm text-ink-2">{t.note}</span>
              </span>
              <span className="w-16 text-right text-sm">
                {t.kerf ? (
                  <>
                    kerf <Len nm={t.kerf} style={style} step={32} />
                  </>
                ) : (
                  "no kerf"
                )}
              </span>
              <span className="w-28 text-right">
                {c ? (
                  <>
                    <strong className="block">{begun ? `${c.sticks} more` : plural(c.sticks, "stick")}</strong>
                    <span className="text-sm text-ink-2">{c.priced ? money(c.cost) : "no price"}</span>
                  </>
                ) : (
                  ""
                )}
              </span>
            </RadioGroup.Item>
          );
        })}
      </RadioGroup.Root>
      {own && (
        <label className="mt-1 flex items-center gap-2 text-sm">
          <input
            type="checkbox"
            checked={own.stop ?? false}
            onChange={(e) => {
              const stop = e.target.checked;
              void open.changeShop(stop ? `${own.name}: against a stop` : `${own.name}: to a mark`, (s) => ({
                ...s,
                tools: s.tools.map((t) => (t.id === own.id ? { ...t, stop } : t)),
              }));
            }}
          />
          Cut against a stop: cuts are off by less than by a mark, and a stick may keep less to spare.
        </label>
      )}
    </section>
  );
}
