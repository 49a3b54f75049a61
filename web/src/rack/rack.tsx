import { useQuery } from "@tanstack/react-query";
import { useId, useState } from "react";
import { Link } from "wouter";
import { type Offcut, type OnRack, Refusal, type Shop, api, ask } from "../api/client";
import { readLengths } from "../api/lengths";
import { newId } from "../desk/device";
import { usualScrap } from "../lens/cut/sticks";
import { Len, plural, text } from "../lib/format";
import { sizeWords } from "../lib/words";
import { useStoredShop } from "../prices/save";
import { Icon } from "../ui/icons";
import { InPlace } from "../ui/in-place";
import { Failure, Loading } from "../ui/ui";
import { BackBar } from "../ui/back-bar";
import { UndoLine } from "../prices/undo-line";

/** Reads one length as people write it, in inches. */
const lengthOf = async (t: string, like: string) => (await readLengths([t], "inches", like))[0] ?? 0;

/** The rack: pipe that is left, each piece with its mark, its length and where it lies, and what it would do for. */
export default function RackPage() {
  const { shop, save, change, undone, undo, waits } = useStoredShop("rack");
  const rack = useQuery({ queryKey: ["rack"], queryFn: () => ask(api.GET("/api/rack")), refetchOnMount: "always" });
  const one = (o: Offcut, by: (o: Offcut) => Offcut | undefined) => (s: Shop) => ({
    ...s,
    rack: s.rack.flatMap((x) => (same(x, o) ? (by(x) ?? []) : x)),
  });
  const scrap = shop.data?.shop.scrap || usualScrap;
  const all = rack.data ?? [];
  const short = all.filter((o) => o.length < scrap);
  return (
    <>
      <BackBar />
      <main className="mx-auto grid w-full max-w-5xl gap-4 px-4 py-6">
        <div className="sheet-head flex-wrap">
          <h1 className="text-3xl">The rack</h1>
          <span className="flex flex-wrap items-center gap-2 pb-1 text-sm">
            Scrap below{" "}
            <InPlace
              label="Scrap below"
              shown={text(scrap, "inches")}
              start={text(scrap, "inches").replace("⁄", "/")}
              take={async (t) => {
                const l = await lengthOf(t, "12 in");
                change(`Scrap below ${t}`, (s) => ({ ...s, scrap: l }));
              }}
            />
          </span>
        </div>
        {(rack.isPending || shop.isPending) && <Loading what="the rack" />}
        {rack.error && <Failure why="The server does not answer." retry={() => void rack.refetch()} />}
        {waits && (
          <p role="status" className="unsent">
            What was changed here waits on this device, and goes out by itself as soon as the server answers.
          </p>
        )}
        {save.error && <Failure why={`${save.error.message}. It was not saved; do it once more.`} />}
        {undone && <UndoLine label={undone} onUndo={undo} />}
        <Put
          onPut={(o) =>
            change(`${text(o.length, "inches", 64)} of ${sizeWords(o.size)} is on the rack`, (s) => ({ ...s, rack: [...s.rack, o] }))
          }
        />
        {rack.data && all.length === 0 && (
          <p className="py-4 text-lg text-ink-2">
            Nothing lies here. What a project leaves comes here with one press in its Cut lens; what you have already is put in above.
          </p>
        )}
        {short.length > 0 && (
          <p className="flex flex-wrap items-center gap-3">
            {plural(short.length, "piece is", "pieces are")} shorter than that.
            <button
              type="button"
              className="btn btn-small"
              onClick={() =>
                change(`${plural(short.length, "piece")} thrown away`, (s) => ({ ...s, rack: s.rack.filter((o) => o.length >= scrap) }))
              }
            >
              Throw them away
            </button>
          </p>
        )}
        <ul className="rack-list" aria-label="On the rack">
          {all.map((o) => (
            <Row
              key={o.id || `${o.mark} ${o.size} ${o.length}`}
              of={o}
              onLength={async (t) => {
                const length = await lengthOf(t, "38 1/2");
                if (length === 0) throw new Error("A piece of no length: throw it away instead.");
                change(
                  `${o.mark} measures ${t}`,
                  one(o, (x) => ({ ...x, length })),
                );
              }}
              onPlace={(place) =>
                change(
                  `${o.mark} lies ${place}`,
                  one(o, (x) => ({ ...x, place })),
                )
              }
              onGone={() =>
                change(
                  `${o.mark} thrown away`,
                  one(o, (x) => (x.count > 1 ? { ...x, count: x.count - 1 } : undefined)),
                )
              }
            />
          ))}
        </ul>
      </main>
    </>
  );
}

