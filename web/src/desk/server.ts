import type { QueryClient } from "@tanstack/react-query";
import {
  type BadCut,
  type Cheaper,
  type DoneEvent,
  type Edit,
  type Effect,
  type EventsAnswer,
  type Fix,
  type Mistakes,
  type PlanAnswer,
  type Progress,
  type Project,
  Refusal,
  type Savings,
  type Shop,
  type Substitute,
  type Suppliers,
  api,
  ask,
} from "../api/client";
import { freshAs, keptHeader, noticed } from "../lib/touch";
import { deviceName } from "./device";
import type { Elsewhere } from "./elsewhere";
import { type Now, follow } from "./follow";
import type { Desk } from "./history";
import type { Stored } from "./kept";

type EditAnswer = NonNullable<Awaited<ReturnType<typeof editAt>>>;
const editAt = (body: { project: Project; shop?: Shop; edit: Edit; of?: string }) => ask(api.POST("/api/edit", { body }));

/** What an open project asks of the server. */
export interface Server {
  /** Reads are tried again until they succeed, or until the project is closed. */
  project: () => Promise<Stored<Project>>;
  shop: () => Promise<Stored<Shop>>;
  saveProject: (revision: number, p: Project) => Promise<number>;
  saveShop: (revision: number, s: Shop) => Promise<number>;
  edit: (project: Project, shop: Shop | undefined, e: Edit) => Promise<EditAnswer>;
  plan: (d: Desk, o: PlanOptions) => Promise<PlanAnswer>;
  /** Says what was done. */
  say: (events: DoneEvent[]) => Promise<EventsAnswer>;
  /** What a shop as it would be changes in other projects. */
  effect: (was: Shop, shop: Shop) => Promise<Effect>;
  /** Of several projects: carries out a fix in the one that has a frame of the plan. */
  fixIn?: (frame: number, x: Fix) => Promise<Elsewhere>;
  putBack: () => Promise<void>;
  /** Hears of what others change; gives what ends it. */
  follow: (heard: (n: Now) => void) => () => void;
  /** The project is closed: what is still being read is let go. */
  close: () => void;
}

/** What the server says itself: what was kept in its place is as good as no answer. */
export async function own<T extends { response: Response }>(call: Promise<T>): Promise<T> {
  const answer = await call;
  if (answer.response.headers.get(keptHeader)) {
    freshAs(answer.response.url); // nothing of it is shown
    throw new TypeError("kept on this device");
  }
  return answer;
}

/**
 * The server, by way of the query client: reads can be cancelled, and what changes one
 * thing goes one after the other (a mutation scope for the project, one for the shop and
 * one for gestures).
 */
export function serverOf(client: QueryClient, id: string): Server {
  const read = <T>(key: string, call: (signal: AbortSignal) => Promise<T>) =>
    client.fetchQuery({
      queryKey: ["open", id, key],
      queryFn: ({ signal }) => call(signal),
      staleTime: 0,
      gcTime: 0,
      // a refusal is an answer; silence is not
      retry: (_n, e) => !(e instanceof Refusal && e.status < 500),
      retryDelay: (n) => Math.min(4000, 500 * 2 ** n),
    });
  const write = <T>(scope: string, call: () => Promise<T>) =>
    client
      .getMutationCache()
      .build<T, Error, void, unknown>(client, { mutationFn: call, scope: { id: `${scope} ${id}` }, networkMode: "always", gcTime: 0 })
      .execute();
  return {
    project: () =>
      read("project", async (signal) => {
        const p = await ask(own(api.GET("/api/projects/{id}", { params: { path: { id } }, signal })));
        return { doc: p.project, revision: p.revision };
      }),
    shop: () =>
      read("shop", async (signal) => {
        const s = await ask(own(api.GET("/api/shop", { signal })));
        return { doc: s.shop, revision: s.revision };
      }),
    saveProject: (revision, project) =>
      write(
        "save",
        async () => (await ask(api.PUT("/api/projects/{id}", { params: { path: { id } }, body: { revision, project } }))).revision,
      ),
    saveShop: (revision, shop) => write("shop", async () => (await ask(api.PUT("/api/shop", { body: { revision, shop } }))).revision),
    edit: (project, shop, edit) => write("gesture", () => editAt({ project, shop, edit, of: id })),
    plan: (d, o) => planOf(d, { ...o, of: id }),
    say: (events) => write("record", () => sayDone(id, events)),
    effect: (was, shop) => ask(api.POST("/api/shop/effect", { body: { was, shop, of: id } })),
    follow: (heard) => follow(id, heard),
    putBack: async () => {
      await ask(api.POST("/api/projects/{id}/restore", { params: { path: { id } } }));
    },
    close: () => void client.cancelQueries({ queryKey: ["open", id] }),
  };
}

const texts = new WeakMap<Shop, string>();
function textOf(shop: Shop): string {
  let t = texts.get(shop);
  if (t === undefined) {
    t = JSON.stringify(shop);
    texts.set(shop, t);
  }
  return t;
}

/** What the server calls shops that were sent to it: sending one takes it longer than planning a small frame. */
const keys = new WeakMap<Shop, string>();

