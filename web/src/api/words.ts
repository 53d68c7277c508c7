/** What stands in a manual, as people read it: for a clash, for what was refused, for what was undone. */
import type { Edit, Image, ManualView } from "./client";

/** A value as words, never as a program writes it. */
export function inWords(value: unknown): string {
  if (value === null || value === undefined || value === "") return "nothing";
  if (typeof value === "string") return value;
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value === "number") return `${value}`;
  if (Array.isArray(value)) return value.length === 0 ? "nothing" : value.map(inWords).join("\n");
  const fields = Object.entries(value as object);
  const named = fields.find(([name]) => name === "text" || name === "title" || name === "name");
  if (named && typeof named[1] === "string") return named[1];
  const told = fields.filter(([name, inner]) => !HIDDEN.has(name) && inner !== null && !isId(inner) && !isEmpty(inner));
  if (told.length === 0) return "something without words";
  return told.map(([name, inner]) => `${label(name)}: ${inWords(inner)}`).join("\n");
}

/** What only programs need. */
const HIDDEN = new Set(["id", "rank", "evidence", "claims", "step", "variants", "parts", "holds"]);
const isId = (value: unknown) => typeof value === "string" && /^[0-9a-f]{8}-[0-9a-f]{4}-/.test(value);
const isEmpty = (value: unknown) => Array.isArray(value) && value.length === 0;

/** "time_s" as "time". */
export const label = (field: string) => field.replace(/_(s|mm|nm|c|v|mah|wh)$/, "").replaceAll("_", " ");

/** What an edit asks for: its innermost field, without the way there. */
export function wanted(edit: Edit): string {
  const leaf = innermost(edit);
  return leaf ? inWords(leaf.holder[leaf.key]) : inWords(edit);
}

type Leaf = { holder: Record<string, unknown>; key: string };

/** The one field that a `set` carries. */
function innermost(edit: unknown): Leaf | null {
  if (typeof edit !== "object" || edit === null || Array.isArray(edit)) return null;
  const record = edit as Record<string, unknown>;
  const { field } = record;
  if (typeof field === "object" && field !== null && !Array.isArray(field)) {
    const [key] = Object.keys(field);
    if (key) return { holder: field as Record<string, unknown>, key };
  }
  for (const inner of Object.values(record)) {
    const found = innermost(inner);
    if (found) return found;
  }
  return null;
}

/** The same edit with both texts in it, where it sets a running text and the other is one too. */
export function withBoth(edit: Edit, theirs: unknown): Edit | null {
  const both = structuredClone(edit);
  const leaf = innermost(both);
  const other = typeof theirs === "object" && theirs !== null ? (theirs as { text?: unknown }).text : theirs;
  if (!leaf || !RUNNING.has(leaf.key) || typeof other !== "string") return null;
  const mine = leaf.holder[leaf.key];
  if (typeof mine !== "string") return null;
  leaf.holder[leaf.key] = `${other} ${mine}`;
  return both;
}

/** Texts of which two behind each other make sense; two titles do not. */
const RUNNING = new Set(["text", "note", "advice"]);

const ASPECTS: Record<string, string> = {
  head: "the manual",
  steps: "step",
  fasteners: "screws",
  connectors: "plug",
  cautions: "caution",
  heats: "heat",
  seams: "seam",
  parts: "part",
  jobs: "guide",
  kit: "tool",
};

/** "the title of step 3", for what was undone; numbers are those of the page. */
export function placeInWords(view: ManualView, place: Image["place"]): string {
  const number = stepOf(view, place);
  const at = number ? `step ${view.order.indexOf(number) + 1}` : null;
  const field = place.field?.startsWith("actions/") ? "a sentence" : place.field ? label(place.field) : null;
  const thing = ASPECTS[place.aspect] ?? place.aspect.replaceAll("_", " ");
  const what = place.aspect === "steps" ? (at ?? "a step") : at ? `the ${thing} of ${at}` : thing;
  if (field === "a sentence" || field === "actions") return `a sentence of ${what}`;
  return field && field !== "rank" ? `${field} of ${what}` : what;
}

/** The step that a place is in, where it is in one. */
export function stepOf(view: ManualView, place: Image["place"]): string | null {
  const { manual } = view;
  if (place.aspect === "steps") return place.id in manual.steps ? place.id : null;
  const map = manual[place.aspect as "fasteners"] as Record<string, { step?: string }> | undefined;
  return map?.[place.id]?.step ?? null;
}
