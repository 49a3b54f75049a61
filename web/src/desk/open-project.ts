import type { QueryClient } from "@tanstack/react-query";
import { type StoreApi, createStore } from "zustand/vanilla";
import type { Done, Finding, Fix, Edit, PlanAnswer, Project, Shop } from "../api/client";
import type { Picked } from "../frame/items";
import { Documents, type Other } from "./documents";
import { applyFix } from "./fix";
import { type Asks, Gestures, type Refused } from "./gestures";
import type { History } from "./history";
import { type Planned, Planner, nothing } from "./planner";
import type { SaveState } from "./saver";
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
  private readonly server: Server;

  constructor(
    client: QueryClient,
    readonly id: string,
    server?: Server,
  ) {
    this.store = createStore<State>(() => ({
      save: { is: "saved" },
      planned: { places: nothing, old: false },
      picked: undefined,
      marked: [],
      waiting: 0,
    }));
    this.server = server ?? serverOf(client, id);
    this.documents = new Documents(this.store, this.server);
    this.planner = new Planner(this.store, this.server);
    this.gestures = new Gestures(this.store, this.documents, this.server);
    this.documents.onChange(this.planner.plan);
  }

  async open(first?: First) {
    if (first?.id !== this.id) return this.documents.open();
    const a = first.answer;
    if (a?.shopKey) remember(first.shop, a.shopKey);
    // the plan stands before what it is of is known to the planner, which then has nothing to ask
    if (a)
      this.planner.begin({
        plan: a.plan,
        repeats: a.repeats,
        drawing: a.drawings[0],
        of: { project: first.project, shop: first.shop },
        places: nothing,
        old: false,
      });
    return this.documents.open({
      project: { doc: first.project, revision: first.revision },
      shop: { doc: first.shop, revision: first.shopRevision },
    });
  }

  close() {
    this.documents.close();
    this.planner.close();
    this.server.close();
  }

  readonly pick = (picked: Picked) => this.store.setState({ picked, pointed: undefined });
  readonly mark = (marked: string[]) => this.store.setState({ marked });

  readonly toWay = (way: string | undefined) => this.store.setState({ way });

  /** Carries out a finding's fix, which is a gesture or a change of what was said. */
  readonly fix = (_: Finding, x: Fix) => {
    const made = x.edits.find((e) => e.path === "/gesture");
    if (made) {
      void this.gestures.run(made.value as Edit, { keep: true });
      return;
    }
    const now = this.documents.current();
    if (!now) return;
    const after = applyFix(now, x);
    if (after.shop !== now.shop) this.documents.editShop(x.label, () => after.shop);
    if (after.project !== now.project) this.documents.edit(x.label, () => after.project);
  };
}
