import type { QueryClient } from "@tanstack/react-query";
import { type StoreApi, createStore } from "zustand/vanilla";
import type { Done, Edit, Fix, PlanAnswer, Project, Shop } from "../api/client";
import type { Picked } from "../frame/items";
import { named, namesOf } from "../frame/names";
import { Documents, type Other } from "./documents";
import type { Elsewhere } from "./elsewhere";
import { applyFix } from "./fix";
import { type Asks, Gestures, type Refused } from "./gestures";
import type { History } from "./history";
import { type Planned, Planner, nothing } from "./planner";
import type { Now } from "./follow";
import { type Outgoing, Recorder, type ToDo, nothingDone, shelfOf } from "./record";
import type { SaveState } from "./saver";
import { beginning } from "./doing";
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

/** One project, open in this window: its documents, the plan that follows them, and the gestures that change them. */
export class OpenProject {
  readonly store: StoreApi<State>;
  readonly documents: Documents;
  readonly planner: Planner;
  readonly gestures: Gestures;
  readonly recorder: Recorder;
  private unfollow?: () => void;
  private readonly server: Server;

  constructor(
    client: QueryClient,
    readonly id: string,
    server?: Server,
    /** It stands for several projects that are bought and cut together: nothing of a frame can be changed. */
    readonly several = false,
  ) {
    this.store = createStore<State>(() => ({
      save: { is: "saved" },
      planned: { places: nothing, old: false },
      picked: undefined,
      marked: [],
      waiting: 0,
      outgoing: nothingDone,
    }));
    this.server = server ?? serverOf(client, id);
    this.documents = new Documents(this.store, this.server);
    this.planner = new Planner(this.store, this.server);
    this.gestures = new Gestures(this.store, this.documents, this.server);
    this.documents.onChange(this.planner.plan);
    this.documents.onChange(() => this.store.setState({ elsewhere: undefined })); // what is done here is told instead
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
    const own = ownOf(seen, shop(seen));
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
    this.documents.heardOf(n.revision ?? 0, n.shop);
    const { planned } = this.store.getState();
    if ((n.events ?? 0) > (planned.events ?? 0)) this.planner.refresh();
  };

  readonly putBack = async () => {
    await this.server.putBack();
    this.store.setState({ gone: false });
  };

  async open(first?: First) {
    await this.read(first);
    if (this.closed) return;
    this.recorder.open();
    this.unfollow = this.server.follow(this.heard);
  }

  private closed = false;

  private async read(first?: First) {
    if (first?.id !== this.id) return this.documents.open();
    const a = first.answer;
    if (a?.shopKey) remember(first.shop, a.shopKey);
    // the plan stands before what it is of is known to the planner, which then has nothing to ask
    if (a)
      this.planner.begin({
        plan: a.plan,
        repeats: a.repeats,
        beside: a.beside,
        drawing: a.drawings[0],
        of: { project: first.project, shop: first.shop },
        events: a.events,
        places: nothing,
        old: false,
      });
    return this.documents.open({
      project: { doc: first.project, revision: first.revision },
      shop: { doc: first.shop, revision: first.shopRevision },
    });
  }

  close() {
    this.closed = true;
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
