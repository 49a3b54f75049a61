import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { type PastState, type Project, api, ask } from "../../api/client";
import { differences } from "../../desk/describe";
import { deviceName, nameDevice } from "../../desk/device";
import { notDone } from "../../desk/doing";
import { planOf } from "../../desk/server";
import { useDesk, useFrame, useOpen, useOpenState, usePlan, useProject, useStyle } from "../../desk/use";
import { Len, money } from "../../lib/format";
import { InPlace } from "../../ui/in-place";
import { Head } from "../../ui/ui";
import { useTargets } from "../size/live";
import { Unsent } from "../unsent";
import { type Act, actWords, actsOf, isWhole } from "./words";

/** What was done? The record, where everything can be taken back by saying so; and how the plan stood before. */
export default function LogSheet() {
  return (
    <>
      <Unsent />
      <Done />
      <Past />
    </>
  );
}

const clock = (ms: number) => new Date(ms).toLocaleString(undefined, { dateStyle: "medium", timeStyle: "short" });

function Done() {
  const open = useOpen();
  const style = useStyle();
  const frame = useFrame();
  const last = useOpenState((s) => s.planned.events ?? 0);
  const out = useOpenState((s) => s.outgoing.events);
  const q = useQuery({
    queryKey: ["record", open.id, last],
    queryFn: () => ask(api.GET("/api/projects/{id}/events", { params: { path: { id: open.id } } })),
    placeholderData: (was) => was,
    staleTime: Number.POSITIVE_INFINITY,
  });
  const known = q.data?.events ?? [];
  const ids = new Set(known.map((e) => e.id));
  const acts = actsOf([...known, ...out.filter((e) => !ids.has(e.id))]);
  const where = (pipe: string) => frame.pipes.find((p) => (p.was ?? p.pipe) === pipe)?.where ?? "";
  const [all, setAll] = useState(false);
  const shown = all ? acts : acts.slice(0, 40);
  return (
    <section aria-labelledby="log-head">
      <Head id="log-head" title="What was done">
        <ThisDevice />
      </Head>
      {acts.length === 0 && !q.isPending && (
        <p className="text-lg">Nothing yet. What is ticked in the shop and at the saw is kept here, whatever becomes of the plan.</p>
      )}
      {q.error && (
        <p role="alert" className="font-semibold text-bad">
          The record cannot be read now: the server does not answer.
        </p>
      )}
      <ol className="long">
        {shown.map((a) => (
          <li
            key={a.key}
            className={`flex flex-wrap items-baseline justify-end gap-x-3 gap-y-1 border-b border-rule py-1.5 ${a.back ? "text-ink-2" : ""}`}
          >
            <span className="min-w-60 flex-1">
              <span className={a.back ? "line-through" : "font-semibold"}>
                <Fractions of={sentence(actWords(a, style, where))} />
              </span>
              <span className="block text-sm text-ink-2">
                {a.at ? clock(a.at) : "on its way"}
                {a.device && `, ${a.device}`}
                {a.back && "; not done after all"}
              </span>
            </span>
            <Back act={a} cutBy={acts.some((x) => x.events[0]?.kind === "cut" && !x.back)} />
          </li>
        ))}
      </ol>
      {acts.length > shown.length && (
        <button type="button" className="btn btn-small mt-2" onClick={() => setAll(true)}>
          All {acts.length}
        </button>
      )}
    </section>
  );
}

/** What this device is called in the record, and how to call it otherwise. */
function ThisDevice() {
  const [name, setName] = useState(deviceName);
  return (
    <span className="text-sm text-ink-2">
      this device:{" "}
      <InPlace
        label="This device is called"
        shown={name}
        start={name}
        className="w-44"
        take={(t) => {
          if (t.length > 40) throw new Error("Use up to 40 letters");
          nameDevice(t);
          setName(t);
        }}
      />
    </span>
  );
}

/** How many of which letter and how long: one thing, which stays in one line. */
const cutItem = /((?:\d+ × )?(?:[A-Z]{1,2} )?(?:\d+ )?\d+(?:⁄\d+)?[″′]\S*)/;

