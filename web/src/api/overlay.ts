/**
 * What was typed and has not reached the server yet, laid over the server's copy: words and their place in the list are
 * there at once; whatever is worked out of them waits for the answer.
 */
import type { Edit, ManualView, Step } from "./client";
import type { Pending } from "./kept";

type Manual = ManualView["manual"];
type StepEdit = Extract<Edit, { step: unknown }>["step"];
type SentenceEdit = Extract<StepEdit, { sentence: unknown }>["sentence"]["sentence"];
type Sentence = Step["actions"][number];

export function laidOver(view: ManualView, pending: Pending[]): ManualView {
  if (pending.length === 0) return view;
  return { ...view, manual: pending.reduce((manual, { edit }) => lay(manual, edit), view.manual) };
}

function lay(manual: Manual, edit: Edit): Manual {
  if ("step" in edit) return { ...manual, steps: layStep(manual.steps, edit.step) };
  if ("caution" in edit) return { ...manual, cautions: laySet(manual.cautions, edit.caution) };
  if ("note" in edit) return { ...manual, notes: laySet(manual.notes ?? {}, edit.note) };
  if ("fastener" in edit) return { ...manual, fasteners: laySet(manual.fasteners, edit.fastener) };
  if ("connector" in edit) return { ...manual, connectors: laySet(manual.connectors, edit.connector) };
  if ("head" in edit) return { ...manual, head: withFields(manual.head, edit.head) };
  return manual;
}

/** A field that is sent as it is kept; others (a torque as people write it) wait. */
function laySet<T extends object>(map: Record<string, T>, edit: object): Record<string, T> {
  const set = (edit as { set?: { id: string; field: object } }).set;
  const entity = set && map[set.id];
  return set && entity ? { ...map, [set.id]: withFields(entity, set.field) } : map;
}

/** Sent as people write it, and kept as the server reads it. */
const SENT_OTHERWISE = ["torque", "weights", "wires", "route"];

function withFields<T extends object>(entity: T, fields: object): T {
  const known = Object.entries(fields).filter(([name]) => name in entity && !SENT_OTHERWISE.includes(name));
  return { ...entity, ...Object.fromEntries(known) };
}

function layStep(steps: Record<string, Step>, edit: StepEdit): Record<string, Step> {
  if (!("sentence" in edit)) return laySet(steps, edit);
  const step = steps[edit.sentence.id];
  return step
    ? { ...steps, [step.id]: { ...step, actions: laySentence(step.actions, edit.sentence.sentence) } }
    : steps;
}

/** Each of these may be there already: an answer arrives before its edit is taken off the list. */
function laySentence(row: Sentence[], edit: SentenceEdit): Sentence[] {
  if ("remove" in edit) return row.filter((s) => s.id !== edit.remove.id);
  if ("set" in edit) {
    const { id, field } = edit.set;
    return row.map((s) => (s.id === id && typeof field === "object" ? withFields(s, field) : s));
  }
  if ("add" in edit) {
    const { sentence, after } = edit.add;
    return row.some((s) => s.id === sentence.id) ? row : placed(row, sentence, after);
  }
  if ("move" in edit) {
    const moved = row.find((s) => s.id === edit.move.id);
    const others = row.filter((s) => s !== moved);
    return moved ? placed(others, moved, edit.move.after) : row;
  }
  return row;
}

/** Behind the one that is named; in front of all where none is. */
function placed(row: Sentence[], sentence: Sentence, after: string | null | undefined): Sentence[] {
  const at = row.findIndex((s) => s.id === after) + 1;
  return [...row.slice(0, at), sentence, ...row.slice(at)];
}
