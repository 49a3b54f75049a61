import type { QueryClient } from "@tanstack/react-query";
import { type StoreApi, createStore } from "zustand/vanilla";
import { type Done, type Edit, type Fix, type PlanAnswer, type Project, Refusal, type Shop } from "../api/client";
import type { Picked } from "../frame/items";
import { named, namesOf } from "../frame/names";
import { Documents, type Other } from "./documents";
import type { Elsewhere } from "./elsewhere";
import { applyFix } from "./fix";
import { type Asks, Gestures, type Refused } from "./gestures";
import type { History } from "./history";
import { type Planned, Planner, nothing } from "./planner";
import type { Now } from "./follow";
import { type Keeper, KeepsNewest, type Kept, type Stored, deviceKeeper } from "./kept";
import { type Outgoing, Recorder, type ToDo, nothingDone } from "./record";
import { shelfOf } from "./shelf";
import { freshAs, keptAs, keptHeader, pageKept } from "../lib/touch";
import type { SaveState } from "./saver";
import { beginning, notDone } from "./doing";
import { type ShopAsk, type Whom, isOwn, ownOf, shopFor } from "./scope";
import { type Server, remember, serverOf } from "./server";

/** Everything that is known of an open project this moment. */
export interface State {
  /** Nothing until it is read. */
  history?: History;
  /** Why it cannot be. */
  failed?: Error;
  save: SaveState;
  other?: Other;
  /** The newest plan. The page draws it when there is time; the tape at once. */
  planned: Planned;
  picked: Picked;
  /** What a name that is pointed at is of: it is lit on the frame meanwhile. */
  pointed?: Picked;
  /** Joints marked for a gesture on several. */
  marked: string[];
  /** The fitting that is being chosen: where, and which way its spare ports would point. */
  choosing?: { joints: string[]; spare: number[][] };
  /** A direction pressed on the frame, for the walk that is being typed. */
  way?: string;
  /** Why the last gesture was refused. */
  refused?: Refused;
  /** What the last one waits for. */
  asks?: Asks;
  /** The pipe that an answer to it is about. */
  about?: string;
  /** What the last one did besides what was asked for, and what may be wanted next. */
  last?: Done;
  /** Gestures under way. */
  waiting: number;
  /** What was done here, on its way into the record and the plan. */
  outgoing: Outgoing;
  /** A change of the shop that waits to be told whom it is for. */
  shopAsk?: ShopAsk;
  /** Whom the changes of the shop that follow are for, until the page is left; asked each time where nothing was said. */
  shopFor?: Whom;
  /** The server was put back to an earlier state of the project than this page has. */
  earlier?: Stored<Project>;
  /** The events that emptied the cart last, until something is put in. */
  emptied?: string[];
  /** The project was deleted, in another window. */
  gone?: boolean;
  /** What was done last in a project that is not open here, or why it was not. */
  elsewhere?: Elsewhere | Error;
}

/** What a page brings along of the project that it shows. */
export interface First {
  id: string;
  project: Project;
  revision: number;
  shop: Shop;
  shopRevision: number;
  answer?: PlanAnswer;
}

const patience = 4000; // ms that a page waits for the server before it shows what was kept

/** Nothing, after the server has not answered for a while, or at once where it cannot be reached. */
async function silence(): Promise<undefined> {
  const late = new Promise<undefined>((go) => setTimeout(go, patience, undefined));
  const none = fetch("/api/about").then(
    (r) => (r.headers.get(keptHeader) ? undefined : late),
    () => undefined,
  );
  return Promise.race([late, none]);
}

/** One project, open in this window: its documents, the plan that follows them, and the gestures that change them. */
export class OpenProject {
  readonly store: StoreApi<State>;
  readonly documents: Documents;
  readonly planner: Planner;
  readonly gestures: Gestures;
  readonly recorder: Recorder;
  private unfollow?: () => void;
  private readonly server: Server;
  private readonly keeps: KeepsNewest;
  /** The newest answer of the server, and when it came. */
  private answer?: PlanAnswer;
  private answered = 0;

  constructor(
    client: QueryClient,
    readonly id: string,
    server?: Server,
    /** It stands for several projects that are bought and cut together: nothing of a frame can be changed. */
    readonly several = false,
    private readonly keeper: Keeper = deviceKeeper(),
  ) {
    this.store = createStore<State>(() => ({
      save: { is: "saved" },
      planned: { places: nothing, old: false },
      picked: undefined,
      marked: [],
      waiting: 0,
      outgoing: nothingDone,
    }));
    const at = server ?? serverOf(client, id);
    this.server = {
      ...at,
      plan: async (d, o) => {
        const a = await at.plan(d, o);
        if (d === this.documents.current()) {
          this.answer = a;
          if (this.heardSince && this.documents.upToDate) freshAs(this.id);
        }
        this.answered = Date.now();
        return a;
      },
    };
    this.keeps = new KeepsNewest(id, this.keeper);
    this.documents = new Documents(this.store, this.server, () => this.keep());
    this.planner = new Planner(this.store, this.server);
    this.gestures = new Gestures(this.store, this.documents, this.server);
    this.documents.onChange(this.planner.plan);
    this.documents.onChange(() => this.store.setState({ elsewhere: undefined })); // what is done here is told instead
    this.documents.onChange(() => this.keep());
    this.store.subscribe((s, was) => {
      if (s.planned.plan !== was.planned.plan) this.keep();
    });
    this.recorder = new Recorder(
      shelfOf(id),
      (events) => this.server.say(events),
      (outgoing) => {
        const was = this.store.getState().outgoing;
        this.store.setState({ outgoing });
        if (outgoing.last > was.last) this.planner.refresh();
      },
    );
  }