/** A text whose fractions are set as a tape shows them. */
function Fractions({ of }: { of: string }) {
  return of.split(cutItem).map((part, i) => {
    if (i % 2 === 0) return part;
    const [before, fraction, after] = part.split(/(\d+⁄\d+)/);
    return (
      <span key={i} className="whitespace-nowrap">
        {before}
        {fraction && <span className="frac">{fraction}</span>}
        {after}
      </span>
    );
  });
}

const sentence = (s: string) => s.charAt(0).toUpperCase() + s.slice(1);

/** Takes an act back, or says that it was done after all. */
function Back({ act, cutBy }: { act: Act; cutBy: boolean }) {
  const open = useOpen();
  const known = useRecordOf(act);
  const kind = act.events[0]?.kind;
  if (kind === "begun") return null; // newer figures are taken where they are told of
  if (kind === "lettered" && (act.back || cutBy)) return null; // what is written on pipe stays
  if (kind === "unmatched") {
    return (
      <button type="button" className="btn btn-small whitespace-nowrap" onClick={() => open.say(...act.events.map((e) => notDone(e.id)))}>
        Seen to
      </button>
    );
  }
  return act.back ? (
    <button type="button" className="btn btn-small whitespace-nowrap" onClick={() => open.say(...known.map((id) => notDone(id)))}>
      Done after all
    </button>
  ) : (
    <button type="button" className="btn btn-small whitespace-nowrap" onClick={() => open.say(...act.events.map((e) => notDone(e.id)))}>
      Not done after all
    </button>
  );
}

/** The events that take an act back and count. */
function useRecordOf(act: Act): string[] {
  const open = useOpen();
  const last = useOpenState((s) => s.planned.events ?? 0);
  const q = useQuery<{ events: { id: string; kind: string; event?: string; count?: number; item?: string }[] }>({
    queryKey: ["record", open.id, last],
    enabled: false,
  });
  const ids = new Set(act.events.map((e) => e.id));
  return (q.data?.events ?? []).filter((e) => isWhole(e) && e.event && ids.has(e.event)).map((e) => e.id);
}

/** How the plan stood before: states to compare with, and to go back to. */
function Past() {
  const open = useOpen();
  const saved = useOpenState((s) => s.save.is);
  const [of, setOf] = useState<PastState>();
  const [more, setMore] = useState(false);
  const q = useQuery({
    queryKey: ["past", open.id, saved === "saved"],
    queryFn: () => ask(api.GET("/api/projects/{id}/revisions", { params: { path: { id: open.id } } })),
    placeholderData: (was) => was,
    staleTime: 0,
  });
  const all = q.data ?? [];
  // while work goes on states lie close together: the last of each quarter of an hour is enough to choose from
  const apart = all.filter((s, i) => i === 0 || quarter(s) !== quarter(all[i - 1] as PastState));
  const shown = more ? all : apart.slice(0, 12);
  return (
    <section aria-labelledby="past-head">
      <Head id="past-head" title="How it was planned before" />
      {all.length === 0 && !q.isPending && <p>No earlier state yet: each change keeps what it replaced.</p>}
      <ul className="long">
        {shown.map((s) => (
          <li key={s.revision} className="border-b border-rule py-1.5">
            <button
              type="button"
              className="link"
              aria-expanded={of?.revision === s.revision}
              onClick={() => setOf(of?.revision === s.revision ? undefined : s)}
            >
              {clock(Date.parse(s.at))}
            </button>{" "}
            <span className="text-sm text-ink-2">state {s.revision}</span>
            {of?.revision === s.revision && <Compared state={s} onDone={() => setOf(undefined)} />}
          </li>
        ))}
      </ul>
      {shown.length < all.length && (
        <button type="button" className="btn btn-small mt-2" onClick={() => setMore(true)}>
          All {all.length} states
        </button>
      )}
    </section>
  );
}

const quarter = (s: PastState) => Math.floor(Date.parse(s.at) / 900_000);