const same = (a: Offcut, b: Offcut) =>
  a.mark && b.mark ? a.mark === b.mark : a.id ? a.id === b.id : a.size === b.size && a.length === b.length;

function Row({
  of: o,
  onLength,
  onPlace,
  onGone,
}: {
  of: OnRack;
  onLength: (t: string) => Promise<void>;
  onPlace: (t: string) => void;
  onGone: () => void;
}) {
  const best = o.uses[0];
  return (
    <li className="rack-row">
      <strong className="rack-mark">{o.mark}</strong>
      <span className="rack-length">
        {o.count > 1 && `${o.count} × `}
        <InPlace
          label={`${o.mark} measures`}
          shown={<Len nm={o.length} style="inches" step={64} />}
          start={text(o.length, "inches", 64).replace("⁄", "/").replace("″", "")}
          take={onLength}
        />
        <span className="block font-sans text-sm font-normal text-ink-2">{sizeWords(o.size)} pipe</span>
      </span>
      <span className="min-w-0">
        {best ? (
          <span>
            would do for <strong>{best.letter}</strong> of{" "}
            <Link href={`/p/${best.project}/cut`} className="link">
              {best.name || "a project without a name"}
            </Link>
            , <Len nm={best.length} style="inches" step={64} /> <span className="text-ink-2">({text(best.left, "inches", 32)} over)</span>
          </span>
        ) : (
          <span className="text-ink-2">no piece of any project fits in it</span>
        )}
        <span className="block text-sm">
          <InPlace
            label={`Where ${o.mark} lies`}
            shown={o.place || "say where it lies"}
            start={o.place ?? ""}
            className="w-56 text-left"
            take={onPlace}
          />
        </span>
      </span>
      <button type="button" className="btn btn-small" aria-label={`Throw ${o.mark} away`} onClick={onGone}>
        <Icon name="bin" size={18} />
      </button>
    </li>
  );
}

/** Puts a piece on the rack that no project left. */
function Put({ onPut }: { onPut: (o: Offcut) => void }) {
  const id = useId();
  const [typed, setTyped] = useState("");
  const [why, setWhy] = useState<string>();
  const [busy, setBusy] = useState(false);
  const put = async () => {
    setBusy(true);
    setWhy(undefined);
    try {
      const a = await ask(api.POST("/api/pieces", { body: { text: typed, units: "in" } }));
      const bad = a.find((r) => r.fault);
      const unsized = a.find((r) => !r.fault && !r.size);
      if (bad?.fault) throw new Error(`${bad.fault.what}; ${bad.fault.hint}`);
      if (unsized) throw new Error("say its size, too: 3/4 pipe, 38 1/2");
      for (const r of a) onPut({ id: newId(), size: (r.size ?? "") as Offcut["size"], length: r.length ?? 0, count: r.count });
      setTyped("");
    } catch (e) {
      setWhy(e instanceof Refusal ? e.message : e instanceof TypeError ? "The server does not answer." : (e as Error).message);
    }
    setBusy(false);
  };
  return (
    <form
      className="flex flex-wrap items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void put();
      }}
    >
      <label htmlFor={id} className="text-sm font-semibold">
        Put a piece there
        <input
          id={id}
          className="field mt-1 block w-72 font-normal"
          placeholder="3/4 pipe, 38 1/2"
          autoComplete="off"
          aria-invalid={Boolean(why)}
          aria-describedby={`${id}-w`}
          value={typed}
          onChange={(e) => setTyped(e.target.value)}
        />
      </label>
      <button type="submit" className="btn" disabled={!typed.trim() || busy}>
        Put it there
      </button>
      {why && (
        <p id={`${id}-w`} role="alert" className="basis-full font-semibold text-bad">
          {why}
        </p>
      )}
    </form>
  );
}