/** What the server calls a shop that the page brought along. */
export const remember = (shop: Shop, key: string) => void keys.set(shop, key);

/** Says what was done to a project. */
export const sayDone = (id: string, events: DoneEvent[]): Promise<EventsAnswer> =>
  ask(api.POST("/api/projects/{id}/events", { params: { path: { id } }, body: { device: deviceName(), events } }));

/** A project that stands for several, by their ids with commas between: enough to say what was done to them. */
export const standsFor = (of: string): Project => ({
  name: "",
  units: "in",
  style: "inches",
  copies: 1,
  tool: "",
  together: { of: of.split(",") },
});

/** Says what was done to several projects: each has its share in its record. */
export const sayTogether = (project: Project, events: DoneEvent[]): Promise<EventsAnswer> =>
  ask(
    api.POST("/api/together/events", {
      body: { project, device: deviceName(), events: events.map(({ seq: _s, at: _a, device: _d, ...e }) => e) as typeof events },
    }),
  );

export interface PlanOptions {
  draw?: boolean;
  draft?: boolean;
  /** The stored project whose record counts. */
  of?: string;
  /** By the shop's newest figures, whatever the work was begun with. */
  newest?: boolean;
  /** Of savings: cuts that were typed may change, too. */
  typed?: boolean;
  signal?: AbortSignal;
  /** What else is sent. */
  more?: Record<string, unknown>;
}

/** Asks something of a desk: the answer, once it is no refusal. */
async function askOf(path: string, d: Desk, o: PlanOptions): Promise<Response> {
  const key = keys.get(d.shop);
  const of = d.project.together ? undefined : o.of; // several have their records each
  const call = fetch(path, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: `{"project":${JSON.stringify(d.project)},${key ? `"shopKey":"${key}"` : `"shop":${textOf(d.shop)}`}${o.draw ? ',"draw":true' : ""}${o.draft ? ',"draft":true' : ""}${of ? `,"of":${JSON.stringify(of)}` : ""}${o.newest ? ',"newest":true' : ""}${o.typed ? ',"typed":true' : ""}${o.more ? `,${JSON.stringify(o.more).slice(1, -1)}` : ""}}`,
    signal: o.signal,
  });
  const r = noticed(await call);
  if (r.ok) return r;
  const refusal = new Refusal(r.status, await r.json().catch(() => ({})));
  if (!key || !refusal.places["/shopKey"]) throw refusal;
  keys.delete(d.shop); // it was forgotten
  return askOf(path, d, o);
}

/** Plans a desk. */
export async function planOf(d: Desk, o: PlanOptions = {}): Promise<PlanAnswer> {
  const answer = (await (await askOf("/api/plan", d, o)).json()) as PlanAnswer;
  if (answer.shopKey) keys.set(d.shop, answer.shopKey);
  return answer;
}

/** What small changes save, and what takes a stick off its knife edge. */
export const savingsOf = async (d: Desk, o: PlanOptions): Promise<Savings> => (await askOf("/api/savings", d, o)).json();

/** What each cut that is still to be made would cost if it were spoilt. */
export const mistakesOf = async (d: Desk, o: PlanOptions): Promise<Mistakes[]> => (await askOf("/api/mistakes", d, o)).json();

/** What becomes of a cut that went wrong, and what it costs; nothing is recorded. */
export const badCutOf = async (d: Desk, event: DoneEvent, o: PlanOptions): Promise<BadCut> =>
  (await askOf("/api/badcut", d, { ...o, more: { ...o.more, event } })).json();

/** What costs less than a project as it is: other sticks of a size, other tools, cement and sizes of pipe. */
export const cheaperOf = async (d: Desk, size: string, o: PlanOptions): Promise<Cheaper[]> =>
  (await askOf("/api/cheaper", d, { ...o, more: { size } })).json();

/** A project in an open format; its header X-Lost says what that could not carry. */
export const fileOf = (d: Desk, kind: string, o: PlanOptions): Promise<Response> => askOf(`/api/export/${kind}`, d, o);

/** What a project comes to at each supplier, and split among them. */
export const suppliersOf = async (d: Desk, more: { days?: number; but?: string[] }, o: PlanOptions): Promise<Suppliers> =>
  (await askOf("/api/suppliers", d, { ...o, more })).json();

/** What may stand at every joint of a kind that is not to be had, and what it does. */
export const substitutesOf = async (d: Desk, kind: string, size: string, o: PlanOptions): Promise<Substitute[]> =>
  (await askOf("/api/substitutes", d, { ...o, more: { kind, size } })).json();

/** Goes on with the search for the best purchase, and tells each time it has come further. */
export async function improve(d: Desk, o: PlanOptions, tell: (p: Progress) => void): Promise<void> {
  const body = (await askOf("/api/improve", d, o)).body?.pipeThrough(new TextDecoderStream()).getReader();
  let rest = "";
  for (;;) {
    const next = await body?.read();
    if (!next || next.done) return;
    const lines = (rest + next.value).split("\n");
    rest = lines.pop() ?? "";
    for (const l of lines) if (l) tell(JSON.parse(l) as Progress);
  }
}
