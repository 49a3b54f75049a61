import type { StoreApi } from "zustand/vanilla";
import { type Done, type Edit, type Option, type Project, type Question, Refusal } from "../api/client";
import { type Names, kept, named, namesOf } from "../frame/names";
import { unitOf } from "../lib/format";
import type { Style } from "../lib/format";
import { isTyping } from "../lib/focus";
import type { Documents } from "./documents";
import type { Held } from "./history";
import type { State } from "./open-project";
import type { Server } from "./server";

/** What kind of gesture it is. */
export type Kind = Exclude<keyof Edit, "unit" | "answers" | "$schema">;

/** Why a gesture was refused. */
export interface Refused {
  kind: Kind;
  what: string;
  /** The id of the field or form that asked, which shows it. */
  at?: string;
  /** The field of the gesture that is at fault, where one is: on/0. */
  field?: string;
  /** The place in the text that was typed, in characters. */
  place?: number;
}

/** What a gesture waits for: an option chosen, or nothing to let it be. */
export interface Asks {
  question: Question;
  choose: (option: Option | undefined) => void;
}

/** What was done, with what it gave up, as the tape and the history tell it. */
export const toldOf = (d: Done) => [d.label, ...(d.gave ?? []).map((g) => `${g.was}${g.now ? ` → ${g.now}` : ""}, ${g.words}`)].join("; ");

/** Every text of what was done or is asked, by a function. */
function texts<T>(of: T, by: (text: string) => string): T {
  if (typeof of === "string") return by(of) as T;
  if (Array.isArray(of)) return of.map((x) => texts(x, by)) as T;
  if (of === null || typeof of !== "object") return of;
  return Object.fromEntries(Object.entries(of).map(([k, v]) => [k, texts(v, by)])) as T;
}

const kindOf = (e: Edit) => Object.keys(e).find((k) => k !== "unit" && k !== "answers") as Kind;

const tries = 4;

/** A gesture that goes on: each of its edits replaces the one before, from the same beginning. */
interface Pull {
  on: Held;
  base: Project;
  /** What the pull made of it last; another project on the desk means that something else was done. */
  made: Project;
  want?: Edit;
  busy: boolean;
  /** Something else was done meanwhile, an undo perhaps: the rest of the pull does nothing. */
  over: boolean;
}

/** Gestures on the frame: the server makes them, one after the other, and each is a step that can be undone. */
export class Gestures {
  private tail: Promise<unknown> = Promise.resolve();
  private going?: Pull;
  /** What was answered, so that undoing it asks again. */
  private answered?: { before: Project; after: Project; edit: Edit; keep: boolean };

  constructor(
    private readonly store: StoreApi<State>,
    private readonly documents: Documents,
    private readonly server: Server,
  ) {
    documents.onChange((d) => {
      const a = this.answered;
      if (!a) return;
      this.answered = d.project === a.after ? a : undefined;
      // undo brings the question back, but not over what is being typed
      const { history } = store.getState();
      if (history?.undone && history.since?.project === a.after && !isTyping()) void this.run(a.edit, { keep: a.keep });
    });
  }

  /** Makes a gesture on the frame as it is when its turn comes; what is picked stays picked with keep, and at is the id of the field that asks, which shows a refusal itself. Nothing is given back when it is refused. */
  readonly run = (asked: Edit, o?: { keep?: boolean; at?: string }): Promise<Done | undefined> => {
    this.store.setState((s) => ({ waiting: s.waiting + 1 }));
    const mine = this.tail.then(() => this.turn(asked, o)).finally(() => this.store.setState((s) => ({ waiting: s.waiting - 1 })));
    this.tail = mine;
    return mine;
  };

  /** A gesture that goes on: each replaces the one before it, from the same beginning, as one step. */
  readonly pull = (edit: Edit, on: Held) => {
    const project = this.documents.current()?.project;
    if (!project) return;
    if (this.going?.on !== on) this.going = { on, base: project, made: project, busy: false, over: false };
    const g = this.going;
    if (g.over || project !== g.made) {
      g.over = true;
      return;
    }
    g.want = edit;
    if (!g.busy) void this.follow(g);
  };

  /** The frame as it is, for what is worked out of it. */
  readonly revision = () => this.documents.current()?.project;

