/** The API client, typed from the server's OpenAPI document, and the author's name that goes along with every request. */
import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { v7 } from "./uuid";

type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];
export type Manual = Schemas["Manual"];
export type ScoreTable = Schemas["ScoreTable"];
export type ManualView = Schemas["ManualView"];
export type Part = Schemas["Part"];
export type Step = Schemas["Step"];
export type Edit = Schemas["Edit"];
export type Applied = Schemas["Applied"];
export type Evidence = Schemas["Evidence"];
export type Finding = Schemas["Finding"];
export type Subject = Schemas["Subject"];
export type Image = Schemas["Image"];
export type HeardPlace = Schemas["HeardPlace"];
export type MarginRow = Schemas["MarginRow"];
export type LayerMap = Schemas["LayerMap"];
export type Facts = Schemas["Facts"];
export type ChainView = Schemas["ChainView"];
export type ChainRow = Schemas["ChainRow"];
export type ConditionRow = Schemas["ConditionRow"];
export type ScrewsView = Schemas["ScrewsView"];
export type GroupRow = Schemas["GroupRow"];
export type LedgerRow = Schemas["LedgerRow"];
export type ScrewTag = Schemas["Tag"];
export type Joint = Schemas["Joint"];
export type JointFacts = Schemas["JointFacts"];
export type Layer = Schemas["Layer"];
export type Outline = Schemas["Outline"];
export type HolePlace = Schemas["HolePlace"];
export type Setting = Schemas["Setting"];
export type RouteRow = Schemas["RouteRow"];
export type JobRow = Schemas["JobRow"];
export type StepsView = Schemas["StepsView"];
export type PartRow = Schemas["PartRow"];
export type RatingLabel = Schemas["RatingLabel"];
export type Replacement = Schemas["Replacement"];
export type Note = Schemas["Note"];
export type NoteKind = Schemas["NoteKind"];
export type TextHit = Schemas["TextHit"];
export type Wanted = Schemas["Wanted"];
export type ToolChoice = Schemas["ToolChoice"];
export type Weights = Schemas["Weights"];
export type Spot = Schemas["Spot"];
export type StatementRow = Schemas["StatementRow"];
export type ListenView = Schemas["ListenView"];
export type StatementKind = Schemas["StatementKind"];
export type FoldView = Schemas["Fold"];
export type GuideBlock = Schemas["Block"];
export type GuideStepBlock = Schemas["StepBlock"];
export type GuideLine = Schemas["StepLine"];
export type CableSheetRow = Schemas["CableSheetRow"];
export type CautionHead = Schemas["CautionHead"];
export type SheetRow = Schemas["SheetRow"];
export type SheetLayer = Schemas["SheetLayer"];
export type FastenerGroup = Schemas["FastenerGroup"];
export type Action = Schemas["Action"];
export type Drive = Schemas["Drive"];
export type Connector = Schemas["Connector"];
export type Heating = Schemas["Heating"];
export type Seam = Schemas["Seam"];
export type SeamMark = Schemas["SeamMark"];
export type MarkEdit = Schemas["MarkEdit"];
export type MarkKind = Schemas["MarkKind"];
export type OpeningPicture = Schemas["OpeningPicture"];
export type CableRow = Schemas["CableRow"];
export type RouteLayer = Schemas["RouteLayer"];
export type SheetRoutes = Schemas["SheetRoutes"];
export type LayerSpot = Schemas["LayerSpot"];
export type CautionsView = Schemas["CautionsView"];
export type HazardRow = Schemas["HazardRow"];
export type CablesView = Schemas["CablesView"];
export type SeamRow = Schemas["SeamRow"];
export type SeamsView = Schemas["SeamsView"];
export type HeatAnswer = Schemas["HeatAnswer"];
export type Heat = Schemas["Heat"];
export type Consumable = Schemas["Consumable"];
export type RecordingInfo = Schemas["RecordingInfo"];
export type Stop = Schemas["Stop"];

/** Until accounts arrive the name lives in the browser; the server decides what to do with it. */
const AUTHOR = "paso.author";
export const authorName = () => localStorage.getItem(AUTHOR) ?? "Local author";
export const setAuthorName = (name: string) => localStorage.setItem(AUTHOR, name);

export const api = createClient<paths>({ baseUrl: "" });
api.use({
  onRequest({ request }) {
    request.headers.set("Paso-Author", encodeURIComponent(authorName()));
    return request;
  },
});

export const isProblem = (error: unknown): error is Problem =>
  typeof error === "object" && error !== null && "detail" in error && "status" in error;

/** The answer's data, or its problem thrown. */
export async function must<T>(answer: Promise<{ data?: T; error?: unknown }>): Promise<T> {
  const { data, error } = await answer;
  if (error !== undefined) throw error;
  return data as T;
}

/** The sentence for people. */
export const sentence = (error: unknown): string =>
  isProblem(error) ? error.detail : "The server does not answer. Nothing is lost; try again in a moment.";

export const newId = v7;

/** Sends a file with progress from 0 to 1; `fetch` cannot tell how much has gone. */
export function bring(name: string, file: Blob, progress: (share: number) => void): Promise<RecordingInfo> {
  return new Promise((resolve, reject) => {
    const request = new XMLHttpRequest();
    request.open("POST", `/api/recordings?name=${encodeURIComponent(name)}`);
    request.responseType = "json";
    request.setRequestHeader("Paso-Author", encodeURIComponent(authorName()));
    request.setRequestHeader("Content-Type", "text/plain");
    request.upload.onprogress = (event) => progress(event.lengthComputable ? event.loaded / event.total : 0);
    request.onerror = () => reject(new Error("no answer"));
    request.onload = () => (request.status === 201 ? resolve(request.response) : reject(request.response));
    request.send(file);
  });
}