  /** A plan is on the page: what was done and is in it is no longer on its way. */
  readonly shown = (p: Planned) => {
    if (p.events !== undefined) this.recorder.planned(p.events);
  };

  /** Something was done: it goes into the record, where no undo reaches it. The first time the figures it was begun with and the letters are fixed. */
  readonly did = (...all: ToDo[]) => {
    const { plan } = this.store.getState().planned;
    const desk = this.documents.current();
    if (!plan || !desk) return;
    const first = this.store.getState().outgoing.events.some((e) => e.kind === "begun") ? [] : beginning(plan, desk.shop);
    this.store.setState({ emptied: undefined });
    this.recorder.did([...first, ...all]);
  };

  /**
   * Changes what the shop sells or asks for it. Where that would change other projects it is
   * asked first whom it is for.
   */
  readonly changeShop = async (label: string, shop: (s: Shop) => Shop) => {
    const now = this.documents.current();
    if (!now) return;
    const after = shop(now.shop);
    if (after === now.shop) return;
    const seen = shopFor(now.shop, now.project);
    const own = ownOf(seen, shop(seen), now.project);
    if (own && isOwn(seen, shop(seen), now.project)) {
      this.documents.edit(label, own);
      return;
    }
    const ask = { label, shop, own };
    const { shopFor: whom } = this.store.getState();
    if (whom === "all" || (whom && own)) {
      this.changeFor(whom, ask);
      return;
    }
    const effect = await this.server.effect(now.shop, after).catch(() => undefined);
    const alone = effect?.changed.length === 0 && effect.more === 0;
    if (alone && !now.project.sale) this.documents.editShop(label, shop);
    else if (alone && own)
      this.documents.edit(label, own); // this project has a shop of its own already
    else this.store.setState({ shopAsk: { ...ask, effect } });
  };

  /** Says whom a change of the shop is for, and perhaps those that follow; nobody leaves it. */
  readonly answerShop = (whom?: Whom, always = false) => {
    const { shopAsk } = this.store.getState();
    this.store.setState({ shopAsk: undefined, ...(whom && always ? { shopFor: whom } : {}) });
    if (whom && shopAsk) this.changeFor(whom, shopAsk);
  };

  /** Asks again, each time, whom a change of the shop is for. */
  readonly askShop = () => this.store.setState({ shopFor: undefined });

  private changeFor(whom: Whom, { label, shop, own }: ShopAsk) {
    if (whom === "all") this.documents.editShop(label, shop);
    else if (own) this.documents.edit(`${label}, for this ${this.several ? "purchase" : "project"}`, own);
  }

  /** Takes something back, or anything else that needs nothing begun. */
  readonly say = (...all: ToDo[]) => this.recorder.did(all);

  /** Takes all out of the cart; one press puts it back. */
  readonly emptyCart = (all: ToDo[]) => this.store.setState({ emptied: this.recorder.did(all) });
  readonly fillCart = () => {
    const { emptied } = this.store.getState();
    this.store.setState({ emptied: undefined });
    this.recorder.did((emptied ?? []).map(notDone));
  };

  /** What was done in a project that is not open here is told, with its way back. */
  private async elsewhere(frame: number, doing: Promise<Elsewhere>) {
    const names = namesOf(this.store.getState().planned.plan?.frames[frame]);
    try {
      const done = await doing;
      this.store.setState({ elsewhere: { ...done, label: named(done.label, names) } });
    } catch (e) {
      this.store.setState({
        elsewhere: new Error(
          e instanceof TypeError ? "The server does not answer. Nothing was changed." : named((e as Error).message, names),
        ),
      });
    }
    this.planner.refresh();
  }

  /** Takes back what was done elsewhere last, or lets go of why it was not. */
  readonly undoElsewhere = async () => {
    const { elsewhere: e } = this.store.getState();
    this.store.setState({ elsewhere: undefined });
    if (!e || e instanceof Error) return;
    await e.undo().catch((why: Error) => this.store.setState({ elsewhere: new Error(why.message) }));
    this.planner.refresh();
  };

