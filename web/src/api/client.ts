/** The API client, typed from the server's OpenAPI document, and the author's name that goes along with every request. */
import createClient from "openapi-fetch";
import type { components, paths } from "./schema";
import { v7 } from "./uuid";

type Schemas = components["schemas"];
export type Problem = Schemas["Problem"];
export type Manual = Schemas["Manual"];
export type ManualView = Schemas["ManualView"];
export type Part = Schemas["Part"];
export type Step = Schemas["Step"];
export type Edit = Schemas["Edit"];
export type Applied = Schemas["Applied"];
export type Evidence = Schemas["Evidence"];
export type HeardFinding = Schemas["HeardFinding"];
export type Facts = Schemas["Facts"];
export type ChainView = Schemas["ChainView"];
export type ChainStep = Schemas["ChainStep"];
export type ConditionView = Schemas["ConditionView"];
export type Condition = Schemas["Condition"];
export type OrderFinding = Schemas["OrderFinding"];
export type ScrewsView = Schemas["ScrewsView"];
export type GroupView = Schemas["GroupView"];
export type LedgerRow = Schemas["LedgerRow"];
export type ScrewTag = Schemas["Tag"];
export type Joint = Schemas["Joint"];
export type JointFacts = Schemas["JointFacts"];
export type Layer = Schemas["Layer"];
export type Outline = Schemas["Outline"];
export type HolePlace = Schemas["HolePlace"];
export type Setting = Schemas["Setting"];
export type Mating = Schemas["Mating"];
export type ScrewClass = Schemas["Class"];
export type HeadForm = Schemas["HeadForm"];
export type RouteView = Schemas["RouteView"];
export type Reason = Schemas["Reason"];
export type JobView = Schemas["JobView"];
export type Posture = Schemas["Posture"];
export type DeviceView = Schemas["DeviceView"];
export type PartRow = Schemas["PartRow"];
export type Label = Schemas["Label"];
export type Replacement = Schemas["Replacement"];
export type Note = Schemas["Note"];
export type NoteKind = Schemas["NoteKind"];
export type TextHit = Schemas["TextHit"];
export type Wanted = Schemas["Wanted"];
export type ToolChoice = Schemas["ToolChoice"];
export type PartFate = Schemas["PartFate"];
export type Weights = Schemas["Weights"];
export type Risk = Schemas["Risk"];
export type Spot = Schemas["Spot"];
export type CautionSubject = Schemas["CautionSubject"];
export type Consumable = Schemas["Consumable"];
export type ConnectorOp = Schemas["ConnectorOp"];
export type FastenerOp = Schemas["FastenerOp"];
export type PartOp = Schemas["PartOp"];
export type HeatSource = Schemas["HeatSource"];
export type Heard = Schemas["Heard"];
export type ListenRecording = Schemas["ListenRecording"];
export type StatementKind = Schemas["StatementKind"];
export type Guide = Schemas["Guide"];
export type FastenerGroup = Schemas["FastenerGroup"];
export type Action = Schemas["Action"];
export type Drive = Schemas["Drive"];
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
