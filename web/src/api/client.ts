import createClient from "openapi-fetch";
import { noticed } from "../lib/touch";
import type { components, paths } from "./schema";

export const api = createClient<paths>({ baseUrl: "/" });
api.use({
  onResponse: ({ response }) => {
    noticed(response);
  },
});

type S = components["schemas"];
export type Project = S["Project"];
export type PlanAnswer = S["PlanAnswer"];
export type Plan = S["Plan"];
export type PlanFrame = S["PlanFrame"];
export type CutLine = S["ProcureCutLine"];
export type Material = S["StockMaterial"];
export type CutStick = S["ProcureStick"];
export type StickPiece = S["ProcureStickPiece"];
export type PipeTotal = S["ProcurePipeTotal"];
export type Existing = S["ProcureExisting"];
export type DoneEvent = S["RecordEvent"];
export type EventsAnswer = S["EventsAnswer"];
export type PastState = S["PastState"];
export type Effect = S["Effect"];
export type Finding = S["Finding"];
export type Starter = S["DrawnStarter"];
export type Prompt = S["StarterPrompt"];
export type Repeat = S["StarterRepeat"];
export type Answer = S["StarterAnswer"];
export type Size = S["LayoutSize"];
export type StoredShop = S["StoredShop"];
export type Shop = S["Shop"];
export type Savings = S["PlanSavings"];
export type Repair = S["PlanRepair"];
export type SizeSaving = S["PlanSizeSaving"];
export type Mistakes = S["ProcureMistakes"];
export type Progress = S["PlanProgress"];
export type ModeRule = S["FrameModeRule"];
export type Pipe = S["PlanPipe"];
export type Joint = S["PlanJoint"];
export type CutAnswer = S["CutAnswer"];
export type Label = S["PlanLabel"];
export type Offcut = S["ShopOffcut"];
export type OnRack = S["OnRack"];
export type Substitute = S["PlanSubstitute"];
export type Suppliers = S["Suppliers"];
export type SupplierAnswer = S["SupplierAnswer"];
export type Cheaper = S["PlanCheaper"];
export type BoughtOne = S["BoughtOne"];
export type BadCut = S["PlanBadCut"];
export type Lot = S["MaterialLot"];
export type Price = S["CostPrice"];
export type Asked = S["CostAsked"];
export type PriceBook = S["PriceBook"];
export type PricePart = S["PricePart"];
export type PriceRow = S["PricelistRow"];
export type Port = S["FittingPort"];
export type Edit = S["Edit"];
export type Measure = Omit<S["MeasureRequest"], "shop" | "unit" | "$schema">;
export type Done = S["EditDone"];
export type Question = S["EditQuestion"];
export type Option = S["EditOption"];
export type Place = S["LayoutPlace"];
export type Choice = S["FittingChoice"];
export type Fix = S["FindingFix"];
export type Card = S["Card"];
export type ProjectLine = S["ProjectLine"];
export type Line = S["CostLine"];
export type Term = S["WhyTerm"];
type Problem = S["Problem"];

/** A refusal of the server: what is wrong, and where. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.title ?? problem.detail ?? "The server did not answer as expected");
  }
  /** The page is of another version than the server: nothing that was sent is wrong in itself. */
  get otherVersion(): boolean {
    return this.problem.type === "other-version";
  }
  /** What is wrong, by its place in the request: a JSON pointer. */
  get places(): Record<string, string> {
    return Object.fromEntries((this.problem.errors ?? []).map((e) => [e.pointer, e.message]));
  }
  value(pointer: string): unknown {
    return this.problem.errors?.find((e) => e.pointer === pointer)?.value;
  }
}

/** Unwraps an answer, or throws a Refusal. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const { data, error, response } = await call;
  if (error !== undefined || !response.ok) throw new Refusal(response.status, (error ?? {}) as Problem);
  return data as T;
}

/** A JSON pointer (RFC 6901) of its tokens. */
export const pointer = (...tokens: string[]) => tokens.map((t) => `/${t.replaceAll("~", "~0").replaceAll("/", "~1")}`).join("");
