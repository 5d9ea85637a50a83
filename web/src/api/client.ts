/** The typed client. Every answer is either the thing asked for or a Refused with its problems. */

import { t } from "@lingui/core/macro";
import createClient, { type Middleware } from "openapi-fetch";
import { noteNoResponse, noteResponse } from "./connection";
import { FIELDS } from "./fields";
import type { FactKey } from "./generated";
import type { components, paths } from "./schema";

export type { FactKey };

type Schemas = components["schemas"];
export type Sheet = Schemas["Sheet"];
export type Part = Schemas["Part"];
export type Line = Schemas["Line"];
export type MethodEntry = Sheet["method"][number];
export type StepChange = Schemas["StepChange"];
export type OwnStep = Schemas["OwnStep"];
export type MethodText = Schemas["MethodText"];
export type PartRole = Part["role"];
/** A part of a sheet by name: its role; of a further part of that role "syrup-2" and so on. */
export type PartId = string;
export type Take = Schemas["Take"];
export type OutputPlace = Schemas["OutputPlace"];
export type PartialAmount = Schemas["PartialAmount"];
export type UnitId = Line["amount"]["unit"];
export type LongStep = Schemas["LongStep"];
export type WorkResult = Schemas["WorkResult"];
export type Fact = Schemas["Fact"];
export type Sensitivity = Schemas["Sensitivity"];
export type EstimateRow = Schemas["EstimateRow"];
/** By their keys: one that the core does not know does not compile. */
export type Facts = Partial<Record<FactKey, Fact>>;
export type FactChange = Schemas["FactChange"];
export type Problem = Schemas["Problem"];
export type Adjustment = Schemas["Adjustment"];
export type SheetCard = Schemas["SheetCard"];
export type SheetPage = Schemas["SheetPage"];
export type LogPage = Schemas["LogPage"];
export type TrashCard = Schemas["TrashCard"];
export type SheetOpen = Schemas["SheetOpen"];
export type RecalculatedSheet = Schemas["RecalculatedSheet"];
export type MapDot = Schemas["MapDot"];
export type WayCard = Schemas["WayCard"];
export type KitchenSettings = Schemas["Kitchen"];
export type Tin = Schemas["Tin"];
export type Steamer = Schemas["Steamer"];
export type Pot = Schemas["Pot"];
export type Pan = Schemas["Pan"];
export type Plan = Schemas["Plan"];
export type OccasionOpen = Schemas["OccasionOpen"];
export type OccasionCard = Schemas["OccasionCard"];
export type Occasion = Schemas["Occasion"];
export type RunOpen = Schemas["RunOpen"];
export type RunCard = Schemas["RunCard"];
export type RunState = Schemas["RunState"];
export type StepState = Schemas["StepState"];
export type StepResult = Schemas["StepResult"];
export type NewEvent = Schemas["NewEvent"];
export type BatchCard = Schemas["BatchCard"];
export type BatchOpen = Schemas["BatchOpen"];
export type BatchOutcome = Schemas["BatchOutcome"];
export type TemperatureCurve = Schemas["TemperatureCurve"];
export type BallDrawing = Schemas["BallDrawing"];
export type TinDrawing = Schemas["TinDrawing"];
export type CutDrawing = Schemas["CutDrawing"];
export type SteamerDrawing = Schemas["SteamerDrawing"];
export type HeatDrawing = NonNullable<WorkResult["drawings"]["heat"]>;
/** The drawing of one kind of heat. */
export type HeatOf<K extends HeatDrawing["kind"]> = Extract<HeatDrawing, { kind: K }>;
export type SchoolsCompared = Schemas["SchoolsCompared"];
export type SimulatedCookTraits = Schemas["SimulatedCookTraits"];
export type StoredPieces = Schemas["StoredPieces"];
export type SideBySide = Schemas["SideBySide"];
export type BlindTastingDetail = Schemas["BlindTastingDetail"];
export type NextTime = Schemas["NextTime"];
export type Comparison = Schemas["Comparison"];
export type FactOverTime = Schemas["FactOverTime"];
export type LearnedPage = Schemas["LearnedPage"];
export type ExplainedFault = Schemas["ExplainedFault"];
export type RefittedWindow = Schemas["RefittedWindow"];
export type ProbeLive = Schemas["ProbeLive"];
export type BurnerResult = Schemas["BurnerResult"];
export type MixDrawing = Schemas["MixDrawing"];
export type LineResult = Schemas["LineResult"];
export type PartResult = Schemas["PartResult"];
export type OutputResult = Schemas["OutputResult"];
export type OutputFlow = Schemas["OutputFlow"];
export type GrainResult = Schemas["GrainResult"];
export type IngredientCard = Schemas["IngredientCard"];
export type FamilyCard = Schemas["FamilyCard"];
export type ParsedRecipe = Schemas["ParsedRecipe"];
export type ParsedIngredientLine = Schemas["ParsedIngredientLine"];
export type ShoppingList = Schemas["ShoppingList"];
export type Pieces = Schemas["Pieces"];
export type RolledDough = Schemas["RolledDough"];
export type RolledDrawing = Schemas["RolledDrawing"];
export type TrayDrawing = Schemas["TrayDrawing"];
export type Cut = Schemas["Cut"];
export type BenchOpen = Schemas["BenchOpen"];
export type BenchCard = Schemas["BenchCard"];
export type BenchSetup = Schemas["BenchSetup"];
export type BenchState = Schemas["BenchState"];
export type NewMark = Schemas["MarkContent"];
export type EyeDay = Schemas["EyeDay"];
export type ScaleLive = Schemas["ScaleLive"];
export type BrowserCard = Schemas["BrowserCard"];
export type Role = Schemas["Role"];
export type HouseholdPage = Schemas["HouseholdPage"];
export type MemberCard = Schemas["MemberCard"];
export type NewInvitation = Schemas["NewInvitation"];
export type ShoppingLine = Schemas["ShoppingLine"];

