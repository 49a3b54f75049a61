import { useEffect, useState } from "react";
import type { CutStick, PipeTotal } from "../../api/client";
import { partsOf, readLengths } from "../../api/lengths";
import { cutting, notDone, partedInto, withOutgoing } from "../../desk/doing";
import { useFrame, useOpen, useOpenState, usePicked, usePlan, useShop, useStyle } from "../../desk/use";
import { feet, plural, text } from "../../lib/format";
import { recordTakes, sizeWords } from "../../lib/words";
import { Icon } from "../../ui/icons";
import { Head } from "../../ui/ui";
import { Unsent } from "../unsent";
import { AlsoCut } from "./also";
import { AskedProvider, useMistakes } from "./asked";
import { CutByKept, useMayCut } from "./by-kept";
import { CutList } from "./cut-list";
import { Further } from "./further";
import { goesOn, leftovers } from "./left-over";
import { Spoilt } from "./mistakes";
import { OfBar, barsOf } from "./of-bar";
import { Saw } from "./saw";
import { LittleChanges, OffTheEdge } from "./savings";
import { Spares } from "./spares";
import { Proof, Sticks, sticksWords, type Under, usualScrap } from "./sticks";
import { Tools } from "./tools";

/** Where do I cut? Sticks to scale, to be ticked off; the cut list; the tool. */
export default function CutSheet() {
  return (
    <AskedProvider>
      <Sheet />
    </AskedProvider>
  );
}

/** The hash says that one is at the saw: a reload, or going back, finds it so. */
const sawHash = "#saw";

function Sheet() {
  const { several } = useOpen();
  const plan = usePlan();
  const style = useStyle();
  const frame = useFrame();
  const [picked, onPick] = usePicked();
  const out = useOpenState((s) => s.outgoing.events);
  const [under, setUnder] = useState<Under>(() => (localStorage.getItem("sturdyelbow.under") as Under) ?? "stops");
  const [atSaw, setAtSaw] = useState(location.hash === sawHash);
  useEffect(() => {
    const follow = () => setAtSaw(location.hash === sawHash);
    addEventListener("hashchange", follow);
    return () => removeEventListener("hashchange", follow);
  }, []);
  const letter =
    picked?.is === "letter" ? picked.id : picked?.is === "pipe" ? frame.pipes.find((p) => p.pipe === picked.id)?.letter : undefined;
  const pick = (l: string) => onPick(letter === l ? undefined : { is: "letter", id: l });
  const done = withOutgoing(out);
  // a piece that is longer than every stick is no one's to cut
  const sticks = plan.pipe.flatMap((t) => t.sticks.filter((s) => !s.earlier || s.pieces.some((p) => p.fate === "keep")));
  const pieces = sticks.flatMap((s) => s.pieces.filter((p) => p.pipe && (!s.earlier || p.fate === "keep")));
  const cut = pieces.filter(done.isCut).length;
  const whole = sticks.filter((s) => s.earlier || s.pieces.every((p) => !p.pipe || done.isCut(p))).length;
  return (
    <>
      <Unsent />
      <CutByKept />
      <section aria-labelledby="cut-head">
        <Head id="cut-head" title="Where to cut">
          <span className="text-sm text-ink-2">
            {plural(plan.totals.pieces, "piece")}, {feet(plan.totals.net)} ft of pipe
          </span>
        </Head>
        {pieces.length > 0 && (
          <p className="flex flex-wrap items-center justify-between gap-2 py-2">
            <span role="status">
              <strong>
                {whole} of {plural(sticks.length, "stick")}
              </strong>
              , {cut} of {plural(pieces.length, "piece")} cut
            </span>
            <a className="btn btn-main" href={sawHash}>
              <Icon name="cut" size={18} /> At the saw
            </a>
          </p>
        )}
        <CutList lit={letter} onPick={pick} />
      </section>
      {pieces.length > 0 && (
        <fieldset className="flex flex-wrap items-center gap-2 text-sm">
          <legend className="contents">Under each stick</legend>
          {(["stops", "marks", "none"] as const).map((u) => (
            <button
              key={u}
              type="button"
              className="btn btn-small"
              aria-pressed={under === u}
              onClick={() => {
                localStorage.setItem("sturdyelbow.under", u);
                setUnder(u);
              }}
            >
              {{ stops: "stop settings", marks: "marks from one end", none: "nothing" }[u]}
            </button>
          ))}
        </fieldset>
      )}
      {plan.pipe.map((t) => (
        <OfSize key={t.size} of={t} letter={letter} onPick={pick} under={under} />
      ))}
      {barsOf(plan).map((b) => (
        <OfBar key={b.label} of={b} under={under} style={style} />
      ))}
      {!several && <AlsoCut />}
      <Spares />
      <LittleChanges />
      <Spoilt />
      <Tools />
      <p className="text-sm text-ink-2">
        Cut in the order drawn, from the left. Mark beside the line, on the waste side, and mark the next piece after each cut: marking all
        at once loses a kerf a piece.
      </p>
      {atSaw && (
        <Saw
          onClose={() => history.replaceState(history.state, "", location.pathname + location.search)}
          onClosed={() => setAtSaw(false)}
        />
      )}
    </>
  );
}

