import { useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useSearch } from "wouter";
import type { BoughtOne, PlanFrame } from "../api/client";
import { OpenProject } from "../desk/open-project";
import { fileOf } from "../desk/server";
import { OpenProjectProvider, useDesk, useNow, useOpen, useOpenState, usePlan, usePlanned, useProject } from "../desk/use";
import { useOpened } from "../desk/use-opened";
import { NewerSays } from "../editor/newer-figures";
import { SaveNote } from "../editor/save-note";
import { Trouble } from "../editor/trouble";
import { useKeys } from "../editor/use-keys";
import BuySheet from "../lens/buy/sheet";
import CutSheet from "../lens/cut/sheet";
import { download } from "../lib/download";
import { money, plural } from "../lib/format";
import { UndoLine } from "../prices/undo-line";
import { BackBar } from "../ui/back-bar";
import { Cautions } from "../ui/cautions";
import { Icon } from "../ui/icons";
import { Guard } from "../ui/guard";
import { Failure, Loading } from "../ui/ui";
import { idOf, togetherServer } from "./together-server";

/** Several projects as one purchase: the same list for the shop and the same sticks for the saw as of one, shared with the record of each. */
export default function TogetherPage() {
  const of = idOf((new URLSearchParams(useSearch()).get("of") ?? "").split(",").filter(Boolean));
  if (of) return <Opened of={of} />;
  return (
    <>
      <BackBar />
      <main className="mx-auto max-w-6xl px-4 py-6">
        <p className="text-lg">No project is chosen. On the shelf, press “Buy together” and tick what you buy in one go.</p>
      </main>
    </>
  );
}

function Opened({ of }: { of: string }) {
  const client = useQueryClient();
  const open = useOpened(() => new OpenProject(client, of, togetherServer(client, of), true), [client, of]);
  return (
    <>
      <BackBar />
      {open && (
        <OpenProjectProvider of={open} key={of}>
          <Page />
        </OpenProjectProvider>
      )}
    </>
  );
}

function Page() {
  const history = useOpenState((s) => s.history);
  const failed = useOpenState((s) => s.failed);
  const { plan, places, failure } = usePlanned();
  const why = failed?.message ?? failure ?? Object.values(places)[0];
  const desk = useDesk();
  useKeys({ "ctrl+z": desk.undo, "ctrl+y": desk.redo, "ctrl+shift+z": desk.redo });
  return (
    <main className="bought mx-auto grid w-full max-w-6xl gap-6 px-4 py-6">
      <Trouble />
      <div className="sheet-head flex-wrap">
        <span className="flex flex-wrap items-baseline gap-x-4">
          <h1 className="text-3xl">Bought together</h1>
          {history && <SaveNote />}
        </span>
        {plan && history && <Files />}
      </div>
      <p className="only-print">{new Date().toLocaleDateString()}</p>
      {why && <Failure why={why} />}
      {!plan && !why && <Loading what="the lists" />}
      {plan && history && (
        <>
          <WhatIsBought />
          {plan.frames.map((f, i) => f.waiting && <Partly key={i} name={f.name} of={f.waiting} />)}
          {plan.newer.length > 0 && (
            <section aria-label="Newer figures of the shop" className="rounded-md border-2 border-rule bg-paper-2 p-3 text-sm">
              <NewerSays />
              <p>They are taken in the project itself, where it is seen first what they change.</p>
            </section>
          )}
          <div className="grid items-start gap-8 lg:grid-cols-2">
            <div className="rounded-md bg-paper p-4">
              <Guard what="What to buy" of={[plan]}>
                <BuySheet />
              </Guard>
            </div>
            <div className="lens-sheet-alone grid content-start gap-4 rounded-md bg-paper p-4">
              <Guard what="Where to cut" of={[plan]}>
                <CutSheet />
              </Guard>
            </div>
          </div>
          <Cautions all={plan.cautions} />
        </>
      )}
      {history && <DoneLast />}
    </main>
  );
}

/** One of them is not finished, and so the purchase is of a part. */
function Partly({ name, of }: { name: string; of: NonNullable<PlanFrame["waiting"]> }) {
  return (
    <p role="alert" className="unfinished text-lg">
      <strong className="text-bad">
        Unfinished: {of.words} of {name || "a frame"}.
      </strong>{" "}
      What is bought and cut here is of the part that is drawn.
    </p>
  );
}

