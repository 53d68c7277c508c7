/** One field of a group of screws, sent as an edit. */
import type { Edit } from "../../api/client";
import { useManual } from "../../api/manual";
import type { Result } from "../../api/outbox";
import { refusal } from "../../parts/controls";

export type GroupField = Extract<Extract<Edit, { fastener: unknown }>["fastener"], { set: unknown }>["set"]["field"];

export function useSetGroup(id: string): (field: GroupField) => Promise<Result> {
  const { edit } = useManual();
  return (field) => edit({ fastener: { set: { id, field } } });
}

/** What was typed as figures, in their order; a comma may stand for the point. */
export const figures = (typed: string) =>
  typed
    .split(/[;\s–]+/)
    .filter(Boolean)
    .map((t) => Number(t.replace(",", ".")));

/** Sends what was typed as the two ends of a range, or nothing where the field is empty; what is none is told at the field. */
export function sendPair(typed: string, send: (ends: [number, number] | null) => Promise<Result>): Promise<Result> {
  const [low, high, more] = figures(typed);
  if (low === undefined) return send(null);
  return Number.isFinite(low) && high !== undefined && Number.isFinite(high) && more === undefined
    ? send([low, high])
    : noFigure(`“${typed}” is not two figures. Write them such as 0.1 0.16.`);
}

const noFigure = (detail: string): Promise<Result> => Promise.resolve({ ok: false, problem: refusal(detail) });

export const written = (typed: string) => typed.trim() || null;
