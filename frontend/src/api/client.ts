import createClient, { type Middleware } from "openapi-fetch";
import i18next from "../i18n";
import { signedOut } from "./away";
import { patient } from "./patient";
import type { components, paths } from "./schema";

type Schemas = components["schemas"];
export type Plan = Schemas["Plan"];
export type Piece = Schemas["PieceView"];
export type PieceLine = Schemas["PieceLine"];
export type Worked = Schemas["Worked"];
export type Bench = Schemas["Bench"];
export type Brief = Schemas["Brief_as_typed"];
export type Measure = Schemas["Measure_as_typed"];
export type Reading = Schemas["Reading_as_typed"];
export type Wearer = Schemas["WearerView"];
export type ImportView = Schemas["Import"];
export type Facts = Schemas["Facts"];
export type Session = Schemas["Session"];
export type Rack = Schemas["RackView"];
export type StockLine = Schemas["StockView"];
export type Board = Schemas["BoardView"];
export type BoardGroup = Schemas["GroupView"];
export type Fetch = Schemas["FetchView"];
export type BoardCut = Schemas["CutOnBoard"];
export type GaugeRow = Schemas["GaugeRow"];
export type Sense = Schemas["Sense"];
export type Proposal = Schemas["Proposal"];
export type Sheet = Schemas["Sheet"];
export type WireShown = Schemas["WireShown"];
export type WovenShown = Schemas["WovenShown"];
export type BodyMeasure = Schemas["BodyMeasure"];
export type Advice = Schemas["Advice"];
export type FieldProblem = Schemas["Problem"];
export type ProblemDetails = Schemas["ProblemDetails"];
export type Stale = Schemas["Stale"];
export type Standing = Schemas["Standing"];
export type WireNow = Schemas["WireNow"];
export type Way = Schemas["Settle"]["way"];
export type ShopView = Schemas["ShopView"];
export type ShopTyped = Schemas["Shop_as_typed"];
export type AtBench = Schemas["AtBenchView"];
export type StepAtBench = Schemas["StepAtBench"];
export type OnTheWay = Schemas["OnTheWayView"];
export type WaitView = Schemas["WaitView"];
export type Waits = Schemas["Waits"];
export type Hand = Schemas["HandView"];
export type Technique = Schemas["TechniqueView"];
export type HandRecord = Schemas["RecordView"];
export type LogLine = Schemas["EntryLine"];
export type LogEntry = Schemas["EntryView"];
export type Day = Schemas["DayView"];
export type DayIn = Schemas["DayIn"];
export type Away = Schemas["AwayView"];
export type Unit = "mm" | "in";
export type Station = "measure" | "make_up" | "cut" | "form" | "fit";
export const STATIONS: Station[] = ["measure", "make_up", "cut", "form", "fit"];

/** An answer that was no success, with its problem details. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly details: ProblemDetails,
  ) {
    super(details.detail);
  }
}

function cookie(name: string): string {
  const found = document.cookie.split("; ").find((part) => part.startsWith(`${name}=`));
  return found ? decodeURIComponent(found.slice(name.length + 1)) : "";
}

const token: Middleware = {
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", cookie("jamreel_csrf"));
    return request;
  },
};

export const api = createClient<paths>({ baseUrl: "/", fetch: (request) => patient(request) });
api.use(token);

interface Answered<Data> {
  data?: Data;
  error?: unknown;
  response: Response;
}

/** The data of an answer, as the document declares it, or an ApiError. */
export async function ask<Data>(answer: Promise<Answered<Data>>): Promise<Data> {
  const { data, error, response } = await answer.catch((): never => {
    throw new ApiError(0, inWords(0));
  });
  if (response.ok) return data as Data;
  const details = isProblem(error) ? error : inWords(response.status);
  // Signed out elsewhere: the page asks for the password, over the work.
  if (response.status === 401) signedOut.say(true);
  throw new ApiError(response.status, details);
}

function isProblem(error: unknown): error is ProblemDetails {
  return typeof error === "object" && error !== null && "detail" in error;
}

/** What is said of an answer without words of its own: none at all, or a proxy's. */
function inWords(status: number): ProblemDetails {
  const key = status === 0 || status >= 500 ? "fault.away" : "fault.other";
  return { type: "about:blank", title: "", status, detail: i18next.t(key) };
}