/** What the server would not take, and why. `status` 0: it could not be reached. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly problems: Problem[],
    readonly worked: WorkResult | null = null,
  ) {
    super(problems[0] ? `${problems[0].path}: ${problems[0].says}` : t`not reached`);
  }
}

const cookie = (name: string) =>
  document.cookie
    .split("; ")
    .find((pair) => pair.startsWith(`${name}=`))
    ?.slice(name.length + 1);

const csrf: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", cookie("csrftoken") ?? "");
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: location.origin, fetch: (request) => globalThis.fetch(request) });
api.use(csrf);

/** Whether it was refused for who asks: that is no better a second time. */
const ofAnother = (error: unknown) => (error as { problems?: Problem[] } | undefined)?.problems?.[0]?.path === "role";

/** The data of an answer; throws Refused for anything else, an unreachable server included. */
export async function ask<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  const asked = Date.now();
  let answer: { data?: T; error?: unknown; response: Response };
  try {
    answer = await call;
  } catch (error) {
    if (error instanceof DOMException && error.name === "AbortError") throw error;
    noteNoResponse();
    throw new Refused(0, [{ path: "the kitchen", says: t`cannot be reached just now`, accepts: "" }]);
  }
  noteResponse(answer.response, asked);
  if (answer.response.ok) return answer.data as T;
  if (answer.response.status === 403 && !ofAnother(answer.error)) void api.GET("/api/session"); // a new token, for the next try
  const body = answer.error as { problems?: Problem[]; worked?: WorkResult | null } | undefined;
  const problems = body?.problems ?? [
    { path: "the kitchen", says: t`answered ${answer.response.status}`, accepts: "" },
  ];
  throw new Refused(answer.response.status, problems, body?.worked ?? null);
}

const ONE_OF = /(?<=sh|as)es$|s$/; // "dishes" and "lines" are each of many
const CALLED: ReadonlyMap<string, string> = new Map(FIELDS);
const UNIT = /_(g|mm|c|min|ml|pct|w|m|h|s)$/; // of what is no field of a document but a row of a table
const called = (field: string) => CALLED.get(field) ?? field.replace(UNIT, "").replaceAll("_", " ");
const WHOLE = new Set(["sheet", "kitchen", "event", "outcome", "occasion", "body", "vessel", "value"]);

/** Where in a document a problem lies, for a cook: "parts.0.lines.2.amount.value" is "Part 1, line 3, amount". */
export function whereWords(path: string): string {
  const steps = path.split(".");
  const told: string[] = [];
  for (const [i, step] of steps.entries()) {
    const before = steps[i - 1];
    if (/^\d+$/.test(step) && before !== undefined && told.length > 0)
      told.splice(-1, 1, `${called(before.replace(ONE_OF, ""))} ${Number(step) + 1}`);
    else if (!WHOLE.has(step) || steps.length === 1 || (i === steps.length - 1 && told.length === 0))
      told.push(called(step));
  }
  const words = told.join(", ");
  return words.charAt(0).toUpperCase() + words.slice(1);
}

/** A problem as one sentence for a cook: where it lies stays out when the field is in sight. */
export const sentence = (problem: Problem, named = true) =>
  `${named ? `${whereWords(problem.path)}: ` : ""}${problem.says}.${problem.accepts ? t` Accepted: ${problem.accepts}.` : ""}`;
export type DayPlan = Schemas["DayPlan"];
export type Clash = Schemas["Clash"];
export type PlanFix = Schemas["PlanFix"];
export type FeastCard = Schemas["FeastCard"];