/** The sticks of a size: those that an earlier plan cut, and those of this one. */
function OfSize({ of: t, letter, onPick, under }: { of: PipeTotal; letter?: string; onPick: (l: string) => void; under: Under }) {
  const open = useOpen();
  const { several } = open;
  const plan = usePlan();
  const style = useStyle();
  const out = useOpenState((s) => s.outgoing.events);
  const mistakes = useMistakes();
  const scrap = useShop((s) => s.scrap) || usualScrap;
  const may = useMayCut();
  const done = withOutgoing(out);
  const earlier = t.sticks.filter((s) => s.earlier);
  const onRack = (...ids: string[]) => open.did(...ids.map((item) => ({ kind: "racked", item })));
  const onCame = async (s: CutStick, typed: string) => {
    const lengths = await readLengths(partsOf(typed), style, "60, 59 7/8");
    const sum = lengths.reduce((n, l) => n + l, 0);
    if (sum > s.length + recordTakes.overLong)
      throw new Error(`That is ${text(sum, style, 64)}, of a stick of ${text(s.length, style, 64)}: measure once more`);
    open.say({ ...partedInto(t.size, { id: s.id ?? "", length: s.length, origin: "shop" }, lengths), basis: t.basis });
  };
  const onCut = (s: CutStick, is: boolean) => {
    if (is) open.did(...cutting(t, s, plan, done.isCut, out));
    else open.say(...s.pieces.flatMap(done.saying).map((e) => notDone(e)));
  };
  const fatal = new Set(
    mistakes.data
      ?.filter((m) => m.size === t.size)
      .flatMap((m) => m.stand)
      .filter((m) => m.fatal && (m.sticks > 0 || m.cost > 0))
      .map((m) => `${m.stick} ${m.name}`),
  );
  return (
    <section aria-label={`Sticks of ${sizeWords(t.size)} pipe`} className="grid gap-2">
      <Head title={`${sizeWords(t.size)} pipe: ${sticksWords(t)}`} id={`sticks-${t.size}`}>
        <span className="text-sm text-ink-2">{Math.round(100 * t.yield)} % used</span>
      </Head>
      {earlier.length > 0 && (
        <details className="earlier">
          <summary>{plural(earlier.length, "stick")} cut before the plan changed</summary>
          <Sticks
            sticks={earlier}
            style={style}
            lit={letter}
            onPick={onPick}
            onRack={onRack}
            goesOn={(s) => goesOn(t.sticks, s)}
            scrap={scrap}
          />
        </details>
      )}
      <Sticks
        sticks={t.sticks.filter((s) => !s.earlier)}
        style={style}
        lit={letter}
        onPick={onPick}
        before={earlier.length}
        isCut={(p) => !p.pipe || done.isCut(p)}
        onCut={may ? onCut : undefined}
        onRack={onRack}
        scrap={scrap}
        tinted
        waiting={plan.cuts.filter((g) => g.waits).map((g) => g.letter)}
        short={plan.cuts.filter((g) => g.short).map((g) => g.letter)}
        under={under}
        note={(s) => s.edge && <OffTheEdge size={t.size} />}
        onCame={several ? undefined : onCame}
        fatal={(s, l) => fatal.has(`${t.sticks.indexOf(s)} ${l}`)}
      />
      <Leftovers sticks={t.sticks} scrap={scrap} isCut={done.isCut} onRack={onRack} />
      <p className="text-sm">
        {feet(t.net)} ft in pieces, {feet(t.stock.left)} ft left, {feet(t.stock.kerf)} ft lost to the saw’s kerf.
      </p>
      {(t.tooLong?.length ?? 0) > 0 && (
        <p role="alert" className="text-sm font-semibold text-bad">
          {t.tooLong?.join(", ")}: no stick on sale holds {t.tooLong?.length === 1 ? "it" : "them"}, still to be found.
        </p>
      )}
      <Proof of={t.stock} style={style} />
      {!t.stock.proven && !plan.improving && <Further />}
    </section>
  );
}

/** All that is left of sticks that are cut, to the rack with one press. */
function Leftovers({
  sticks,
  scrap,
  isCut,
  onRack,
}: {
  sticks: CutStick[];
  scrap: number;
  isCut: (p: CutStick["pieces"][number]) => boolean;
  onRack: (...ids: string[]) => void;
}) {
  const some = leftovers(sticks, scrap, isCut);
  if (some.length < 2) return null;
  return (
    <p>
      <button type="button" className="btn btn-small" onClick={() => onRack(...some.flatMap((s) => s.id ?? []))}>
        All {some.length} leftovers to the rack
      </button>
    </p>
  );
}