  /** The server has something newer than was known. */
  private readonly heard = (n: Now) => {
    if (n.gone) {
      this.store.setState({ gone: true });
      return;
    }
    if (this.store.getState().gone) this.store.setState({ gone: false });
    const { planned } = this.store.getState();
    if (this.run && this.run !== n.run && !this.several) void this.documents.lookAnew().catch(() => undefined);
    this.run = n.run;
    this.documents.heardOf(n.revision ?? 0, n.shop);
    // after a look at what was kept the server is asked once more, whatever it says of how new it is
    if ((n.events ?? 0) !== (planned.events ?? 0) || (this.fromDevice && !this.heardSince)) this.planner.refresh();
    this.heardSince = true;
  };
  private run?: string;
  /** The page was opened with what was kept. */
  private fromDevice = false;
  /** The server has said how new what it has is, since the page shows it. */
  private heardSince = false;

  readonly putBack = async () => {
    await this.server.putBack();
    this.store.setState({ gone: false });
  };

  async open(first?: First) {
    await this.read(first?.id === this.id ? first : undefined);
    if (this.closed || !this.documents.current()) return;
    this.recorder.open();
    this.unfollow = this.server.follow(this.heard);
  }

  /** Keeps on this device what is on the page, with what the server does not have of it. */
  private keep() {
    const docs = this.documents.kept();
    if (!docs || this.closed || !this.opened) return;
    this.keeps.keep({ at: this.answered || this.openedAt, ...docs, answer: this.answer });
  }
  /** What was changed would be lost with the window: it is neither with the server nor on this device. */
  get losable(): boolean {
    return this.documents.unsaved && (!KeepsNewest.can || this.keeps.pending);
  }
  /** What was left on this device is on the desk: from now on the page is what is kept. */
  private opened = false;
  private openedAt = 0;

  private closed = false;

  /** Puts the project on the desk: as the page brought it, as the server says, or as this device kept it. */
  private async read(first?: First) {
    const brought = first && {
      project: { doc: first.project, revision: first.revision },
      shop: { doc: first.shop, revision: first.shopRevision },
      answer: first.answer,
      at: pageKept(),
    };
    if (brought && !brought.at) {
      if (brought.answer?.shopKey) remember(brought.shop.doc, brought.answer.shopKey);
      this.begin({ ...brought, at: Date.now() });
      this.left(await this.keeper.get(this.id));
      return;
    }
    const had = await this.keeper.get(this.id);
    const kept = had && (!brought || had.at >= brought.at) ? had : brought;
    const asked = Promise.all([this.server.project(), this.server.shop()]);
    try {
      const said = await (kept ? Promise.race([asked, silence()]) : asked);
      if (said) {
        const [project, shop] = said;
        this.begin({ project, shop, at: Date.now() });
        this.left(had);
        return;
      }
    } catch (e) {
      if (!kept || e instanceof Refusal) {
        if (!this.closed) this.store.setState({ failed: e as Error });
        return;
      }
    }
    if (this.closed || !kept) return;
    asked.catch(() => undefined); // it is heard of by following
    this.fromDevice = true;
    keptAs(this.id, kept.at);
    this.begin(kept);
    this.left(had);
  }

  /** The plan stands before what it is of is known to the planner, which then has nothing to ask. */
  private begin({ project, shop, answer: a, at }: Pick<Kept, "project" | "shop" | "answer" | "at">) {
    if (this.closed) return;
    this.openedAt = at;
    if (a) {
      this.answer = a;
      this.planner.begin({
        plan: a.plan,
        repeats: a.repeats,
        beside: a.beside,
        drawing: a.drawings[0],
        of: { project: project.doc, shop: shop.doc },
        events: a.events,
        alone: a.alone,
        places: nothing,
        old: false,
      });
    }
    this.documents.open(project, shop);
  }

  /** What was changed here before, and never reached the server, is on the desk again. */
  private left(had?: Kept) {
    if (this.closed) return;
    this.opened = true;
    if (had?.mine) this.documents.takeUp(had.mine, had);
  }

  close() {
    this.closed = true;
    freshAs(this.id);
    this.unfollow?.();
    this.recorder.close();
    this.documents.close();
    this.planner.close();
    this.server.close();
  }

  readonly pick = (picked: Picked) => this.store.setState({ picked, pointed: undefined });
  readonly mark = (marked: string[]) => this.store.setState({ marked });

  readonly toWay = (way: string | undefined) => this.store.setState({ way });

  /** Carries out a finding's fix, which is a gesture or a change of what was said; of several projects a gesture is made in the one that has the frame. */
  readonly fix = (x: Fix, frame = 0) => {
    const made = x.edits.filter((e) => e.path === "/gesture");
    if (made.length > 0 && this.server.fixIn) {
      void this.elsewhere(frame, this.server.fixIn(frame, x));
      return;
    }
    if (made.length > 0) {
      void (async () => {
        for (const e of made) await this.gestures.run(e.value as Edit, { keep: true });
      })();
      return;
    }
    const now = this.documents.current();
    if (!now) return;
    const after = applyFix(now, x);
    if (after.shop !== now.shop) void this.changeShop(x.label, (s) => applyFix({ ...now, shop: s }, x).shop);
    if (after.project !== now.project) this.documents.edit(x.label, () => after.project);
  };
}