function Compared({ state, onDone }: { state: PastState; onDone: () => void }) {
  const open = useOpen();
  const desk = useDesk();
  const now = useProject();
  const plan = usePlan();
  const style = useStyle();
  const labels = Object.fromEntries(useTargets().map((t) => [t.key, t.label]));
  const shop = useOpenState((s) => s.history?.now.shop);
  const q = useQuery({
    queryKey: ["past", open.id, "state", state.revision],
    retry: false,
    queryFn: async () => {
      const project = await ask(
        api.GET("/api/projects/{id}/revisions/{revision}", { params: { path: { id: open.id, revision: state.revision } } }),
      );
      const answer = shop && (await planOf({ project, shop }, { of: open.id, draw: true }).catch(() => undefined));
      return { project, plan: answer?.plan, drawing: answer?.drawings[0] };
    },
  });
  if (q.error) return <p role="alert">That state cannot be read: {q.error.message}.</p>;
  if (!q.data) return <p role="status">Getting that state …</p>;
  const { project: then, plan: was } = q.data;
  const rows = differences(then, now, labels);
  const size = (p: typeof plan) =>
    p.frames[0]?.overall.map((e, i) => (
      <span key={e.axis}>
        {i > 0 && " × "}
        <Len nm={e.size} style={style} />
      </span>
    ));
  return (
    <div className="my-2 rounded-md bg-paper-2 p-3">
      {q.data.drawing && (
        // drawn by our own server
        <div className="past-picture" aria-hidden="true" dangerouslySetInnerHTML={{ __html: q.data.drawing }} />
      )}
      <table className="w-full text-sm">
        <thead>
          <tr className="text-left text-ink-2">
            <th scope="col" className="font-normal">
              What
            </th>
            <th scope="col" className="font-normal">
              then
            </th>
            <th scope="col" className="font-normal">
              now
            </th>
          </tr>
        </thead>
        <tbody>
          {was && (
            <>
              <Row what="Outside" then={size(was)} now={size(plan)} />
              <Row what="Sticks" then={was.totals.sticks} now={plan.totals.sticks} />
              <Row what="Fittings" then={was.totals.fittings} now={plan.totals.fittings} />
              <Row what="Cost" then={money(was.bill.total)} now={money(plan.bill.total)} />
            </>
          )}
          {rows.map((r) => (
            <Row
              key={r.what}
              what={r.what}
              then={r.what === "The frame" ? "as it was" : r.mine}
              now={r.what === "The frame" ? "changed since" : r.theirs}
            />
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="text-sm">It differs in nothing that has a name.</p>}
      <p className="mt-2 flex flex-wrap gap-2">
        <button
          type="button"
          className="btn btn-small btn-main"
          onClick={() => {
            desk.edit(`Back to ${clock(Date.parse(state.at))}`, () => then);
            onDone();
          }}
        >
          Go back to it
        </button>
        <OpenBeside project={then} at={state.at} />
      </p>
      <p className="mt-1 text-sm text-ink-2">What was done stays done either way, and Undo brings the plan of now back.</p>
    </div>
  );
}

function Row({ what, then, now }: { what: string; then: React.ReactNode; now: React.ReactNode }) {
  return (
    <tr className="border-t border-rule align-top">
      <th scope="row" className="pr-3 text-left font-semibold">
        {what}
      </th>
      <td className="pr-3">{then}</td>
      <td>{now}</td>
    </tr>
  );
}

/** Opens an earlier state as a project of its own, without a record. */
function OpenBeside({ project, at }: { project: Project; at: string }) {
  const [made, setMade] = useState<string>();
  const [why, setWhy] = useState("");
  const make = () =>
    ask(api.POST("/api/projects", { body: { ...project, name: `${project.name} of ${clock(Date.parse(at))}` } })).then(
      (p) => setMade(p.id),
      () => setWhy("The server does not answer."),
    );
  if (made)
    return (
      <a className="btn btn-small" href={`/p/${made}`}>
        To the copy
      </a>
    );
  return (
    <>
      <button type="button" className="btn btn-small" onClick={() => void make()}>
        Copy it beside this
      </button>
      {why && <span role="alert">{why}</span>}
    </>
  );
}