  /** What a gesture would give up or ask, without making it; nothing where it goes against nothing. */
  readonly foretell = async (edit: Edit): Promise<string> => {
    const project = this.documents.current()?.project;
    if (!project) return "";
    try {
      const a = await this.make(project, edit);
      if (a.question) return `It asks: ${a.question.what}`;
      const gave = (a.done.gave ?? []).map((g) => `${g.was}${g.now ? ` → ${g.now}` : ""}, ${g.words}`);
      return gave.length > 0 ? `Gives way: ${gave.join("; ")}` : "Nothing else gives way.";
    } catch (e) {
      return e instanceof Refusal ? (Object.values(e.places)[0] ?? "") : "";
    }
  };

  /** The lines of the frame as it is. */
  readonly page = () => this.documents.current()?.project.page;

  /** Ends what goes on. */
  readonly drop = () => {
    const g = this.going;
    this.going = undefined;
    if (g && !g.busy) this.documents.settle();
  };

  private async follow(g: Pull) {
    g.busy = true;
    while (g.want && !g.over) {
      const want = g.want;
      g.want = undefined;
      try {
        const a = await this.make(g.base, want);
        if (this.documents.current()?.project !== g.made) {
          g.over = true;
          break;
        }
        if (a.question)
          this.store.setState({
            refused: { kind: kindOf(want), what: `${a.question.what.replace(/\.$/, "")}: type it in its field, and choose` },
          });
        else {
          this.documents.edit(a.done.label, () => a.project, g.on);
          g.made = this.documents.current()?.project ?? a.project;
          this.store.setState({ refused: undefined, last: a.done });
        }
      } catch (e) {
        this.refuse(want, e);
      }
    }
    g.busy = false;
    if (this.going !== g) this.documents.settle(); // it was let go while the last answer was under way
  }

  private async make(project: Project, edit: Edit) {
    const shop = this.documents.current()?.shop;
    // a bare number is in the unit that lengths are shown in when it is typed
    const a = await this.server.edit(project, shop, { unit: unitOf((project.style || "inches") as Style), ...edit });
    const names = this.names();
    // what was done is told for as long as it can be undone; a question is answered now
    return {
      ...a,
      done: texts(a.done, (t) => kept(t, names)),
      question: texts(a.question, (t) => named(kept(t, names), names)),
    };
  }

  /** The names of the frame as it is shown. */
  private names(): Names {
    return namesOf(this.store.getState().planned.plan?.frames[0]);
  }

  private refuse(edit: Edit, e: unknown, at?: string) {
    const kind = kindOf(edit);
    const [pointer, why] =
      e instanceof Refusal ? (Object.entries(e.places)[0] ?? ["", e.message]) : ["", "The server does not answer. Nothing was changed."];
    const what = named(why, this.names());
    const field = pointer.startsWith(`/edit/${kind}/`) ? pointer.slice(`/edit/${kind}/`.length) : undefined;
    const value = e instanceof Refusal ? e.value(pointer) : undefined;
    const place = typeof value === "number" ? value : undefined;
    this.store.setState({ refused: { kind, at, field, place, what: what.charAt(0).toUpperCase() + what.slice(1) } });
  }

  private async turn(asked: Edit, o?: { keep?: boolean; at?: string }): Promise<Done | undefined> {
    let edit = asked;
    for (let n = 0; n < tries + (edit.answers?.length ?? 0); n++) {
      const project = this.documents.current()?.project;
      if (!project) return undefined;
      try {
        const a = await this.make(project, edit);
        if (this.documents.current()?.project !== project) continue; // something else was changed meanwhile: it is made on that
        if (a.question) {
          const question = a.question;
          const option = await new Promise<Option | undefined>((choose) => this.store.setState({ asks: { question, choose } }));
          this.store.setState({ asks: undefined, about: undefined });
          if (option === undefined) return undefined;
          edit = { ...edit, answers: [...(edit.answers ?? []), option.id, ...(option.more ?? [])] };
          continue;
        }
        this.documents.settle();
        this.documents.edit(toldOf(a.done), () => a.project);
        this.answered = edit.answers?.length ? { before: project, after: a.project, edit: asked, keep: o?.keep ?? false } : undefined;
        this.store.setState({ refused: undefined, last: a.done });
        if (!o?.keep)
          this.store.setState({
            picked: a.done.joint ? { is: "joint", id: a.done.joint } : a.done.pipe ? { is: "pipe", id: a.done.pipe } : undefined,
          });
        return a.done;
      } catch (e) {
        this.refuse(edit, e, o?.at);
        return undefined;
      }
    }
    return undefined;
  }
}