/** The projects, and what each comes to by itself. */
function WhatIsBought() {
  const desk = useDesk();
  const plan = usePlan();
  const alone = usePlanned().alone ?? [];
  const variants = useProject((p) => p.together?.variants ?? false);
  const own = useProject((p) => (p.sale?.prices?.length ?? 0) + (p.sale?.stock?.length ?? 0) > 0);
  const several = alone.length > 1;
  const apart = { cost: alone.reduce((n, a) => n + a.cost, 0), sticks: alone.reduce((n, a) => n + a.sticks, 0) };
  const choose = (on: boolean) =>
    desk.edit(on ? "Variants of one thing" : "Each a thing of its own", (p) => ({
      ...p,
      together: { of: p.together?.of ?? [], variants: on || undefined },
    }));
  return (
    <section aria-label="What is bought together">
      <ol>
        {alone.map((a, i) => (
          <Alone key={a.id} of={a} number={several && !variants ? i + 1 : undefined} several={several} />
        ))}
      </ol>
      {several && !variants && (
        <p className="pt-1 text-sm text-ink-2">
          A letter has its project’s number before it: 1A is the A of {alone[0]?.name || "the first"}, 2A that of{" "}
          {alone[1]?.name || "the second"}.
        </p>
      )}
      {several && (
        <label className="no-print flex items-center gap-2 pt-2 text-sm">
          <input type="checkbox" checked={variants} onChange={(e) => choose(e.target.checked)} />
          Variants of one thing: put together from the same parts, one at a time
        </label>
      )}
      {several && (
        <p className="pt-2 text-lg" role="status">
          <strong>
            {apart.cost > plan.bill.total ? `${money(apart.cost - plan.bill.total)} less than apart` : "No cheaper than apart"}
          </strong>
          {apart.sticks !== plan.totals.sticks && `: ${plural(plan.totals.sticks, "stick")} instead of ${apart.sticks}`}
          {own && ", each alone at the same prices"}.
        </p>
      )}
    </section>
  );
}

function Alone({ of: a, number, several }: { of: BoughtOne; number?: number; several: boolean }) {
  const own = [a.ownPrices ? plural(a.ownPrices, "price") : "", a.ownSticks ? "its stick lengths" : ""].filter(Boolean);
  return (
    <li className="flex flex-wrap justify-between gap-x-4 border-b border-rule py-1">
      <span>
        {number && <strong className="pr-2">{number}</strong>}
        <Link href={`/p/${a.id}`} className="link">
          {a.name || "Without a name"}
        </Link>
      </span>
      <span className="text-ink-2">
        {a.copies > 1 && `${a.copies} copies, `}alone {plural(a.sticks, "stick")}, {money(a.cost)}
      </span>
      {several && own.length > 0 && (
        <span className="w-full text-sm font-semibold text-warn">
          {own.join(" and ")} of its own do not count here: what is bought together is bought at the prices of every project, or at those
          said here.
        </span>
      )}
    </li>
  );
}

/** What was changed last, here or in one of the projects, and the way back. It stays in view. */
function DoneLast() {
  const open = useOpen();
  const desk = useDesk();
  const elsewhere = useOpenState((s) => s.elsewhere);
  const past = useOpenState((s) => s.history?.past.at(-1));
  if (!elsewhere && !past) return null;
  return (
    <div className="no-print sticky bottom-0 z-10 grid gap-1 rounded-md border-2 border-ink bg-paper px-4 py-2">
      {elsewhere instanceof Error ? (
        <p role="alert" className="flex flex-wrap items-center gap-3 text-sm">
          <strong className="text-bad">{elsewhere.message}</strong>
          <button type="button" className="link" onClick={() => void open.undoElsewhere()}>
            Let it be
          </button>
        </p>
      ) : elsewhere ? (
        <UndoLine label={`In ${elsewhere.name}: ${elsewhere.label}`} onUndo={() => void open.undoElsewhere()} />
      ) : (
        past && <UndoLine label={past.label} onUndo={desk.undo} />
      )}
    </div>
  );
}

/** The lists on paper and as files. */
function Files() {
  const { id } = useOpen();
  const now = useNow();
  const [why, setWhy] = useState<string>();
  const save = async (kind: string) => {
    setWhy(undefined);
    try {
      download(await (await fileOf(now, kind, { of: id })).blob(), `together ${kind}`);
    } catch {
      setWhy("It could not be saved; try again.");
    }
  };
  return (
    <span className="no-print flex flex-wrap items-center gap-2 pb-1">
      {why && (
        <span role="alert" className="text-sm font-semibold text-bad">
          {why}
        </span>
      )}
      <button type="button" className="btn btn-small" onClick={() => print()}>
        <Icon name="print" size={18} /> Print
      </button>
      <Link href={`/together/labels?of=${id}`} className="btn btn-small">
        <Icon name="list" size={18} /> Labels
      </Link>
      <button type="button" className="btn btn-small" onClick={() => void save("shopping.csv")}>
        <Icon name="file" size={18} /> Shopping list, CSV
      </button>
      <button type="button" className="btn btn-small" onClick={() => void save("cuts.csv")}>
        <Icon name="file" size={18} /> Cut list, CSV
      </button>
    </span>
  );
}
